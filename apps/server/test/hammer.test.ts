import { chanceFrom } from '@glenfold/agronomy/geometry';
import { fuzz } from '../hammer/fuzz.mjs';
import { get, useDemoServer } from './client.ts';

const server = useDemoServer();

it('what nobody would send in good faith is refused, and breaks nothing', async () => {
  const { agent, session } = server.owner();
  const { csrf } = await session();
  const { tries, faults, statuses } = await fuzz({
    description: await get<object>('/openapi.json'),
    ask: async (method, path, { body, raw }) => {
      const request = agent[method](`/api${path}`).set('x-csrf-token', csrf).set('if-match', '"1"');
      const answer = await (raw === undefined && body === undefined
        ? request
        : request.set('content-type', 'application/json').send(raw ?? JSON.stringify(body)));
      return { status: answer.status, text: answer.text };
    },
    idsOf: async (table) =>
      (await server.current().sql<{ found: string | null }>('SELECT to_regclass($1)::text AS found', [table]))[0]!.found
        ? (await server.current().sql<{ id: string }>(`SELECT id FROM ${table} LIMIT 20`)).map(({ id }) => id)
        : [],
    chance: chanceFrom(Number(process.env.FUZZ_SEED ?? 20)),
    tries: Number(process.env.FUZZ_TRIES ?? 400),
  });
  expect(faults).toEqual([]);
  expect(tries).toBeGreaterThan(100);
  expect(Object.keys(statuses)).toEqual(expect.arrayContaining(['200', '400', '422']));
});
