import { type ChildProcess, execFileSync, spawn } from 'node:child_process';
import { mkdtempSync, readFileSync, readdirSync, rmSync } from 'node:fs';
import { request as ask } from 'node:https';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { root } from '../servers.ts';
import { expect, test } from './person.ts';

const HOST = 'lawns.example';
const LISTEN = 4747;
const url = `https://${HOST}:${LISTEN}`;

interface Behind {
  readonly home: string;
  readonly child: ChildProcess;
  readonly said: () => string;
  /** Through the proxy, by the name that people open. */
  readonly get: (path: string, options?: Asked) => Promise<Answered>;
}
interface Asked {
  readonly method?: string;
  readonly body?: object;
  readonly headers?: Readonly<Record<string, string>>;
}
interface Answered {
  readonly status: number;
  readonly headers: Readonly<Record<string, string | string[] | undefined>>;
  readonly text: string;
}

/** Two servers of an empty installation behind a proxy, with a certificate that only this test trusts. */
const behind = test.extend<{ readonly behind: Behind }>({
  behind: async ({ browserName }, use, { parallelIndex }) => {
    const keys = mkdtempSync(join(tmpdir(), 'glenfold-tls-'));
    const home = join('/var/tmp', `glenfold-several-${browserName}-${process.pid}-${parallelIndex}`);
    const [key, certificate] = [join(keys, 'key.pem'), join(keys, 'cert.pem')];
    execFileSync('openssl', [
      ...['req', '-x509', '-newkey', 'rsa:2048', '-nodes', '-days', '2', '-subj', `/CN=${HOST}`],
      ...['-addext', `subjectAltName=DNS:${HOST}`, '-keyout', key, '-out', certificate],
    ], { stdio: 'ignore' }); // prettier-ignore
    const child = spawn(
      process.execPath,
      ['scripts/several.mjs', '--url', url, '--certificate', certificate, '--key', key, '--listen', `127.0.0.1:${LISTEN}`, '--empty'],
      { cwd: root, env: { ...process.env, DATABASE_URL: '', PORT: '4740', GLENFOLD_HOME: home } },
    ); // prettier-ignore
    let said = '';
    await new Promise<void>((ready, failed) => {
      for (const stream of [child.stdout, child.stderr])
        stream.on('data', (chunk: Buffer) => {
          said += String(chunk);
          if (said.includes(`2 servers behind ${url}`)) ready();
        });
      child.on('exit', (code) => failed(new Error(`ended with ${String(code)}: ${said}`)));
    });
    const ca = readFileSync(certificate);
    const get: Behind['get'] = (path, { method = 'GET', body, headers = {} } = {}) =>
      new Promise((done, failed) => {
        const sent = body && JSON.stringify(body);
        const asked = ask(
          {
            ...{ host: '127.0.0.1', port: LISTEN, servername: HOST, ca, path, method },
            headers: {
              host: `${HOST}:${LISTEN}`,
              ...(sent ? { 'content-type': 'application/json', 'content-length': Buffer.byteLength(sent) } : {}),
              ...headers,
            },
          },
          (response) => {
            let text = '';
            response.on('data', (part: Buffer) => (text += String(part)));
            response.on('end', () => done({ status: response.statusCode!, headers: response.headers, text }));
          },
        );
        asked.on('error', failed);
        asked.end(sent);
      });
    await use({ home, child, said: () => said, get });
    const ended = new Promise((done) => child.once('exit', done));
    child.kill('SIGINT');
    await ended;
    rmSync(keys, { recursive: true });
    rmSync(home, { recursive: true, force: true });
  },
});

behind('two servers behind TLS are one to who opens them, and one that is killed is not missed', async ({ behind }) => {
  const { get, home } = behind;
  const logs = (): string[] =>
    readdirSync(join(home, 'several'))
      .filter((name) => /^server-.*log$/.test(name))
      .map((name) => readFileSync(join(home, 'several', name), 'utf8'));

  const founded = await get('/api/first-run', {
    method: 'POST',
    headers: { origin: url },
    body: { practice: 'Behind', name: 'Ada Reed', email: 'ada@reed.example', password: 'only plain words here' },
  });
  expect(founded.status).toBe(204);
  const cookies = [founded.headers['set-cookie']].flat().join(' ');
  expect(cookies).toMatch(/glenfold_session=[^;]+;.* Secure/);
  expect(founded.headers['strict-transport-security']).toBeDefined();
  const cookie = /glenfold_session=[^;]+/.exec(cookies)![0];

  // Whichever of them answers knows who asks; both took their share, and each request is found by its number.
  const sessions = await Promise.all(Array.from({ length: 20 }, () => get('/api/session', { headers: { cookie } })));
  for (const { status, text } of sessions) {
    expect(status).toBe(200);
    expect(JSON.parse(text)).toMatchObject({ state: 'signed in', practice: { name: 'Behind' } });
  }
  expect(logs()).toHaveLength(2);
  for (const log of logs()) expect(log).toContain('"path":"/api/session"');
  const id = String(sessions[0]!.headers['x-request-id']);
  expect(logs().join('')).toContain(id);
  expect(logs().join('')).not.toContain(cookie.split('=')[1]);
  expect((await get('/', { headers: { host: 'elsewhere.example' } })).status).toBe(421);

  const [, pid] = /"pid":(\d+)/.exec(logs()[0]!)!;
  process.kill(Number(pid), 'SIGKILL');
  for (let at = 0; at < 30; at += 1) expect((await get('/api/session', { headers: { cookie } })).status).toBe(200);
  await expect.poll(behind.said).toContain('was lost (SIGKILL)');
});

test('several servers ask for what they need, each with a remedy', () => {
  const said = (...args: string[]): string => saidWith({}, ...args);
  const saidWith = (env: Readonly<Record<string, string>>, ...args: string[]): string => {
    try {
      execFileSync(process.execPath, ['scripts/several.mjs', ...args], {
        ...{ cwd: root, encoding: 'utf8', stdio: 'pipe', env: { ...process.env, ...env } },
      });
      return 'It started.';
    } catch (error) {
      return (error as { stderr: string }).stderr;
    }
  };
  expect(said('--url', 'http://lawns.example')).toContain('is no https address');
  expect(said('--url', url, '--certificate', '/none.pem')).toContain('--certificate is "/none.pem", which is no file');
  const known = ['--url', url, '--certificate', 'package.json', '--key', 'package.json'];
  expect(said(...known, '--servers', 'many')).toContain('whole number of 1 to 16');
  expect(said('--what')).toContain('What to do: Use "npm run several');
  // A certificate that is none: nginx says so, and nothing is left running.
  const home = join('/var/tmp', `glenfold-several-none-${process.pid}`);
  const env = { DATABASE_URL: '', PORT: '4760', GLENFOLD_HOME: home };
  expect(saidWith(env, ...known, '--listen', '127.0.0.1:4759', '--servers', '1', '--empty')).toContain(
    'nginx did not start',
  );
  rmSync(home, { recursive: true, force: true });
});
