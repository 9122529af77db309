import type {
  LabFileInput,
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
};

export const useSaveLabResult = () => useSave<LabResultInput, LabResultAnswer>('/lab-results');
export const usePreviewLabFile = (siteId: string) =>
  useChange('result', (file: LabFileInput) => api<LabReportAnswer>('POST', `/sites/${siteId}/lab-reports`, file));
export const useCorrectLabFile = () => useSave<LabReportChoices, LabReportAnswer>('/lab-reports');
export const useConfirmLabFile = () =>
  useChange('result', (id: string) => api<LabReportAnswer>('POST', `/lab-reports/${id}/confirm`));
