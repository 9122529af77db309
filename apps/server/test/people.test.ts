import type { Working, WorkingElsewhere } from '@glenfold/agronomy';
import type {
  AuditPageAnswer,
  InvitationOfferAnswer,
  MemberAnswer,
  OutboxAnswer,
  PasswordLinkAnswer,
  ProblemAnswer,
  SessionAnswer,
  ShareLinkAnswer,
  SitesAnswer,
  SiteReportAnswer,
  ZoneProgramAnswer,
} from '@glenfold/contract';
import { FREE_TRIES } from '../src/people/signIn.service.ts';
import {
  type Browser,
  type TestServer,
  demoEmails,
  demoPassword,
  openBrowser,
  signIn,
  startServer,
} from './harness.ts';

let server: TestServer;
let owner: Browser;
const NEW = 'four plain words here';

beforeAll(async () => {
  server = await startServer({ empty: false });
  owner = await signIn(server, demoEmails.owner);
});
afterAll(() => server.close());
beforeEach(() => server.sql('DELETE FROM sign_in_attempt'));

const body = async <T>(browser: Browser, path: string): Promise<T> => (await browser.ask('get', path)).body as T;
const refusal = ({ status, body }: { status: number; body: unknown }): [number, string] => [
  status,
  (body as ProblemAnswer).title,
];
const tryIn = async (email: string, password: string): Promise<[number, string]> =>
  refusal(await openBrowser(server).ask('post', '/session', { email, password }));

/** The newest message to somebody, and the end of the link in it. */
async function letterTo(email: string): Promise<{ subject: string; token: string }> {
  for (;;) {
    const { mails } = await body<OutboxAnswer>(owner, '/outbox');
    const letter = mails.find(({ to }) => to === email);
    // It is written after the answer.
    if (letter) return { subject: letter.subject, token: /\/([\w-]{43})\b/.exec(letter.text!)![1]! };
  }
}

/** What only the message to that person holds. */
async function linkFor(email: string): Promise<string> {
  for (;;) {
    const [mail] = await server.sql<{ text: string; practiceId: string | null }>(
      `SELECT text, "practiceId" FROM mail WHERE "to" = $1 AND subject LIKE '%password%'`,
      [email],
    );
    if (mail) {
      expect(mail.practiceId).toBeNull();
      return /\/([\w-]{43})\b/.exec(mail.text)![1]!;
    }
  }
}

describe('signing in', () => {
  it('says the same of an unknown address as of a wrong password', async () => {
    const [wrong, unknown] = [
      await tryIn(demoEmails.advisor, 'not the password'),
      await tryIn('nobody@p.example', 'not the password'),
    ];
    expect(wrong).toEqual([401, 'Not signed in']);
    expect(unknown).toEqual(wrong);
  });

  it.each([demoEmails.advisor, 'nobody@p.example'])(
    'slows whoever tries from try to try, the right password too: %s',
    async (email) => {
      const later = (seconds: number) =>
        server.sql(`UPDATE sign_in_attempt SET "createdAt" = "createdAt" - interval '${seconds} seconds'`);
      const tries = await Promise.all(Array.from({ length: FREE_TRIES + 3 }, () => tryIn(email, 'wrong')));
      expect(tries.filter(([status]) => status === 401)).toHaveLength(FREE_TRIES);
      expect(await tryIn(email, demoPassword)).toEqual([429, 'Too many tries']);
      // Two seconds for the third wrong one, four for the fourth: by hand 1 s × 2, × 2².
      await later(2);
      expect((await tryIn(email, 'wrong'))[0]).toBe(401);
      await later(3);
      expect((await tryIn(email, demoPassword))[0]).toBe(429);
      await later(1);
      expect((await tryIn(email, demoPassword))[0]).toBe(email === demoEmails.advisor ? 204 : 401);
    },
  );

  it('gives a cookie that scripts cannot read, and keeps only its hash', async () => {
    const response = await openBrowser(server).ask('post', '/session', {
      email: demoEmails.owner,
      password: demoPassword,
    });
    const [cookie = ''] = response.headers['set-cookie'] as unknown as string[];
    expect(cookie).toMatch(/^glenfold_session=[\w-]{43}; .*HttpOnly; SameSite=Lax/);
    const token = /=([\w-]{43})/.exec(cookie)![1]!;
    expect(JSON.stringify(await server.sql('SELECT * FROM session'))).not.toContain(token);
    const [person] = await server.sql<{ passwordHash: string }>(`SELECT "passwordHash" FROM person WHERE email = $1`, [
      demoEmails.owner,
    ]);
    expect(person!.passwordHash).toMatch(/^\$argon2id\$/);
  });

  it.each([
    ['idle', `"seenAt" = now() - interval '13 hours'`],
    ['absolute', `"createdAt" = now() - interval '31 days'`],
  ])('ends by %s expiry', async (_name, change) => {
    const browser = await signIn(server, demoEmails.technician);
    const { person } = await browser.session();
    await server.sql(`UPDATE session SET ${change} WHERE "personId" = $1`, [person!.id]);
    expect(refusal(await browser.ask('get', '/rounds'))).toEqual([401, 'Signed out']);
    expect((await browser.session()).state).toBe('signed out');
  });

  it('out everywhere ends every browser; a cookie from before is told so', async () => {
    const [here, there] = [await signIn(server, demoEmails.advisor), await signIn(server, demoEmails.advisor)];
    const entered = await openBrowser(server).ask('post', '/session', {
      email: demoEmails.advisor,
      password: demoPassword,
    });
    const [stolen = ''] = (entered.headers['set-cookie'] as unknown as string[])[0]!.split(';');
    expect((await here.ask('delete', '/sessions')).status).toBe(204);
    expect(refusal(await there.ask('get', '/rounds'))).toEqual([401, 'Signed out']);
    expect(refusal(await server.http.get('/api/rounds').set('cookie', stolen))).toEqual([401, 'Signed out']);
  });

  it('changing the password asks for the old one, and signs out the other browsers', async () => {
    const [here, there] = [await signIn(server, demoEmails.advisor), await signIn(server, demoEmails.advisor)];
    expect((await here.ask('put', '/session/password', { current: 'wrong', password: NEW })).status).toBe(422);
    for (const weak of ['short', 'aaaaaaaaaaaaaa', demoEmails.advisor])
      expect((await here.ask('put', '/session/password', { current: demoPassword, password: weak })).status).toBe(422);
    expect((await here.ask('put', '/session/password', { current: demoPassword, password: NEW })).status).toBe(204);
    expect([(await here.ask('get', '/rounds')).status, (await there.ask('get', '/rounds')).status]).toEqual([200, 401]);
    expect((await tryIn(demoEmails.advisor, demoPassword))[0]).toBe(401);
    await here.ask('put', '/session/password', { current: NEW, password: demoPassword });
  });
});

describe('a change', () => {
  it('needs the token of the session, and must not come from another site', async () => {
    const { agent } = owner;
    const without = await agent.post('/api/sites').send({ name: 'Forged' });
    const wrong = await agent.post('/api/sites').set('x-csrf-token', 'x'.repeat(43)).send({ name: 'Forged' });
    const foreign = await owner.ask('post', '/sites', { name: 'Forged' }).set('origin', 'https://elsewhere.example');
    const crossed = await openBrowser(server)
      .ask('post', '/session', { email: 'a@b.example', password: 'x' })
      .set('sec-fetch-site', 'cross-site');
    const { host } = new URL((await agent.get('/api/session')).request.url);
    const byHttps = await owner.ask('post', '/sites', { name: 'Forged' }).set('origin', `https://${host}`);
    for (const response of [without, wrong, foreign, byHttps, crossed])
      expect(refusal(response)).toEqual([403, 'Not from this page']);
    expect((await body<SitesAnswer>(owner, '/sites')).sites.some(({ name }) => name === 'Forged')).toBe(false);
  });

  it('must say which version it rests on', async () => {
    const [site] = (await body<SitesAnswer>(owner, '/sites')).sites;
    expect(refusal(await owner.ask('put', `/sites/${site!.id}`, { name: 'X' }))).toEqual([428, 'Which version?']);
  });

  it('from a window that shows another practice is refused', async () => {
    const piet = await signIn(server, demoEmails.advisor);
    const { practices, practice } = await piet.session();
    const other = practices.find(({ practiceId }) => practiceId !== practice!.id)!;
    await piet.ask('put', '/session/practice', { practiceId: other.practiceId });
    const late = await piet.ask('post', '/sites', { name: 'Astray' }).set('x-practice', practice!.id);
    expect(refusal(late)).toEqual([409, 'Another practice is open']);
    expect((await piet.session()).role).not.toBe(practices.find(({ practiceId }) => practiceId === practice!.id)!.role);
    await piet.ask('put', '/session/practice', { practiceId: practice!.id });
  });
});

describe('an invitation', () => {
  const invite = (email: string, role = 'advisor', siteIds: string[] = []) =>
    owner.ask('post', '/invitations', { email, role, siteIds });
  const accept = async (token: string, input: object): Promise<[number, string]> =>
    refusal(await openBrowser(server).ask('put', `/invitations/${token}/offer`, input));

  it('brings somebody new in once, in the role that was offered', async () => {
    expect((await invite('Wil@P.example', 'technician')).status).toBe(201);
    const { token } = await letterTo('wil@p.example');
    expect((await openBrowser(server).ask('get', `/invitations/${token}/offer`)).body).toEqual({
      practiceName: 'Brackwater Soil Advisory',
      email: 'wil@p.example',
      role: 'technician',
      invitedBy: 'Orla Tench',
      known: false,
    } satisfies InvitationOfferAnswer);
    expect((await accept(token, { password: NEW }))[0]).toBe(422);
    expect((await accept(token, { name: 'Wil Tarn', password: 'short' }))[0]).toBe(422);
    const outcomes = await Promise.all([1, 2, 3].map(() => accept(token, { name: 'Wil Tarn', password: NEW })));
    expect(outcomes.filter(([status]) => status === 204)).toHaveLength(1);
    expect(await accept(token, { name: 'Wil Tarn', password: NEW })).toEqual([410, 'Used already']);
    const wil = await signIn(server, 'wil@p.example', NEW);
    expect(await wil.session()).toMatchObject({ role: 'technician', person: { name: 'Wil Tarn' } });
  });

  it('lets somebody known join with their password, and with no other', async () => {
    const piet = await signIn(server, demoEmails.advisor);
    const { practices } = await piet.session();
    const ferry = practices.find(({ practiceName }) => practiceName.startsWith('Ferry'))!;
    await piet.ask('put', '/session/practice', { practiceId: ferry.practiceId });
    await piet.ask('post', '/invitations', { email: demoEmails.technician, role: 'owner', siteIds: [] });
    const { mails } = await body<OutboxAnswer>(piet, '/outbox');
    const token = /\/invitation\/([\w-]+)/.exec(mails[0]!.text!)![1]!;
    expect((await accept(token, { password: NEW }))[0]).toBe(422);
    expect((await accept(token, { password: demoPassword }))[0]).toBe(204);
    const wynn = await signIn(server, demoEmails.technician);
    expect((await wynn.session()).practices.map(({ role }) => role).sort()).toEqual(['owner', 'technician']);
    await piet.ask('put', '/session/practice', {
      practiceId: practices.find(({ role }) => role === 'advisor')!.practiceId,
    });
  });

  it('that is expired, taken back, replaced or made up says so', async () => {
    await invite('late@p.example');
    const late = await letterTo('late@p.example');
    await server.sql(`UPDATE invitation SET "expiresAt" = now() - interval '1 minute' WHERE email = 'late@p.example'`);
    expect(await accept(late.token, { name: 'L', password: NEW })).toEqual([410, 'Expired']);
    await invite('late@p.example');
    expect(await accept(late.token, { name: 'L', password: NEW })).toEqual([410, 'Taken back']);
    const { id } = (await body<Array<{ id: string; email: string }>>(owner, '/invitations')).find(
      ({ email }) => email === 'late@p.example',
    )!;
    const second = await letterTo('late@p.example');
    await owner.ask('delete', `/invitations/${id}`);
    expect(await accept(second.token, { name: 'L', password: NEW })).toEqual([410, 'Taken back']);
    expect(await accept('A'.repeat(43), { name: 'L', password: NEW })).toEqual([404, 'No such invitation']);
    expect((await invite(demoEmails.advisor)).body).toMatchObject({ errors: [{ field: 'email' }] });
    const strange = ['0190a1b2-0000-4000-8000-000000000000'];
    expect(refusal(await invite('c@p.example', 'client', strange))[0]).toBe(422);
  });
});

describe('a forgotten password', () => {
  it('is chosen anew by a link that works once and ends every session; unknown addresses get the same answer', async () => {
    const before = await signIn(server, demoEmails.technician);
    const ask = (email: string) => openBrowser(server).ask('post', '/password-resets', { email });
    expect([(await ask('nobody@p.example')).status, (await ask(demoEmails.client)).status]).toEqual([204, 204]);
    const token = await linkFor(demoEmails.client);
    const choose = async (password: string): Promise<[number, string]> =>
      refusal(await openBrowser(server).ask('put', `/password-resets/${token}`, { password }));
    expect((await choose('short'))[0]).toBe(422);
    expect((await choose(NEW))[0]).toBe(204);
    expect(await choose('yet another one here')).toEqual([410, 'Used already']);
    await signIn(server, demoEmails.client, NEW);
    expect((await before.ask('get', '/rounds')).status).toBe(200);
  });

  it('is given to an owner to hand over where no message leaves, but for somebody who is in other practices too', async () => {
    const [{ id }] = (await body<MemberAnswer[]>(owner, '/members')).filter(({ person }) => person.email === demoEmails.client) as [MemberAnswer]; // prettier-ignore
    const { link } = (await owner.ask('post', `/members/${id}/password-reset`)).body as PasswordLinkAnswer;
    const token = link!.split('/reset/')[1]!;
    expect(refusal(await openBrowser(server).ask('put', `/password-resets/${token}`, { password: NEW }))[0]).toBe(204);
    const { mails } = await body<OutboxAnswer>(owner, '/outbox');
    expect(mails.some(({ subject }) => subject.includes('password'))).toBe(false);
    const [both] = (await body<MemberAnswer[]>(owner, '/members')).filter(({ person }) => person.email === demoEmails.technician); // prettier-ignore
    expect(refusal(await owner.ask('post', `/members/${both!.id}/password-reset`))).toEqual([422, 'No message leaves']);
  });
});

describe('a role', () => {
  it('changed in another window counts at once, and the last owner stays one', async () => {
    const wynn = await signIn(server, demoEmails.technician);
    await wynn.ask('put', '/session/practice', { practiceId: (await owner.session()).practice!.id });
    expect((await wynn.ask('get', '/products')).status).toBe(403);
    const members = await body<MemberAnswer[]>(owner, '/members');
    const find = (email: string): MemberAnswer => members.find(({ person }) => person.email === email)!;
    const { id, version } = find(demoEmails.technician);
    const promoted = await owner.ask('put', `/members/${id}`, { role: 'advisor', siteIds: [] }, version);
    expect((await wynn.ask('get', '/products')).status).toBe(200);
    expect(refusal(await owner.ask('put', `/members/${id}`, { role: 'client', siteIds: [] }, version))[0]).toBe(422);
    expect(refusal(await owner.ask('put', `/members/${id}`, { role: 'technician', siteIds: [] }, version))).toEqual([
      409,
      'Changed meanwhile',
    ]);
    await owner.ask(
      'put',
      `/members/${id}`,
      { role: 'technician', siteIds: [] },
      (promoted.body as MemberAnswer).version,
    );
    const self = find(demoEmails.owner);
    expect((await owner.ask('put', `/members/${self.id}`, { role: 'advisor', siteIds: [] }, self.version)).status).toBe(
      422,
    );
    expect((await owner.ask('delete', `/members/${self.id}`)).status).toBe(422);
  });

  it('taken away leaves nothing to see, until it is given back', async () => {
    const [{ id }] = (await body<MemberAnswer[]>(owner, '/members')).filter(
      ({ person }) => person.email === demoEmails.technician,
    ) as [MemberAnswer];
    const wynn = await signIn(server, demoEmails.technician);
    await wynn.ask('put', '/session/practice', { practiceId: (await owner.session()).practice!.id });
    await owner.ask('delete', `/members/${id}`);
    expect(refusal(await wynn.ask('get', '/rounds'))).toEqual([403, 'Not a member']);
    expect(await wynn.session()).toMatchObject({ state: 'signed in', practice: null, role: null });
    expect((await owner.ask('post', `/members/${id}/restore`)).status).toBe(201);
    expect((await wynn.ask('get', '/rounds')).status).toBe(200);
  });

  it('of technician sees amounts but no prices, in the plan, the report and on paper', async () => {
    const wynn = await signIn(server, demoEmails.technician);
    await wynn.ask('put', '/session/practice', { practiceId: (await owner.session()).practice!.id });
    const [site] = (await body<SitesAnswer>(owner, '/sites')).sites;
    const [zone] = await body<Array<{ id: string }>>(owner, `/sites/${site!.id}/zones`);
    const [his, hers] = await Promise.all(
      [wynn, owner].map((browser) => body<ZoneProgramAnswer>(browser, `/zones/${zone!.id}/program?units=us`)),
    );
    const limeOf = ({ program }: ZoneProgramAnswer) => program.treatments.find(({ key }) => key === 'lime')!.supply!;
    expect(limeOf(his!).packs.value).toBe(limeOf(hers!).packs.value);
    // Nor in a working, at his own address or at hers.
    const [own] = limeOf(his!).packs.working as readonly WorkingElsewhere[];
    expect(JSON.stringify(await body<Working>(wynn, own!.at))).not.toMatch(/\$\d/);
    const [cost] = hers!.program.cost!.working as readonly WorkingElsewhere[];
    expect((await wynn.ask('get', cost!.at)).status).toBe(409);
    const report = await body<SiteReportAnswer>(wynn, `/sites/${site!.id}/report`);
    expect(JSON.stringify([his, report])).not.toMatch(/\$\d|bagPrice|"cost":\{/);
    expect(JSON.stringify(hers)).toMatch(/"cost":\{/);
  });
});

describe('a share link', () => {
  it('opens one site’s report to anybody who holds it, until it is revoked or expires', async () => {
    const [site] = (await body<SitesAnswer>(owner, '/sites')).sites;
    const make = async (): Promise<ShareLinkAnswer> =>
      (await owner.ask('post', `/sites/${site!.id}/share-links`, { purpose: 'Trustees', days: 7 }))
        .body as ShareLinkAnswer;
    const link = await make();
    const path = `/shared/${link.address!.split('/').at(-1)!}`;
    const anybody = openBrowser(server);
    const report = await body<SiteReportAnswer>(anybody, path);
    expect(report.siteName).toBe(site!.name);
    expect(report.zones.filter(({ plan }) => plan !== null)).toHaveLength(1);
    const { pdf } = report.zones.find(({ plan }) => plan)!.plan!;
    expect((await anybody.agent.get(pdf)).headers['content-type']).toBe('application/pdf');
    for (const other of ['/rounds', '/sites', `/sites/${site!.id}`, `/sites/${site!.id}/report`, '/practice'])
      expect((await anybody.ask('get', other)).status).toBe(401);
    const others = await server.sql<{ id: string }>(`SELECT z.id FROM program_zone z JOIN program p ON p.id = z."programId" WHERE p."siteId" <> '${site!.id}'`); // prettier-ignore
    for (const { id } of others) expect((await anybody.ask('get', `${path}/plans/${id}/plan.pdf`)).status).toBe(404);
    expect((await body<ShareLinkAnswer[]>(owner, `/sites/${site!.id}/share-links`))[0]!.address).toBeNull();

    await owner.ask('delete', `/share-links/${link.id}`);
    expect(refusal(await anybody.ask('get', path))).toEqual([410, 'Revoked']);
    const late = await make();
    await server.sql(`UPDATE share_link SET "expiresAt" = now() - interval '1 second' WHERE id = $1`, [late.id]);
    expect(refusal(await anybody.ask('get', `/shared/${late.address!.split('/').at(-1)!}`))).toEqual([410, 'Expired']);
  });
});

describe('the audit', () => {
  it('tells the owner who changed what, page by page', async () => {
    const first = await body<AuditPageAnswer>(owner, '/audit');
    const second = await body<AuditPageAnswer>(owner, `/audit?before=${first.next!}`);
    expect(new Set([...first.entries, ...second.entries].map(({ id }) => id)).size).toBe(
      first.entries.length + second.entries.length,
    );
    const change = first.entries.find(({ kind, action }) => kind === 'membership' && action === 'change')!;
    expect(change).toMatchObject({
      by: 'Orla Tench',
      recordName: 'Wynn Marram',
      before: { role: 'advisor' },
      after: { role: 'technician' },
    });
    expect(JSON.stringify([first, second])).not.toMatch(/tokenHash|argon2/);
    expect((await owner.ask('get', '/audit?before=x')).status).toBe(422);
  });
});

describe('an empty installation', () => {
  it('is set up once, by one of several who try, and offers no demo people', async () => {
    const empty = await startServer({ empty: true });
    try {
      const session = async (): Promise<SessionAnswer> => (await empty.http.get('/api/session')).body as SessionAnswer;
      expect(await session()).toMatchObject({ state: 'first run', demoPeople: [] });
      const input = { practice: 'Reed & Rush', name: 'Ada Reed', email: 'ada@reed.example', password: NEW };
      expect((await openBrowser(empty).ask('post', '/first-run', { ...input, password: 'short' })).status).toBe(422);
      const tries = await Promise.all([1, 2, 3].map(() => openBrowser(empty).ask('post', '/first-run', input)));
      expect(tries.map(({ status }) => status).sort()).toEqual([204, 409, 409]);
      const ada = await signIn(empty, 'ada@reed.example', NEW);
      const products = await body<Array<{ packPrice: number | null }>>(ada, '/products');
      expect(products.length).toBeGreaterThan(10);
      expect(products.every(({ packPrice }) => packPrice === null)).toBe(true);
      expect(await body(ada, '/rounds')).toEqual({ tasks: [], next: null });
      expect((await session()).demoPeople).toEqual([]);
      const { person } = await ada.session();
      expect((await ada.ask('post', '/demo/session', { personId: person!.id })).status).toBe(404);
    } finally {
      await empty.close();
    }
  });
});
