import type { ShareLinkAnswer, ShareLinkInput, SharedSiteAnswer, SiteReportAnswer } from '@glenfold/contract';
import { queryOptions } from '@tanstack/react-query';
import { useChange } from '../../api/changes.ts';
import { api } from '../../api/client.ts';

export const reportQueries = {
  reports: () => queryOptions({ queryKey: ['reports'], queryFn: () => api<SharedSiteAnswer[]>('GET', '/reports') }),
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

export const useShare = (siteId: string) =>
  useChange('share', (input: ShareLinkInput) => api<ShareLinkAnswer>('POST', `/sites/${siteId}/share-links`, input));
export const useRevokeLink = () => useChange('share', (id: string) => api<null>('DELETE', `/share-links/${id}`));
