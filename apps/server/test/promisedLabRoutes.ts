import { randomUUID } from 'node:crypto';
import type { Route } from './routes.ts';

/** How a made-up laboratory arranges its files. */
export const profileBody = {
  name: 'Tidewater',
  columns: [
    { header: 'Sample', field: 'label', unit: null, basis: 'element' },
    { header: 'pH', field: 'soilPh', unit: 'pH', basis: 'element' },
  ],
};

const questionBody = (zoneId: string) => ({ zoneId, askedOn: '2026-10-01', question: 'Why so much zinc?' });

/** What the lab step and tests with one's own hands are read and changed by. */
export const labRoutes: Readonly<Record<string, Route>> = {
  'GET /sites/:siteId/field-tests': { for: 'OAT', query: () => 'units=us' },
  'POST /field-tests': {
    for: 'OAT',
    query: () => 'units=us',
    body: ({ zoneId }) => ({
      ...{
        id: randomUUID(),
        zoneId,
        kind: 'probe',
        on: '2026-10-01',
        record: { stops: [12] },
        closed: true,
        revision: 1,
      },
    }),
  },
  'DELETE /field-tests/:id': { for: 'OA', id: 'fieldTestId' },
  'POST /field-tests/:id/restore': { for: 'OA', id: 'fieldTestId', query: () => 'units=us' },
  'GET /zones/:zoneId/record': { for: 'OAT', query: () => 'units=us' },
  'GET /zones/:zoneId/record.csv': { for: 'OAT', query: () => 'units=us' },
  'GET /sites/:siteId/load-checks': { for: 'OAT' },
  'POST /load-checks': {
    for: 'OAT',
    body: ({ siteId }) => ({ id: randomUUID(), siteId, kind: 'compost', on: '2026-10-01', name: 'A load', record: {} }),
  },
  'DELETE /load-checks/:id': { for: 'OA', id: 'loadCheckId' },
  'POST /load-checks/:id/restore': { for: 'OA', id: 'loadCheckId' },
  'GET /lab-reports/:id/original': { for: 'OAT', id: 'importId' },
  'POST /lab-reports/:id/profile': { for: 'OA', id: 'importId', body: () => ({ name: 'Learned' }) },
  'GET /lab-profiles': { for: 'OAT', ownOnly: true },
  'POST /lab-profiles': { for: 'OA', ownOnly: true, body: () => ({ ...profileBody, name: randomUUID() }) },
  'PUT /lab-profiles/:id': { for: 'OA', id: 'profileId', body: () => ({ ...profileBody, name: randomUUID() }) },
  'DELETE /lab-profiles/:id': { for: 'OA', id: 'profileId' },
  'POST /lab-profiles/:id/restore': { for: 'OA', id: 'profileId' },
  'GET /histories': { for: 'OAT', ownOnly: true },
  'POST /histories': {
    for: 'OA',
    ownOnly: true,
    body: () => ({ fileName: 'h.csv', bytes: Buffer.from(`Site,Zone,pH\n${randomUUID()},B,6\n`).toString('base64') }),
  },
  'GET /sites/:siteId/lab-questions': { for: 'OAT' },
  'POST /lab-questions': { for: 'OA', body: ({ zoneId }) => questionBody(zoneId) },
  'PUT /lab-questions/:id': { for: 'OA', id: 'questionId', body: ({ zoneId }) => questionBody(zoneId) },
  'DELETE /lab-questions/:id': { for: 'OA', id: 'questionId' },
  'POST /lab-questions/:id/restore': { for: 'OA', id: 'questionId' },
};
