import type { UnitSystem } from '@glenfold/agronomy';
import type {
  FoundAnswer,
  DrawnThingsAnswer,
  LabResultAnswer,
  PhotoAnswer,
  ProductAnswer,
  ProductNameAnswer,
  RunAnswer,
  SessionAnswer,
  SiteStateAnswer,
  ZoneAnswer,
  ZoneProgramAnswer,
  SettingAnswer,
  SitesAnswer,
} from '@glenfold/contract';
import { keepPreviousData, queryOptions } from '@tanstack/react-query';
import { api, standAs } from './client.ts';

/** What is asked for, as it stands in an address; what is empty is left out. */
export function asked(parts: Readonly<Record<string, string | null>>): string {
  const known = Object.entries(parts).filter((part): part is [string, string] => !!part[1]);
  return known.length > 0 ? `?${new URLSearchParams(known).toString()}` : '';
}

/** Whether long work has not ended. */
export const isUnderWay = ({ state }: RunAnswer): boolean => state === 'waiting' || state === 'running';

/** Page by page, each behind the last. */
export const paged = {
  initialPageParam: null as string | null,
  getNextPageParam: ({ next }: { readonly next: string | null }) => next,
};

/** Keys and fetchers of what several steps read; a step’s own stand in its `api.ts`. */
export const queries = {
  /** Long work of the practice; asked for often while something is under way. */
  runs: () =>
    queryOptions({
      queryKey: ['runs'],
      queryFn: () => api<RunAnswer[]>('GET', '/runs'),
      refetchInterval: ({ state: { data } }) => (data?.some(isUnderWay) ? 1500 : 60_000),
    }),
  /** Who is signed in, at which practice, as what. */
  session: () =>
    queryOptions({
      queryKey: ['session'],
      queryFn: async () => {
        const session = await api<SessionAnswer>('GET', '/session');
        standAs({ csrf: session.csrf, practiceId: session.practice?.id });
        return session;
      },
      // Without a connection it is told at once, and what is on the device offered.
      networkMode: 'always',
    }),
  /** Sites, zones and bags that a few letters find. */
  find: (text: string) =>
    queryOptions({
      queryKey: ['find', text],
      queryFn: () => api<FoundAnswer>('GET', `/find${asked({ text })}`),
      placeholderData: keepPreviousData,
    }),
  siteState: (siteId: string) =>
    queryOptions({
      queryKey: ['site', siteId, 'state'],
      queryFn: () => api<SiteStateAnswer>('GET', `/sites/${siteId}/state`),
    }),
  /** All that is drawn of a site beside its zones. */
  groundThings: (siteId: string) =>
    queryOptions({
      queryKey: ['site', siteId, 'ground-things'],
      queryFn: () => api<DrawnThingsAnswer>('GET', `/sites/${siteId}/drawing`),
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
  photos: (siteId: string) =>
    queryOptions({
      queryKey: ['site', siteId, 'photos'],
      queryFn: () => api<PhotoAnswer[]>('GET', `/sites/${siteId}/photos`),
    }),
  program: (zoneId: string, units: UnitSystem) =>
    queryOptions({
      queryKey: ['program', zoneId, units],
      queryFn: () => api<ZoneProgramAnswer>('GET', `/zones/${zoneId}/program?units=${units}`),
      placeholderData: (previous) => (previous?.zoneId === zoneId ? previous : undefined),
    }),
  /** Names of the products, for those who put them down. */
  productNames: () =>
    queryOptions({
      queryKey: ['products', 'names'],
      queryFn: () => api<ProductNameAnswer[]>('GET', '/products/names'),
    }),
  products: () => queryOptions({ queryKey: ['products'], queryFn: () => api<ProductAnswer[]>('GET', '/products') }),
  /** All that was decided, for the practice, its sites and zones. */
  settings: () => queryOptions({ queryKey: ['settings'], queryFn: () => api<SettingAnswer[]>('GET', '/settings') }),
  /** The first sites whose name or place holds the letters. */
  sites: (text: string) =>
    queryOptions({
      queryKey: ['sites', { text }],
      queryFn: () => api<SitesAnswer>('GET', `/sites${asked({ text })}`),
      placeholderData: keepPreviousData,
    }),
  /** Certain sites. */
  sitesNamed: (ids: readonly string[]) =>
    queryOptions({
      queryKey: ['sites', { ids }],
      queryFn: () => api<SitesAnswer>('GET', `/sites${asked({ ids: ids.join(',') })}`),
      enabled: ids.length > 0,
    }),
};
