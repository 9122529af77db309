import { retestDue } from '@glenfold/agronomy';
import type {
  BagAnswer,
  LabResultAnswer,
  NewestOwnerReportAnswer,
  OwnerReportAnswer,
  ReadingAnswer,
  RetestsAnswer,
  SchoolsAnswer,
  SettingAnswer,
  ShareLinkAnswer,
  SiteReadingsAnswer,
  SiteReportAnswer,
  ZoneAnswer,
  ZoneProgramAnswer,
} from '@glenfold/contract';
import { get, send, siteOf, textOf, until, useDemoServer, zoneOf } from './client.ts';
import { demoEmails, signIn } from './harness.ts';

const server = useDemoServer();
const value = (number: number, unit = 'mg/kg') => ({ value: number, unit, basis: 'element' });

it('a zone is read in its parts, each number opening to its working', async () => {
  const zone = await zoneOf('Gannet', 'GR-1');
  const { read, cores } = await get<ReadingAnswer>(`/zones/${zone.id}/reading?units=us`);
  expect(cores).toBe(15);
  expect([...new Set(read.lines.map(({ group }) => group))]).toEqual([
    'acidity',
    'structure and water',
    'organic matter and exchange',
    'nutrients',
  ]);
  const [first] = read.ranked.limits;
  expect([first!.key, first!.standing]).toEqual(['shade', 'measured']);
  expect(read.ranked.limits.find(({ key }) => key === 'acid')!.after).toEqual(expect.arrayContaining(['Drainage']));
  const [ph] = read.lines;
  const [aside] = ph!.spread!.working as unknown as Array<{ at: string }>;
  expect(JSON.stringify(await get(aside!.at))).toContain('√15');
});

it('all zones stand side by side in walking order, with differences, and print on one page', async () => {
  const site = await siteOf('Harbour');
  const zones = await get<ZoneAnswer[]>(`/sites/${site.id}/zones`);
  const at = `/sites/${site.id}/readings`;
  const plain = await get<SiteReadingsAnswer>(`${at}?units=us`);
  expect(plain.zones.map(({ zoneId }) => zoneId)).toEqual(zones.map(({ id }) => id));
  expect(plain.rows.every(({ cells }) => cells.length === zones.length)).toBe(true);
  const against = await get<SiteReadingsAnswer>(`${at}?units=us&against=${zones[0]!.id}`);
  const ph = against.rows.find(({ key }) => key === 'soilPh')!;
  expect(ph.cells.map((cell) => cell?.difference?.told)).toEqual([undefined, '−0.2', '+0.8', undefined, undefined]);
  expect(ph.cells[1]!.difference!.differs).toBe(false);
  const page = await textOf(`/api${at}.pdf?units=us&shaded=p&against=${zones[0]!.id}`);
  expect(page).toMatch(/Harbour School field/);
  expect(page).toMatch(/The drawing is shaded by: Phosphorus, P/);
  expect((await server.owner().ask('get', `${at}?units=us&against=nobody`)).status).toBe(400);
});

it('the bad half of a pair is read against the healthy one, and the zone rests on the healthy', async () => {
  const zone = await zoneOf('Gannet', 'GR-3');
  const result = async (purpose: string, label: string, potassium: number, ph: number) => {
    const [bag] = await server.current().sql<{ id: string }>(
      `INSERT INTO bag ("practiceId", "siteId", code, "zoneIds", purpose, depth, probe, panels, design, edge, clear, seed, state, since)
       SELECT "practiceId", "siteId", $2, jsonb_build_array(id), $3, 10, 2, '[]', 'zigzag', 0, 0, 1, 'reported', now()
       FROM zone WHERE id = $1 RETURNING id`,
      [zone.id, label, purpose],
    );
    const made = await send<LabResultAnswer>('post', '/lab-results', {
      ...{ zoneIds: [zone.id], label, depth: 10, extractant: 'mehlich-3', sampledOn: '2026-11-02', cores: 14 },
      values: { soilPh: value(ph, 'pH'), k: value(potassium) },
    });
    await server.current().sql('UPDATE sample SET "bagId" = $2 WHERE id = $1', [made.sampleId, bag!.id]);
    return made;
  };
  const healthy = await result('healthy', 'GR-H', 180, 6.3);
  const bad = await result('problem', 'GR-B', 40, 6.2);
  const { read, result: shown } = await get<ReadingAnswer>(`/zones/${zone.id}/reading?units=us`);
  expect(shown!.id).toBe(healthy.id);
  expect(read.pair!.words).toMatch(/potassium is lower/);
  // The rule of the program and that of the database say the same.
  const [row] = await server
    .current()
    .sql<{ resultId: string }>(
      'SELECT "resultId" FROM zone_tests((SELECT "practiceId" FROM zone WHERE id = $1)) WHERE "zoneId" = $1',
      [zone.id],
    );
  expect(row!.resultId).toBe(healthy.id);
  for (const { id } of [bad, healthy]) await send('delete', `/lab-results/${id}`);
  expect((await get<{ bags: BagAnswer[] }>('/bags')).bags).toBeDefined();
});

it('retests stand on one list across sites, the soonest first, by the very rule of the reading', async () => {
  const { retests, count } = await get<RetestsAnswer>('/retests');
  expect(retests.map(({ on }) => on)).toEqual(retests.map(({ on }) => on).sort());
  expect(count).toBe(retests.length);
  for (const { zoneId, on, sampledOn, siteId } of retests) {
    const zone = (await get<ZoneAnswer[]>(`/sites/${siteId}/zones`)).find(({ id }) => id === zoneId)!;
    expect([zone.name, on]).toEqual([zone.name, retestDue(sampledOn, zone.applied)!.on]);
  }
  const first = await get<RetestsAnswer>('/retests?limit=2');
  const second = await get<RetestsAnswer>(`/retests?limit=2&after=${encodeURIComponent(first.next!)}`);
  expect([...first.retests, ...second.retests]).toEqual(retests.slice(0, 4));
});

it('schools read one report; who sees no prices is told none; one that is switched off goes', async () => {
  const zone = await zoneOf('Tollgate', 'TB-3');
  const at = `/zones/${zone.id}/schools?units=us`;
  const { schools } = await get<SchoolsAnswer>(at);
  expect(schools.map(({ key, cannot }) => [key, cannot])).toEqual([
    ['sufficiency', null],
    ['minimum level', null],
    ['cation balance', null],
  ]);
  expect(new Set(schools.map(({ cost }) => cost!.value)).size).toBeGreaterThan(1);
  const wynn = await signIn(server.current(), demoEmails.technician);
  const seen = (await wynn.ask('get', at)).body as unknown as SchoolsAnswer;
  expect(seen.schools.map(({ cost }) => cost)).toEqual([null, null, null]);

  const set = (more: object, status?: number) =>
    send<SettingAnswer>(
      'put',
      '/settings/school',
      {
        siteId: zone.siteId,
        value: {
          school: 'sufficiency',
          correct: 'outside the band',
          limeDepth: 'sampled slice',
          reason: 'the club’s wish',
          ...more,
        },
      },
      status,
      0,
    );
  await set({ off: ['sufficiency'] }, 422);
  await set({ off: ['cation balance'] });
  expect((await get<SchoolsAnswer>(at)).schools.map(({ key }) => key)).toEqual(['sufficiency', 'minimum level']);
  expect((await get<SchoolsAnswer>(at)).by).toMatch(/set for this site: “the club’s wish”/);
});

it('a rule that binds is told with the program and on paper, with whose it is', async () => {
  const zone = await zoneOf('Tollgate', 'TB-1');
  const { program } = await get<ZoneProgramAnswer>(`/zones/${zone.id}/program?units=us`);
  expect(program.rules!.map(({ key }) => key)).toEqual(expect.arrayContaining(['phosphorus', 'water strip']));
  const paper = await textOf(`/api/zones/${zone.id}/program.pdf?units=us`);
  expect(paper).toMatch(/Rules of the place that bind here/);
  expect(paper).toMatch(/Check your local rule/);
  expect(paper).toMatch(/Test again from/);
});

it('the laboratory’s advice stands beside the program, explained', async () => {
  const zone = await zoneOf('Gannet', 'GR-3');
  const made = await send<LabResultAnswer>('post', '/lab-results', {
    ...{ zoneIds: [zone.id], label: 'GR-L', depth: 10.16, extractant: 'mehlich-3', sampledOn: '2026-11-05' },
    advised: [{ what: 'lime', amount: 4.5, unit: 'ton/acre', target: 'pH 6.8' }],
    values: {
      soilPh: value(5.2, 'pH'),
      bufferPh: { ...value(6.5, 'pH'), method: 'smp' },
      organicMatter: value(4, '%'),
    },
  });
  const { program } = await get<ZoneProgramAnswer>(`/zones/${zone.id}/program?units=us`);
  expect(program.besideLab![0]!.why.join(' ')).toMatch(/Target.*Depth.*Lime strength/);
  expect(program.besideLab![0]!.saved!.value).toBeGreaterThan(0);
  await send('delete', `/lab-results/${made.id}`);
});

it('a report for the owner is made as long work, its letter changed, and read only once it is handed over', async () => {
  const site = await siteOf('Gannet');
  const at = `/sites/${site.id}/owner-report`;
  expect((await get<NewestOwnerReportAnswer>(at)).newest).toBeNull();
  const asked = await send<OwnerReportAnswer>('post', `${at}?units=us`);
  expect(asked.state).toBe('asked');
  const early = await server.owner().ask('post', `/owner-reports/${asked.id}/handed-over`);
  expect([early.status, (early.body as { title: string }).title]).toEqual([409, 'Not made yet']);
  await until(async () => (await get<NewestOwnerReportAnswer>(at)).newest!.state === 'draft');
  const draft = (await get<NewestOwnerReportAnswer>(at)).newest!;
  expect(draft.report!.pages.map(({ name }) => name)).toEqual(['Walled court', 'Sycamore lawn', 'South bank']);
  expect(draft.report!.first.length).toBeLessThanOrEqual(3);

  const short = await server.owner().ask('put', `/owner-reports/${draft.id}/letter`, { letter: 'Hi.' }, draft.version);
  expect(short.status).toBe(422);
  const letter = 'Dear trustees,\n\nthe court wants light before lime.';
  const written = await send<OwnerReportAnswer>(
    'put',
    `/owner-reports/${draft.id}/letter`,
    { letter },
    200,
    draft.version,
  );
  expect(written.letter).toBe(letter);

  const link = await send<ShareLinkAnswer>('post', `/sites/${site.id}/share-links`, { purpose: 'Trustees', days: 7 });
  const token = link.address!.split('/').at(-1)!;
  const shared = async () => (await server.current().http.get(`/api/shared/${token}`)).body as SiteReportAnswer;
  expect((await shared()).owner).toBeNull();
  const handed = await send<OwnerReportAnswer>('post', `/owner-reports/${draft.id}/handed-over`, undefined, 200);
  expect(handed.state).toBe('handed over');
  const { owner } = await shared();
  expect(owner!.letter).toBe(letter);
  expect((await server.current().http.get(owner!.pdf)).status).toBe(200);
  expect(
    (await server.owner().ask('put', `/owner-reports/${draft.id}/letter`, { letter }, handed.version)).status,
  ).toBe(409);

  // On paper: a page a zone and no working, unless the appendix is asked for.
  const paper = await textOf(`/api/owner-reports/${draft.id}/report.pdf`);
  for (const words of [
    'To do first',
    'the court wants light before lime',
    '1 Walled court',
    'What to expect',
    'Your own part',
  ])
    expect(paper).toContain(words);
  expect(paper).not.toMatch(/How the numbers came about|lime test index|Mehlich/);
  expect(await textOf(`/api/owner-reports/${draft.id}/report.pdf?appendix=true`)).toMatch(/How the numbers came about/);

  // Another takes its place; the one of before stays as it was.
  await send<OwnerReportAnswer>('post', `${at}?units=us`);
  await until(async () => (await get<NewestOwnerReportAnswer>(at)).newest!.state === 'draft');
  const next = (await get<NewestOwnerReportAnswer>(at)).newest!;
  await send<OwnerReportAnswer>('post', `/owner-reports/${next.id}/handed-over`, undefined, 200);
  expect((await shared()).owner!.id).toBe(next.id);
  const [before] = await server
    .current()
    .sql<{ state: string }>('SELECT state FROM owner_report WHERE id = $1', [draft.id]);
  expect(before!.state).toBe('superseded');
});
