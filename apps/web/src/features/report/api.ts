import type { UnitSystem } from '@glenfold/agronomy';
import type {
  NewestOwnerReportAnswer,
  OwnerReportAnswer,
  QuoteAnswer,
  QuoteAnswersInput,
  ShareLinkAnswer,
  ShareLinkInput,
  SharedSitesAnswer,
  SiteReportAnswer,
} from '@glenfold/contract';
import { infiniteQueryOptions, queryOptions } from '@tanstack/react-query';
import { useChange } from '../../api/changes.ts';
import { api } from '../../api/client.ts';
import { asked, paged } from '../../api/queries.ts';

export const reportQueries = {
  /** Sites whose reports somebody reads, a page at a time. */
  reports: () =>
    infiniteQueryOptions({
      queryKey: ['reports'],
      queryFn: ({ pageParam }) => api<SharedSitesAnswer>('GET', `/reports${asked({ after: pageParam })}`),
      ...paged,
    }),
  report: (siteId: string) =>
    queryOptions({
      queryKey: ['site', siteId, 'report'],
      queryFn: () => api<SiteReportAnswer>('GET', `/sites/${siteId}/report`),
    }),
  shareLinks: (siteId: string) =>
    queryOptions({
      queryKey: ['site', siteId, 'share-links'],
      queryFn: () => api<ShareLinkAnswer[]>('GET', `/sites/${siteId}/share-links`),
    }),
  /** The report in plain words as it is being made; asked for often until it is there. */
  ownerReport: (siteId: string) =>
    queryOptions({
      queryKey: ['site', siteId, 'owner-report'],
      queryFn: () => api<NewestOwnerReportAnswer>('GET', `/sites/${siteId}/owner-report`),
      refetchInterval: ({ state: { data } }) => (data?.newest?.state === 'asked' ? 1500 : false),
    }),
  shared: (token: string) =>
    queryOptions({
      queryKey: ['shared', token],
      queryFn: () => api<SiteReportAnswer>('GET', `/shared/${token}`),
      retry: false,
    }),
};

/** What the owner says to a quote, signed in or by a link. */
export const useSay = (under: string, quoteId: string) =>
  useChange('program', (input: QuoteAnswersInput) =>
    api<QuoteAnswer>('POST', `${under}/quotes/${quoteId}/answers`, input),
  );
/** Ask for a draft in plain words. */
export const useAskReport = (siteId: string) =>
  useChange('ownerReport', (units: UnitSystem) =>
    api<OwnerReportAnswer>('POST', `/sites/${siteId}/owner-report?units=${units}`),
  );
export const useWriteLetter = () =>
  useChange('ownerReport', ({ id, version, letter }: Pick<OwnerReportAnswer, 'id' | 'version' | 'letter'>) =>
    api<OwnerReportAnswer>('PUT', `/owner-reports/${id}/letter`, { letter }, version),
  );
export const useHandOverReport = () =>
  useChange('ownerReport', (id: string) => api<OwnerReportAnswer>('POST', `/owner-reports/${id}/handed-over`));
export const useShare = (siteId: string) =>
  useChange('share', (input: ShareLinkInput) => api<ShareLinkAnswer>('POST', `/sites/${siteId}/share-links`, input));
export const useRevokeLink = () => useChange('share', (id: string) => api<null>('DELETE', `/share-links/${id}`));
