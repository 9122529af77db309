import type { UnitSystem } from '@glenfold/agronomy';
import type {
  HandOverAheadAnswer,
  HandOverInput,
  IssuedProgramAnswer,
  PriceOfSiteAnswer,
  QuoteAnswer,
  QuoteAnswersInput,
  QuoteInput,
  QuoteOfSiteAnswer,
  SiteProgramAnswer,
} from '@glenfold/contract';
import { queryOptions } from '@tanstack/react-query';
import { useChange } from '../../api/changes.ts';
import { api } from '../../api/client.ts';

export const ratesQueries = {
  /** What is offered of the site’s program. */
  quote: (siteId: string) =>
    queryOptions({
      queryKey: ['program', 'quote', siteId],
      queryFn: () => api<QuoteOfSiteAnswer>('GET', `/sites/${siteId}/quote`),
    }),
  /** What its owner was told that the year costs. */
  price: (siteId: string) =>
    queryOptions({
      queryKey: ['price', siteId],
      queryFn: () => api<PriceOfSiteAnswer>('GET', `/sites/${siteId}/price`),
    }),
  /** What handing over would do; looked up anew each time it is asked. */
  ahead: (siteId: string, units: UnitSystem, zoneId?: string) =>
    queryOptions({
      queryKey: ['program', 'ahead', siteId, units, zoneId ?? ''],
      queryFn: () =>
        api<HandOverAheadAnswer>(
          'GET',
          `/sites/${siteId}/programs/ahead?units=${units}${zoneId ? `&zone=${zoneId}` : ''}`,
        ),
      gcTime: 0,
      staleTime: 0,
    }),
  /** The whole site; it follows every program of its zones. */
  siteProgram: (siteId: string, units: UnitSystem) =>
    queryOptions({
      queryKey: ['program', 'site', siteId, units],
      queryFn: () => api<SiteProgramAnswer>('GET', `/sites/${siteId}/program?units=${units}`),
    }),
};

/** Begin the next year of a site’s program. */
export const useBeginYear = (siteId: string) =>
  useChange('program', () => api<null>('POST', `/sites/${siteId}/program/year`));

export const useOffer = (siteId: string, units: UnitSystem) =>
  useChange('program', (input: QuoteInput) =>
    api<QuoteAnswer>('POST', `/sites/${siteId}/quotes?units=${units}`, input),
  );

/** What the owner has said on the phone or on paper. */
export const useSayFor = (quoteId: string) =>
  useChange('program', (input: QuoteAnswersInput) => api<QuoteAnswer>('POST', `/quotes/${quoteId}/answers`, input));
export const useTakeOver = (quoteId: string) =>
  useChange('program', () => api<QuoteAnswer>('POST', `/quotes/${quoteId}/taken-over`));
export const useWithdraw = (quoteId: string) => useChange('program', () => api<null>('DELETE', `/quotes/${quoteId}`));

export const useHandOver = (siteId: string, units: UnitSystem) =>
  useChange('program', (input: HandOverInput) =>
    api<IssuedProgramAnswer>('POST', `/sites/${siteId}/programs?units=${units}`, input),
  );
