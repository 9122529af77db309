// The blows that the hammer deals. Each is bounded in time and tells what it tried and what came of it.
import { randomUUID } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';
import { fuzz } from './fuzz.mjs';
import { Visitor, sql } from './instance.mjs';

/** What came of a blow; every 5xx but a 503, which says that it is worth trying again, is a fault. */
export const nothingYet = () => ({ tries: 0, lost: 0, doubled: 0, faults: [], times: [] });

const isFault = (status) => status >= 500 && status !== 503;

function note(result, { status, text }, what) {
  result.tries += 1;
  if (isFault(status)) result.faults.push(`${status} ${what}: ${text.slice(0, 160)}`);
}

/** Sends until it is taken, under one key, as a page does after a lost connection. @returns whether it was taken */
async function insist(visitor, servers, method, path, body, until) {
  const key = randomUUID();
  for (let turn = 0; Date.now() < until; turn += 1) {
    const answer = await visitor.ask(servers[turn % servers.length], method, path, { body, key });
    if (answer.status === 201) return true;
    if (isFault(answer.status)) return answer;
    await pause(150);
  }
  return false;
}

/** Requests that nobody would send in good faith. */
export async function odd({ servers, url, chance, until }) {
  const result = nothingYet();
  const owner = await Visitor.enter(servers[0], 'Orla');
  const description = JSON.parse((await owner.ask(servers[0], 'get', '/openapi.json')).text);
  const { tries, faults } = await fuzz({
    ...{ description, chance, until, tries: Infinity },
    ask: (method, path, sent) => owner.ask(servers[0], method, path, sent),
    idsOf: async (table) => {
      const [{ found }] = await sql(url, 'SELECT to_regclass($1)::text AS found', [table]);
      return found ? (await sql(url, `SELECT id FROM ${table} LIMIT 20`)).map(({ id }) => id) : [];
    },
  });
  result.tries = tries;
  result.faults = faults.map(({ method, path, status }) => `${status} ${method} ${path}`);
  return result;
}

const lines = (count, line) => Array.from({ length: count }, () => line).join('\n');

/** Files as a laboratory would never send them: cut off, huge, nested, of another kind than their name says. */
function hostileFiles() {
  const zip = Buffer.from([0x50, 0x4b, 3, 4, ...Buffer.alloc(300, 7)]);
  return [
    ['empty.csv', ''],
    ['nul.csv', 'pH\u0000,P\n6,\u0000'],
    ['long.csv', `Sample,pH\nGR-1,${'6'.repeat(400_000)}`],
    ['wide.csv', `${'pH,'.repeat(20_000)}\n${'6,'.repeat(20_000)}`],
    ['tall.csv', `Sample,pH,Depth in\n${lines(20_000, 'GR-1,6.1,6')}`],
    ['quotes.csv', '"'.repeat(50_001)],
    ['deep.json', `${'['.repeat(20_000)}1${']'.repeat(20_000)}`],
    ['broken.json', '{"results":[{"pH":6'],
    ['formula.csv', 'Sample,pH\n=cmd|x,=1+1'],
    ['torn.xlsx', zip.toString('latin1')],
    ['no.pdf', '%PDF-1.7\n1 0 obj<</Length 99999999>>stream\n'],
    ['turned.csv', `${lines(300, 'pH;6,1;6,2')}`],
  ];
}

export async function files({ servers, siteId, until }) {
  const result = nothingYet();
  const advisor = await Visitor.enter(servers[0], 'Piet');
  const all = hostileFiles();
  for (let turn = 0; Date.now() < until && turn < 3 * all.length; turn += 1) {
    const [fileName, content] = all[turn % all.length];
    const body = { fileName, content };
    note(
      result,
      await advisor.ask(servers[turn % servers.length], 'post', `/sites/${siteId}/lab-reports`, { body }),
      fileName,
    );
  }
  return result;
}

/** The same things at the same moment, at both servers. */
export async function races({ servers, siteId, zones, until }) {
  const result = nothingYet();
  const people = await Promise.all(['Orla', 'Piet'].map((name) => Visitor.enter(servers[0], name)));
  const at = (turn) => [people[turn % people.length], servers[turn % servers.length]];
  for (let round = 0; Date.now() < until && round < 12; round += 1) {
    // One key, ten times, at both servers: one date.
    const name = `Once ${round} ${randomUUID().slice(0, 8)}`;
    const key = randomUUID();
    const body = { name, day: '2027-06-01' };
    const sent = await Promise.all(
      Array.from({ length: 10 }, (_, turn) => people[0].ask(servers[turn % servers.length], 'post', `/sites/${siteId}/dates`, { body, key })),
    );
    for (const answer of sent) note(result, answer, 'one key at both servers');
    const dates = JSON.parse((await people[0].ask(servers[0], 'get', `/sites/${siteId}/season?units=us`)).text).dates;
    const count = dates.filter((date) => date.name === name).length;
    if (count > 1) result.doubled += count - 1;
    if (count === 0) result.lost += 1;
    // A zone saved by eight at once from one version: one of them stands.
    const zone = JSON.parse((await people[0].ask(servers[0], 'get', `/sites/${siteId}/zones`)).text)[round % zones.length];
    const facts = { sunHours: 5 };
    const saves = await Promise.all(
      Array.from({ length: 8 }, (_, turn) => {
        const [who, server] = at(turn);
        return who.ask(server, 'put', `/zones/${zone.id}/facts`, { body: facts, version: zone.version });
      }),
    );
    for (const answer of saves) note(result, answer, 'a zone by eight');
    const taken = saves.filter(({ status }) => status === 200).length;
    if (taken > 1) result.doubled += taken - 1;
  }
  return result;
} // prettier-ignore

/** People go on writing while servers and the database are killed under them: what was taken must be there after. */
export async function kills({ servers, siteId, until, database }) {
  const result = nothingYet();
  const people = await Promise.all(['Orla', 'Piet', 'Orla', 'Piet'].map((name) => Visitor.enter(servers[0], name)));
  const taken = [];
  let going = true;
  const writers = people.map(async (person, at) => {
    for (let turn = 0; going; turn += 1) {
      const name = `Kept ${at} ${turn}`;
      const order = at % 2 ? servers : [...servers].reverse();
      const answer = await insist(person, order, 'post', `/sites/${siteId}/dates`, { name, day: '2027-05-01' }, Date.now() + 60_000);
      result.tries += 1;
      if (answer === true) taken.push(name);
      else if (answer) note(result, answer, 'writing while things are killed');
      await pause(20);
    }
  });
  result.kills = 0;
  while (Date.now() < until) {
    const victim = servers[result.kills % servers.length];
    await pause(800);
    if (result.kills % 3 === 2) await database.kill();
    else {
      await victim.kill();
      await victim.start();
    }
    result.kills += 1;
  }
  going = false;
  await Promise.all(writers);
  const { dates } = JSON.parse((await people[0].ask(servers[0], 'get', `/sites/${siteId}/season?units=us`)).text);
  for (const name of taken) {
    const count = dates.filter((date) => date.name === name).length;
    if (count === 0) result.lost += 1;
    if (count > 1) result.doubled += count - 1;
  }
  return result;
} // prettier-ignore

/** A steady day: most read, some write, at both servers. */
export async function load({ servers, siteId, zones, until }) {
  const result = nothingYet();
  const names = ['Orla', 'Piet', 'Wynn', 'Orla', 'Piet', 'Hetty'];
  const people = await Promise.all(names.map((name) => Visitor.enter(servers[0], name)));
  const zone = () => zones[Math.floor(Math.random() * zones.length)];
  const reads = {
    Hetty: [() => `/sites/${siteId}/report?units=us`, () => '/reports'],
    Wynn: [() => '/season/week?units=us', () => '/walks', () => `/sites/${siteId}/zones`],
    all: [
      ...[() => '/rounds', () => '/sites', () => `/sites/${siteId}/state`, () => `/sites/${siteId}/zones`],
      ...[() => `/zones/${zone()}/program?units=us`, () => `/zones/${zone()}/reading?units=us`, () => '/bags'],
      ...[() => `/sites/${siteId}/season?units=us`, () => `/sites/${siteId}/logbook`, () => `/sites/${siteId}/lab-results`],
    ],
  };
  await Promise.all(
    people.map(async (person, at) => {
      const paths = reads[names[at]] ?? reads.all;
      for (let turn = 0; Date.now() < until; turn += 1) {
        const server = servers[(at + turn) % servers.length];
        const writes = turn % 8 === 7 && !['Hetty', 'Wynn'].includes(names[at]);
        const began = performance.now();
        const answer = writes
          ? await person.ask(server, 'post', `/sites/${siteId}/dates`, {
              body: { name: `Day ${at} ${turn}`, day: '2027-07-01' },
              key: randomUUID(),
            })
          : await person.ask(server, 'get', paths[turn % paths.length]());
        result.times.push(performance.now() - began);
        note(result, answer, writes ? 'a date' : paths[turn % paths.length]());
        if (answer.status === 0) result.lost += 1;
        // Somebody reads what came.
        await pause(60);
      }
    }),
  );
  return result;
} // prettier-ignore
