import type {
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
export const useShare = (siteId: string) =>
  useChange('share', (input: ShareLinkInput) => api<ShareLinkAnswer>('POST', `/sites/${siteId}/share-links`, input));
export const useRevokeLink = () => useChange('share', (id: string) => api<null>('DELETE', `/share-links/${id}`));
