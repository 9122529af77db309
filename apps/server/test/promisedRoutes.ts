import { randomUUID } from 'node:crypto';
import { typed } from './client.ts';
import { labRoutes } from './promisedLabRoutes.ts';
import type { Ids, Route } from './routes.ts';
import { demoEmails, demoPassword } from './harness.ts';

export type { Ids, Method, Route, Who } from './routes.ts';

export const laboratoryBody = {
  name: 'Tidewater Soils',
  extractant: 'mehlich-3',
  depths: [{ for: 'lawns', from: 7, to: 11 }],
  volume: 500,
  fees: [{ panel: 'routine', fee: 18 }],
  daysLeast: 5,
  daysMost: 9,
} as const;

export const machineBody = { kind: 'roller', hired: false, settings: [] } as const;
export const productBody = {
  ...{ name: 'Feed', kind: 'fertilizer', packSize: 25, packUnit: 'kg' },
  analysis: { n: 20, p2o5: 0, k2o: 10 },
} as const;

export const zoneBody = {
  name: 'Strip',
  label: 'X',
  area: 9,
  grass: 'tall fescue',
  surface: 'turf',
  intensity: 'low',
  shade: 'part',
  clippings: 'removed',
};
export const result = ({ zoneId }: Ids) => typed({ id: zoneId, label: 'X' });
/** One grey pixel. */
export const picture = {
  type: 'image/png',
  image: 'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAAAAAA6fptVAAAACklEQVR4nGNoAAAAggCBd81ytgAAAABJRU5ErkJggg==',
};
const size = { name: 'grey.png', width: 1, height: 1 };
export const lying = {
  matches: [
    { right: 0, down: 0, place: [-36, 46.5] },
    { right: 1, down: 1, place: [-35.999, 46.499] },
  ],
  opacity: 0.5,
};
/** A bag of two cores, the second without a place. */
export const bagBody = (zoneId: string) => ({
  purpose: 'routine',
  depth: 10,
  probe: 1.9,
  panels: ['routine'],
  design: 'coverage',
  edge: 1,
  clear: 1,
  seed: 7,
  cores: [
    { zoneId, turn: 1, place: [-36, 46.5] },
    { zoneId, turn: 2 },
  ],
});
const quoteAnswers = ({ quoteLineId }: Ids) => ({ by: 'Wyn Marram', lines: [{ id: quoteLineId, answer: 'accepted' }] });
const moment = '2026-10-14T09:30:00Z';
let labels = 0;
export const nobodyThere = 'A'.repeat(43);

/** Every route, and everybody who may use it. Read it as the promise of who sees what. */
export const promised: Readonly<Record<string, Route>> = {
  ...labRoutes,
  'GET /openapi.json': { for: 'OATCN', ownOnly: true },
  'GET /session': { for: 'OATCN', ownOnly: true },
  'POST /session': { for: 'OATCN', ownOnly: true, body: () => ({ email: demoEmails.owner, password: demoPassword }) },
  'POST /demo/session': { for: 'OATCN', ownOnly: true, body: () => ({ personId: '' }) },
  'POST /first-run': {
    for: 'OATCN',
    ownOnly: true,
    body: () => ({ practice: 'P', name: 'N', email: 'n@p.example', password: 'long enough words' }),
  },
  'POST /first-run/load': { for: 'OATCN', ownOnly: true },
  'POST /password-resets': { for: 'OATCN', ownOnly: true, body: () => ({ email: 'nobody@p.example' }) },
  'GET /password-resets/:token': { for: 'OATCN', ownOnly: true },
  'PUT /password-resets/:token': { for: 'OATCN', ownOnly: true, body: () => ({ password: 'long enough words' }) },
  'GET /invitations/:token/offer': { for: 'OATCN', ownOnly: true },
  'PUT /invitations/:token/offer': { for: 'OATCN', ownOnly: true, body: () => ({ password: 'long enough words' }) },
  'GET /shared/:token': { for: 'OATCN', ownOnly: true },
  'GET /shared/:token/plans/:planId/plan.pdf': { for: 'OATCN', ownOnly: true },
  'GET /shared/:token/plans/:planId/working': { for: 'OATCN', ownOnly: true },
  'POST /shared/:token/quotes/:quoteId/answers': { for: 'OATCN', ownOnly: true, body: quoteAnswers },
  'GET /shared/:token/quotes/:quoteId/quote.pdf': { for: 'OATCN', ownOnly: true },

  'DELETE /session': { for: 'OATC', ownOnly: true },
  'DELETE /sessions': { for: 'OATC', ownOnly: true },
  'PUT /session/practice': { for: 'OATC', ownOnly: true, body: ({ practiceId }) => ({ practiceId }) },
  'PUT /session/password': {
    for: 'OATC',
    ownOnly: true,
    body: () => ({ current: 'x', password: 'long enough words' }),
  },

  'PUT /session/personal': { for: 'OATC', ownOnly: true, body: () => ({ units: 'us' }) },
  'GET /reports': { for: 'OATC', ownOnly: true },
  'GET /sites/:siteId/report': { for: 'OATC' },
  'GET /sites/:siteId/season': { for: 'OAT', query: () => 'units=us' },
  'POST /sites/:siteId/season/days': { for: 'OA', query: () => 'units=us' },
  'GET /season/week': { for: 'OAT', ownOnly: true, query: () => 'units=us' },
  'GET /season/cards': { for: 'OAT', ownOnly: true, query: () => 'units=us' },
  'GET /jobs/:jobId/card': { for: 'OAT', query: () => 'units=us' },
  'GET /jobs/:jobId/breaks': { for: 'OAT', query: () => 'units=us&day=2999-05-01' },
  'PUT /jobs/:jobId/day': { for: 'OA', id: 'jobId', query: () => 'units=us', body: () => ({ day: null }) },
  'PUT /jobs/:jobId/hold': { for: 'OAT', id: 'jobId', query: () => 'units=us', body: () => ({ reason: 'a storm' }) },
  'DELETE /jobs/:jobId/hold': { for: 'OAT', id: 'jobId', query: () => 'units=us' },
  'PUT /jobs/:jobId/crew': { for: 'OA', id: 'jobId', query: () => 'units=us', body: () => ({}) },
  'GET /zones/:zoneId/water': { for: 'OAT', id: 'zoneId', query: () => 'units=us&day=2027-07-15' },
  'POST /sites/:siteId/dates': { for: 'OA', body: () => ({ name: 'Match', day: '2030-09-12' }) },
  'DELETE /site-dates/:id': { for: 'OA', id: 'siteDateId' },
  'POST /site-dates/:id/restore': { for: 'OA', id: 'siteDateId' },
  'GET /calendar-links': { for: 'OAT', ownOnly: true },
  'POST /calendar-links': { for: 'OAT', ownOnly: true },
  'DELETE /calendar-links/:id': { for: 'OAT', id: 'calendarLinkId' },
  'GET /calendar/:token.ics': { for: 'OATCN', ownOnly: true },
  'GET /sites/:siteId/logbook': { for: 'OAT', query: () => 'units=us' },
  'GET /sites/:siteId/logbook.pdf': { for: 'OAT', query: () => 'units=us&from=2027-01-01&to=2027-12-31' },
  'GET /sites/:siteId/logbook.csv': { for: 'OAT', query: () => 'from=2027-01-01&to=2027-12-31' },
  'POST /entries': {
    for: 'OAT',
    body: ({ zoneId }) => ({ id: randomUUID(), zoneId, on: '2026-05', kind: 'lime', state: 'done', words: 'some' }),
  },
  'GET /sites/:siteId/proof': { for: 'OAT' },
  'GET /proof': { for: 'OAT', ownOnly: true },
  'GET /sites/:siteId/program': { for: 'OAT', query: () => 'units=us' },
  'GET /sites/:siteId/program.pdf': { for: 'OAT', query: () => 'units=us' },
  'GET /sites/:siteId/program/working': { for: 'OAT', query: () => 'units=us&of=x&at=/list' },
  'GET /sites/:siteId/report/plans/:planId/plan.pdf': { for: 'OATC' },
  'GET /sites/:siteId/report/plans/:planId/working': { for: 'OATC', query: () => 'of=x&at=/plan' },
  'GET /sites/:siteId/report/quotes/:quoteId/quote.pdf': { for: 'OATC' },
  'POST /sites/:siteId/report/quotes/:quoteId/answers': { for: 'OAC', body: quoteAnswers },
  'GET /sites/:siteId/quote': { for: 'OAT' },
  'GET /quotes/:quoteId/quote.pdf': { for: 'OAT' },

  'GET /runs': { for: 'OAT', ownOnly: true },
  'POST /runs/:id/stop': { for: 'OA', id: 'runId' },
  'POST /runs/:id/again': { for: 'OA', id: 'runId' },
  'DELETE /runs/:id': { for: 'OA', id: 'endedRunId' },
  'GET /rounds': { for: 'OAT', ownOnly: true },
  'GET /rounds/sites': { for: 'OAT', ownOnly: true },
  'GET /find': { for: 'OAT', ownOnly: true },
  'GET /walks': { for: 'OAT', ownOnly: true },
  'GET /sites': { for: 'OAT', ownOnly: true },
  'GET /sites/:siteId': { for: 'OAT' },
  'GET /sites/:siteId/state': { for: 'OAT' },
  'GET /sites/:siteId/zones': { for: 'OAT' },
  'GET /sites/:siteId/drawing': { for: 'OAT' },
  'GET /sites/:siteId/lab-results': { for: 'OAT' },
  'GET /sites/:siteId/lab-reports': { for: 'OAT' },
  'GET /zones/:zoneId/program': { for: 'OAT' },
  'GET /zones/:zoneId/program.pdf': { for: 'OAT' },
  'GET /zones/:zoneId/program/working': { for: 'OAT', query: () => 'units=us&of=x&at=/program' },
  'GET /programs/:programId/program.pdf': { for: 'OAT' },
  'GET /program-zones/:planId/program.pdf': { for: 'OAT' },
  'PUT /zones/:zoneId/measurements': { for: 'OAT', body: () => ({ thatch: 1 }) },
  'PUT /zones/:zoneId/facts': { for: 'OAT', body: () => ({ sunHours: 4 }) },
  'GET /sites/:siteId/photos': { for: 'OAT' },
  'GET /sites/:siteId/drawing.pdf': { for: 'OAT' },
  'GET /sites/:siteId/drawing.svg': { for: 'OAT' },
  'POST /zones/:zoneId/photos': { for: 'OAT', body: () => picture },
  'GET /photos/:photoId/image': { for: 'OAT' },
  'GET /underlays/:underlayId/image': { for: 'OAT' },

  'GET /sites/:siteId/bags': { for: 'OAT' },
  'GET /bags': { for: 'OAT', ownOnly: true },
  // A code that is mistyped, so that nothing has to be found.
  'GET /bags/by-code/:code': { for: 'OAT', ownOnly: true },
  'GET /bags/labels.pdf': {
    for: 'OAT',
    query: ({ bagId }) => `units=us&sheet=${encodeURIComponent('Roll, 62 × 29 mm')}&ids=${bagId}`,
  },
  'GET /bags/submission.pdf': { for: 'OAT', query: ({ bagId }) => `units=us&ids=${bagId}` },
  'GET /bags/submission.json': { for: 'OAT', query: ({ bagId }) => `ids=${bagId}` },
  'GET /sites/:siteId/field-sheet.pdf': { for: 'OAT', query: () => 'units=us' },
  'GET /bags/submission.csv': { for: 'OAT', query: ({ bagId }) => `ids=${bagId}` },
  // A core of another practice is told to be gone, for each touch by itself.
  'POST /core-taps': {
    for: 'OAT',
    ownOnly: true,
    body: ({ coreId }) => ({ sentAt: moment, taps: [{ id: randomUUID(), coreId, state: 'cored', at: moment }] }),
  },
  'GET /laboratories': { for: 'OAT', ownOnly: true },
  'POST /laboratories/news': { for: 'OAT', ownOnly: true },
  'POST /laboratories/hurry': { for: 'OA', ownOnly: true, body: () => ({ days: 1 }) },
  'GET /bags/:bagId/hidden-soil': { for: 'OAT' },
  'POST /bags/custody': { for: 'OAT', body: ({ bagId }) => ({ bagIds: [bagId], state: 'lost' }) },
  'PUT /bags/:bagId/lab-number': { for: 'OAT', body: () => ({ labNumber: null }) },
  'POST /bags/:bagId/again': { for: 'OAT' },

  'POST /sites/:siteId/bags': { for: 'OA', body: ({ zoneId }) => ({ bags: [bagBody(zoneId)] }) },
  'DELETE /bags/:bagId': { for: 'OA' },
  'POST /bags/:bagId/restore': { for: 'OA' },

  'POST /laboratories': {
    for: 'OA',
    ownOnly: true,
    body: () => ({ ...laboratoryBody, name: `Laboratory ${(labels += 1)}` }),
  },
  'PUT /laboratories/:id': {
    for: 'OA',
    id: 'laboratoryId',
    body: () => ({ ...laboratoryBody, name: `Laboratory ${(labels += 1)}` }),
  },
  'DELETE /laboratories/:id': { for: 'OA', id: 'laboratoryId' },
  'POST /laboratories/:id/restore': { for: 'OA', id: 'laboratoryId' },
  'GET /machines': { for: 'OAT', ownOnly: true },
  'POST /machines': {
    for: 'OA',
    ownOnly: true,
    body: () => ({ ...machineBody, name: `Machine ${(labels += 1)}` }),
  },
  'PUT /machines/:id': {
    for: 'OA',
    id: 'machineId',
    body: () => ({ ...machineBody, name: `Machine ${(labels += 1)}` }),
  },
  'DELETE /machines/:id': { for: 'OA', id: 'machineId' },
  'POST /machines/:id/restore': { for: 'OA', id: 'machineId' },
  'GET /settings': { for: 'OAT', ownOnly: true },
  // Decided for a site of one's own.
  'PUT /settings/:kind': { for: 'OA', body: ({ siteId }) => ({ siteId, value: { limeOnce: 100 } }) },
  'DELETE /settings/:id': { for: 'OA', id: 'settingId' },
  'POST /settings/:id/restore': { for: 'OA', id: 'settingId' },
  'GET /products': { for: 'OA', ownOnly: true },
  'GET /products/generic': { for: 'OA', ownOnly: true },
  'POST /products/generic': { for: 'OA', ownOnly: true, body: () => ({ names: [] }) },
  'GET /products/file.csv': { for: 'OA', ownOnly: true },
  'POST /products/file': {
    for: 'OA',
    ownOnly: true,
    body: () => ({ content: `name,kind,n,pack_size\nFeed ${(labels += 1)},fertilizer,20,25\n` }),
  },
  'POST /products': { for: 'OA', ownOnly: true, body: () => ({ ...productBody, name: `Feed ${(labels += 1)}` }) },
  'PUT /products/:id': {
    for: 'OA',
    id: 'productId',
    body: () => ({ ...productBody, name: `Feed ${(labels += 1)}` }),
  },
  'DELETE /products/:id': { for: 'OA', id: 'productId' },
  'POST /products/:id/restore': { for: 'OA', id: 'productId' },
  'POST /sites': { for: 'OA', ownOnly: true, body: () => ({ name: 'New' }) },
  'PUT /sites/:siteId': { for: 'OA', body: () => ({ name: 'Renamed' }) },
  'POST /sites/:siteId/zones': { for: 'OA', body: () => ({ ...zoneBody, label: `Y${(labels += 1)}` }) },
  'POST /sites/:siteId/drawing': { for: 'OA', body: () => ({}) },
  'PUT /zones/:zoneId': { for: 'OA', body: () => zoneBody },
  'POST /sites/:siteId/underlay': { for: 'OA', body: () => ({ picture: { ...picture, ...size }, ...lying }) },
  'PUT /underlays/:underlayId': { for: 'OA', body: () => lying },
  'DELETE /photos/:photoId': { for: 'OA' },
  'POST /photos/:photoId/restore': { for: 'OA' },
  'DELETE /underlays/:underlayId': { for: 'OA' },
  'POST /underlays/:underlayId/restore': { for: 'OA' },
  'POST /lab-results': { for: 'OA', body: result },
  'PUT /lab-results/:id': { for: 'OA', id: 'resultId', body: result },
  'POST /sites/:siteId/lab-reports': { for: 'OA', body: () => ({ fileName: 'a.csv', content: 'Sample,pH\nX,6.1\n' }) },
  'PUT /lab-reports/:id': { for: 'OA', id: 'importId', body: () => ({ columns: [], rows: [] }) },
  'POST /lab-reports/:id/confirm': { for: 'OA', id: 'importId' },
  'PUT /zones/:zoneId/program/treatments/:key': {
    for: 'OA',
    body: () => ({ remedy: 'potassium', reason: 'as agreed' }),
  },
  'DELETE /zones/:zoneId/program/treatments/:key': { for: 'OA' },
  'POST /sites/:siteId/programs': { for: 'OA', body: () => ({}) },
  'POST /sites/:siteId/program/year': { for: 'OA' },
  'POST /sites/:siteId/quotes': { for: 'OA', query: () => 'units=us', body: () => ({ days: 30 }) },
  'POST /quotes/:quoteId/answers': { for: 'OA', body: quoteAnswers },
  'POST /quotes/:quoteId/taken-over': { for: 'OA' },
  'DELETE /quotes/:quoteId': { for: 'OA' },
  'GET /sites/:siteId/share-links': { for: 'OA' },
  'POST /sites/:siteId/share-links': { for: 'OA', body: () => ({ purpose: 'Trustees', days: 3 }) },
  'DELETE /share-links/:id': { for: 'OA', id: 'linkId' },
  'DELETE /lab-reports/:id': { for: 'OA', id: 'importId' },
  'POST /lab-reports/:id/restore': { for: 'OA', id: 'importId' },
  'DELETE /lab-results/:id': { for: 'OA', id: 'resultId' },
  'POST /lab-results/:id/restore': { for: 'OA', id: 'resultId' },
  'DELETE /zones/:zoneId': { for: 'OA' },
  'POST /zones/:zoneId/restore': { for: 'OA' },
  'DELETE /sites/:siteId': { for: 'OA' },
  'POST /sites/:siteId/restore': { for: 'OA' },

  'GET /practice': { for: 'O', ownOnly: true },
  'PUT /practice': {
    for: 'O',
    ownOnly: true,
    body: () => ({ name: 'Brackwater', timeZone: 'Atlantic/Azores', currency: '$' }),
  },
  'GET /practice/export': { for: 'O', ownOnly: true },
  'GET /audit': { for: 'O', ownOnly: true },
  'GET /outbox': { for: 'O', ownOnly: true },
  'POST /outbox/:id/send': { for: 'O', id: 'mailId' },
  'GET /members': { for: 'O', ownOnly: true },
  'PUT /members/:id': { for: 'O', id: 'memberId', body: () => ({ role: 'advisor', siteIds: [] }) },
  'POST /members/:id/password-reset': { for: 'O', id: 'memberId' },
  'DELETE /members/:id': { for: 'O', id: 'memberId' },
  'POST /members/:id/restore': { for: 'O', id: 'memberId' },
  'GET /invitations': { for: 'O', ownOnly: true },
  'POST /invitations': {
    for: 'O',
    ownOnly: true,
    body: () => ({ email: 'new@p.example', role: 'advisor', siteIds: [] }),
  },
  'DELETE /invitations/:id': { for: 'O', id: 'invitationId' },
};
