import type { UnitSystem } from '@glenfold/agronomy';
import type {
  AuditPageAnswer,
  BagAnswer,
  BagLineAnswer,
  DrawnThingsAnswer,
  HiddenSoilAnswer,
  InvitationAnswer,
  InvitationOfferAnswer,
  LabReportAnswer,
  LabResultAnswer,
  LaboratoryAnswer,
  MemberAnswer,
  PhotoAnswer,
  OutboxAnswer,
  ProductAnswer,
  ResetOfferAnswer,
  RoundsAnswer,
  SessionAnswer,
  ShareLinkAnswer,
  SharedSiteAnswer,
  SiteReportAnswer,
  SiteStateAnswer,
  ZoneAnswer,
  ZonePlanAnswer,
} from '@glenfold/contract';
import { infiniteQueryOptions, queryOptions } from '@tanstack/react-query';
import { ApiProblem, api, standAs } from './client.ts';

/** Keys and fetchers, one place per resource. */
export const queries = {
  /** Who is signed in, at which practice, as what. */
  session: () =>
    queryOptions({
      queryKey: ['session'],
      queryFn: async () => {
        const session = await api<SessionAnswer>('GET', '/session');
        standAs({ csrf: session.csrf, practiceId: session.practice?.id });
        return session;
      },
    }),
  members: () => queryOptions({ queryKey: ['members'], queryFn: () => api<MemberAnswer[]>('GET', '/members') }),
  invitations: () =>
    queryOptions({ queryKey: ['invitations'], queryFn: () => api<InvitationAnswer[]>('GET', '/invitations') }),
  outbox: () => queryOptions({ queryKey: ['outbox'], queryFn: () => api<OutboxAnswer>('GET', '/outbox') }),
  audit: () =>
    infiniteQueryOptions({
      queryKey: ['audit'],
      queryFn: ({ pageParam }) => api<AuditPageAnswer>('GET', `/audit${pageParam ? `?before=${pageParam}` : ''}`),
      initialPageParam: null as string | null,
      getNextPageParam: ({ next }) => next,
    }),
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
  invitation: (token: string) =>
    queryOptions({
      queryKey: ['invitation', token],
      queryFn: () => api<InvitationOfferAnswer>('GET', `/invitations/${token}/offer`),
      retry: false,
    }),
  reset: (token: string) =>
    queryOptions({
      queryKey: ['reset', token],
      queryFn: () => api<ResetOfferAnswer>('GET', `/password-resets/${token}`),
      retry: false,
    }),
  rounds: () => queryOptions({ queryKey: ['rounds'], queryFn: () => api<RoundsAnswer>('GET', '/rounds') }),
  siteState: (siteId: string) =>
    queryOptions({
      queryKey: ['site', siteId, 'state'],
      queryFn: () => api<SiteStateAnswer>('GET', `/sites/${siteId}/state`),
    }),
  /** All that is drawn of a site beside its zones. */
  groundThings: (siteId: string) =>
    queryOptions({
      queryKey: ['site', siteId, 'ground-things'],
      queryFn: () => api<DrawnThingsAnswer>('GET', `/sites/${siteId}/plan`),
    }),
  bags: (siteId: string) =>
    queryOptions({
      queryKey: ['site', siteId, 'bags'],
      queryFn: () => api<BagAnswer[]>('GET', `/sites/${siteId}/bags`),
    }),
  /** Bags of all sites. */
  board: () => queryOptions({ queryKey: ['bags'], queryFn: () => api<BagLineAnswer[]>('GET', '/bags') }),
  laboratories: () =>
    queryOptions({ queryKey: ['laboratories'], queryFn: () => api<LaboratoryAnswer[]>('GET', '/laboratories') }),
  /** The made-up soil behind a simulated laboratory's numbers. */
  hiddenSoil: (bagId: string) =>
    queryOptions({
      queryKey: ['bags', bagId, 'hidden-soil'],
      queryFn: () => api<HiddenSoilAnswer>('GET', `/bags/${bagId}/hidden-soil`),
    }),
  bagByCode: (code: string) =>
    queryOptions({
      queryKey: ['bags', 'by-code', code],
      queryFn: () => api<BagLineAnswer>('GET', `/bags/by-code/${encodeURIComponent(code)}`),
      retry: false,
    }),
  photos: (siteId: string) =>
    queryOptions({
      queryKey: ['site', siteId, 'photos'],
      queryFn: () => api<PhotoAnswer[]>('GET', `/sites/${siteId}/photos`),
    }),
  zones: (siteId: string) =>
    queryOptions({
      queryKey: ['site', siteId, 'zones'],
      queryFn: () => api<ZoneAnswer[]>('GET', `/sites/${siteId}/zones`),
    }),
  labResults: (siteId: string) =>
    queryOptions({
      queryKey: ['site', siteId, 'lab-results'],
      queryFn: () => api<LabResultAnswer[]>('GET', `/sites/${siteId}/lab-results`),
    }),
  labReports: (siteId: string) =>
    queryOptions({
      queryKey: ['site', siteId, 'lab-reports'],
      queryFn: () => api<LabReportAnswer[]>('GET', `/sites/${siteId}/lab-reports`),
    }),
  plan: (zoneId: string, units: UnitSystem) =>
    queryOptions({
      queryKey: ['plan', zoneId, units],
      queryFn: () => api<ZonePlanAnswer>('GET', `/zones/${zoneId}/plan?units=${units}`),
      placeholderData: (previous) => (previous?.zoneId === zoneId ? previous : undefined),
      retry: (failures, error) => !(error instanceof ApiProblem && error.status === 404) && failures < 2,
    }),
  products: () => queryOptions({ queryKey: ['products'], queryFn: () => api<ProductAnswer[]>('GET', '/products') }),
};
