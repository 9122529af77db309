import type { UnitSystem } from '@glenfold/agronomy';
import type {
  FieldTestAnswer,
  LabFileInput,
  LabProfileAnswer,
  LabProfileInput,
  LabQuestionAnswer,
  LabQuestionInput,
  LabReportAnswer,
  LabReportChoices,
  LabResultAnswer,
  LabResultInput,
  LoadCheckAnswer,
  LoadCheckInput,
  ZoneRecordAnswer,
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
  labQuestions: (siteId: string) =>
    queryOptions({
      queryKey: ['site', siteId, 'lab-questions'],
      queryFn: () => api<LabQuestionAnswer[]>('GET', `/sites/${siteId}/lab-questions`),
    }),
  fieldTests: (siteId: string, units: UnitSystem) =>
    queryOptions({
      queryKey: ['site', siteId, 'field-tests', units],
      queryFn: () => api<FieldTestAnswer[]>('GET', `/sites/${siteId}/field-tests?units=${units}`),
    }),
  loadChecks: (siteId: string) =>
    queryOptions({
      queryKey: ['site', siteId, 'load-checks'],
      queryFn: () => api<LoadCheckAnswer[]>('GET', `/sites/${siteId}/load-checks`),
    }),
  zoneRecord: (zoneId: string, units: UnitSystem) =>
    queryOptions({
      queryKey: ['zone-record', zoneId, units],
      queryFn: () => api<ZoneRecordAnswer>('GET', `/zones/${zoneId}/record?units=${units}`),
    }),
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
export const useSaveQuestion = () => useSave<LabQuestionInput, LabQuestionAnswer>('/lab-questions');
export const useKeepLoad = () =>
  useChange('load', (input: LoadCheckInput) => api<LoadCheckAnswer>('POST', '/load-checks', input));
