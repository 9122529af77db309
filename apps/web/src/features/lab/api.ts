import type {
  LabFileInput,
  LabProfileAnswer,
  LabProfileInput,
  LabReportAnswer,
  LabReportChoices,
  LabResultAnswer,
  LabResultInput,
} from '@glenfold/contract';
import { queryOptions } from '@tanstack/react-query';
import { useChange, useSave } from '../../api/changes.ts';
import { api } from '../../api/client.ts';

export const labQueries = {
  labReports: (siteId: string) =>
    queryOptions({
      queryKey: ['site', siteId, 'lab-reports'],
      queryFn: () => api<LabReportAnswer[]>('GET', `/sites/${siteId}/lab-reports`),
    }),
  ways: () =>
    queryOptions({ queryKey: ['lab-profiles'], queryFn: () => api<LabProfileAnswer[]>('GET', '/lab-profiles') }),
};

export const useSaveLabResult = () => useSave<LabResultInput, LabResultAnswer>('/lab-results');
export const usePreviewLabFile = (siteId: string) =>
  useChange('result', (file: LabFileInput) => api<LabReportAnswer>('POST', `/sites/${siteId}/lab-reports`, file));
export const useCorrectLabFile = () => useSave<LabReportChoices, LabReportAnswer>('/lab-reports');
export const useConfirmLabFile = () =>
  useChange('result', (id: string) => api<LabReportAnswer>('POST', `/lab-reports/${id}/confirm`));
/** Keep how a file is read as its laboratory's way. */
export const useLearnLabFile = () =>
  useChange(['result', 'way'], ({ id, name }: { readonly id: string; readonly name: string }) =>
    api<LabReportAnswer>('POST', `/lab-reports/${id}/profile`, { name }),
  );
export const useSaveWay = () => useSave<LabProfileInput, LabProfileAnswer>('/lab-profiles');
