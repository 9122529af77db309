import { type AddressInfo, type Server, createServer } from 'node:net';
import type { AuditPageAnswer, MemberAnswer, OutboxAnswer } from '@glenfold/contract';
import { type Browser, type TestServer, demoEmails, signIn, startServer } from './harness.ts';

let refusing = false;
const taken: string[] = [];

/** Speaks just enough SMTP (RFC 5321) to take a message, or to refuse it. */
const smtp: Server = createServer((socket) => {
  let letter: string | undefined;
  socket.write('220 here\r\n');
  socket.on('data', (data) => {
    for (const line of String(data).split('\r\n').slice(0, -1)) {
      if (letter !== undefined) {
        if (line !== '.') letter += `${line}\n`;
        else {
          taken.push(letter);
          letter = undefined;
          socket.write('250 taken\r\n');
        }
      } else if (line.startsWith('RCPT') && refusing) socket.write('550 no such mailbox\r\n');
      else if (line.startsWith('DATA')) {
        letter = '';
        socket.write('354 go on\r\n');
      } else socket.write(line.startsWith('QUIT') ? '221 bye\r\n' : '250 well\r\n');
    }
  });
});

let server: TestServer;
let owner: Browser;

beforeAll(async () => {
  await new Promise<void>((ready) => smtp.listen(0, '127.0.0.1', ready));
  const { port } = smtp.address() as AddressInfo;
  server = await startServer({ empty: false, smtp: `smtp://127.0.0.1:${port}` });
  owner = await signIn(server, demoEmails.owner);
});
afterAll(async () => {
  await server.close();
  smtp.close();
});

const outbox = async (): Promise<OutboxAnswer> => (await owner.ask('get', '/outbox')).body as OutboxAnswer;
// As the pages send it, with a key.
const invite = (email: string) =>
  owner
    .ask('post', '/invitations', { email, role: 'advisor', siteIds: [] })
    .set('idempotency-key', crypto.randomUUID());

describe('with a mail server', () => {
  it('a message leaves, and its link is not kept', async () => {
    await invite('far@p.example');
    expect(taken.join()).toMatch(/To: far@p\.example[\s\S]*\/invitation\//);
    const { carried, mails } = await outbox();
    expect([carried, mails[0]]).toEqual([
      true,
      expect.objectContaining({ to: 'far@p.example', text: null, failure: null, sentAt: expect.any(String) as string }),
    ]);
  });

  it('a password link that an owner has sent says who asked, is in the record of changes, and is read by that person alone', async () => {
    const members = (await owner.ask('get', '/members')).body as MemberAnswer[];
    const { id } = members.find(({ person }) => person.email === demoEmails.technician)!;
    expect((await owner.ask('post', `/members/${id}/password-reset`)).body).toEqual({ link: null });
    expect(taken.join()).toMatch(
      /To: wynn@brackwater\.example[\s\S]*Orla Tench of Brackwater Soil Advisory[\s\S]*\/reset\//,
    );
    expect((await outbox()).mails.some(({ to }) => to === demoEmails.technician)).toBe(false);
    const { entries } = (await owner.ask('get', '/audit')).body as AuditPageAnswer;
    expect(entries[0]).toMatchObject({ kind: 'membership', action: 'change', by: 'Orla Tench' });
    expect(JSON.stringify(entries[0])).toContain('resetAskedAt');
  });

  it('one that is refused stays in the outbox with the reason, until it is sent again', async () => {
    refusing = true;
    expect((await invite('none@p.example')).status).toBe(201);
    const [failed] = (await outbox()).mails;
    expect(failed).toMatchObject({
      to: 'none@p.example',
      sentAt: null,
      failure: expect.stringContaining('550') as string,
    });
    refusing = false;
    const { mails } = (await owner.ask('post', `/outbox/${failed!.id}/send`)).body as OutboxAnswer;
    expect(mails[0]).toMatchObject({ to: 'none@p.example', text: null, failure: null });
    expect((await owner.ask('post', `/outbox/${failed!.id}/send`)).status).toBe(422);
  });
});
