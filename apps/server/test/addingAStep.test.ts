import type { SiteStateAnswer, TasksAnswer } from '@glenfold/contract';
import { Records } from '../src/platform/records.ts';
import { isBehind, placeOf } from '../src/steps/paging.ts';
import type { FoundTask } from '../src/steps/stepReporter.ts';
import { StepReporters } from '../src/steps/stepReporters.ts';
import { get, siteOf, useDemoServer } from './client.ts';
import { demoEmails, signIn } from './harness.ts';

const server = useDemoServer();

/** As docs/guides/adding-a-step.md says it is done: a season of another kind, in the place of the one that is there. */
function registerSeason(): void {
  const { app } = server.current();
  const records = app.get(Records);
  app.get(StepReporters).register<'zones'>({
    step: 'season',
    numbers: `SELECT z."siteId", count(*)::int AS "zones" FROM zone z
      WHERE z."practiceId" = $1 AND z."siteId" = ANY($2) AND z."deletedAt" IS NULL GROUP BY z."siteId"`,
    state: ({ zones }) => ({ words: `${zones} to do this week`, state: 'act' }),
    tasks: [
      {
        name: 'spread',
        pressing: 1,
        may: 'work.write',
        page: async (behind, limit): Promise<FoundTask[]> => {
          const found = await records.ask<{ id: string; siteName: string }>(
            `SELECT s."id", s."name" AS "siteName" FROM site s WHERE s."practiceId" = $1 AND s."deletedAt" IS NULL
               AND ${isBehind('s."name"', 's."id"')} ORDER BY s."name", s."id" LIMIT $4`,
            [...placeOf(behind), limit],
          );
          return found.map(({ id, siteName }) => ({
            ...{ id, siteId: id, siteName, zoneId: null },
            ...{ words: 'Spread the lime', why: 'Its window is open until Friday.' },
          }));
        },
      },
    ],
  });
}

it('a step that registers shows its state and its tasks, to whom they are for, page by page; nothing else changes', async () => {
  const { id } = await siteOf('Gannet');
  const before = await get<SiteStateAnswer>(`/sites/${id}/state`);
  expect(before.steps.find(({ step }) => step === 'season')!.words).not.toContain('to do this week');
  registerSeason();

  const after = await get<SiteStateAnswer>(`/sites/${id}/state`);
  expect(after.steps.find(({ step }) => step === 'season')).toEqual({
    ...{ step: 'season', words: '3 to do this week', state: 'act' },
  });
  const others = ({ steps }: SiteStateAnswer) => steps.filter(({ step }) => step !== 'season');
  expect(others(after)).toEqual(others(before));

  const first = await get<TasksAnswer>('/rounds?limit=4');
  expect(first.tasks.map(({ step, words }) => [step, words])).toEqual(Array(4).fill(['season', 'Spread the lime']));
  const rest = await get<TasksAnswer>(`/rounds?limit=40&after=${encodeURIComponent(first.next!)}`);
  const steps = [...first.tasks, ...rest.tasks].map(({ step }) => step);
  expect(steps.lastIndexOf('season')).toBe(5);
  expect(new Set(steps).size).toBeGreaterThan(2);

  const wynn = await signIn(server.current(), demoEmails.technician);
  const his = (await wynn.ask('get', '/rounds')).body as TasksAnswer;
  expect(his.tasks.map(({ step }) => step)).not.toContain('season');
});
