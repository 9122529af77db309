// A scratch instance that may be broken: a database of its own, and servers that can be killed and come back.
import { spawn } from 'node:child_process';
import { existsSync, readFileSync } from 'node:fs';
import { createRequire } from 'node:module';
import { join } from 'node:path';
import { setTimeout as pause } from 'node:timers/promises';

const { Client } = createRequire(import.meta.url)('pg');
const here = import.meta.dirname;
const TRIES = 4;

/** One server of the instance. */
export class Server {
  #child;

  constructor({ root, databaseUrl, files, port, folder }) {
    Object.assign(this, { root, databaseUrl, files, port, loop: join(folder, `loop-${port}.json`) });
    this.address = `http://127.0.0.1:${port}`;
    /** ms that the event loop stood still at most since it was last asked, of all lives of this server. */
    this.longest = { block: 0, atWork: 0 };
  }

  /** A port may be somebody's for a moment: it is tried again, as who watches over a server does. */
  async start() {
    for (let tries = 1; ; tries += 1)
      try {
        return await this.#begin();
      } catch (error) {
        if (tries === TRIES) throw error;
        await pause(500 * tries);
      }
  }

  async #begin() {
    this.#child = spawn(
      process.execPath,
      ['--disable-warning=ExperimentalWarning', '--import', join(here, 'watchLoop.mjs'), 'apps/server/dist/main.js'],
      {
        cwd: this.root,
        stdio: ['ignore', 'pipe', process.env.HAMMER_SHOW ? 'inherit' : 'ignore'],
        env: {
          ...process.env,
          ...{ DATABASE_URL: this.databaseUrl, DATABASE_OWNER_URL: '', PORT: String(this.port), HOST: '127.0.0.1' },
          ...{ GLENFOLD_EMPTY: '0', GLENFOLD_FILES: this.files, HAMMER_LOOP: this.loop, NODE_ENV: 'production' },
        },
      },
    );
    const child = this.#child;
    await new Promise((ready, failed) => {
      child.stdout.on('data', (text) => String(text).includes('ready ') && ready());
      child.on('exit', (code) => failed(new Error(`The server on ${this.port} ended with ${code}.`)));
    });
    child.removeAllListeners('exit');
    child.kill('SIGWINCH');
  }

  /** As a power cut does it. */
  async kill() {
    this.look();
    const ended = new Promise((done) => this.#child.once('exit', done));
    this.#child.kill('SIGKILL');
    await ended;
  }

  async stop() {
    await pause(300);
    this.look();
    this.#child.kill('SIGTERM');
  }

  /** From here on anew. */
  forget() {
    this.longest = { block: 0, atWork: 0 };
    this.#child.kill('SIGWINCH');
  }

  look() {
    if (!existsSync(this.loop)) return;
    try {
      const { block, atWork } = JSON.parse(readFileSync(this.loop, 'utf8'));
      this.longest = { block: Math.max(this.longest.block, block), atWork: Math.max(this.longest.atWork, atWork) };
    } catch {
      // Just being written.
    }
  }
}

/** Somebody of the demo at one of the servers, by its address at each request. */
export class Visitor {
  #cookie = '';
  #csrf = '';

  static async enter(server, name) {
    const visitor = new Visitor();
    const { demoPeople } = await (await fetch(`${server.address}/api/session`)).json();
    const person = demoPeople.find((each) => each.name.startsWith(name));
    const entered = await fetch(`${server.address}/api/demo/session`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ personId: person.personId }),
    });
    visitor.#cookie = entered.headers
      .getSetCookie()
      .map((cookie) => cookie.split(';')[0])
      .join('; ');
    const session = await (
      await fetch(`${server.address}/api/session`, { headers: { cookie: visitor.#cookie } })
    ).json();
    visitor.#csrf = session.csrf;
    return visitor;
  }

  /** @returns status 0 where nobody answered, and the text of the answer otherwise */
  async ask(server, method, path, { body, raw, form, key, version = 1 } = {}) {
    const sent = form ?? raw ?? (body === undefined ? undefined : JSON.stringify(body));
    try {
      const answer = await fetch(`${server.address}/api${path}`, {
        method: method.toUpperCase(),
        signal: AbortSignal.timeout(60_000),
        headers: {
          ...{ cookie: this.#cookie, 'x-csrf-token': this.#csrf, 'if-match': `"${version}"` },
          ...(sent === undefined || form ? {} : { 'content-type': 'application/json' }),
          ...(key ? { 'idempotency-key': key } : {}),
        },
        ...(sent === undefined || method === 'get' ? {} : { body: sent }),
      });
      return { status: answer.status, text: await answer.text() };
    } catch {
      return { status: 0, text: '' };
    }
  }
}

/** SQL on the instance's database, beside the servers. */
export async function sql(url, text, values = []) {
  const client = new Client({ connectionString: url });
  client.on('error', () => {});
  await client.connect();
  try {
    return (await client.query(text, values)).rows;
  } finally {
    await client.end();
  }
}
