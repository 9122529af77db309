import { randomUUID } from 'node:crypto';
import type { Row } from './formats.ts';
import { type Tables, readTables } from './readTables.ts';
import type { ExportedTable } from './tables.ts';
import { tablesOf4, today as quotesToday } from './version4.ts';

type FileOf3 = Pick<ExportedTable, 'file' | 'spread'>;

/** Files that an export of format 3 did not have: a plan a zone stood in one of its own. */
const since4: readonly string[] = ['programs.json', 'program-zones.json', 'treatments.json', 'doses.json'];
const PLANS = 'plans.json';

export const tablesOf3: readonly FileOf3[] = [
  ...tablesOf4.filter(({ file }) => !since4.includes(file)),
  { file: PLANS },
];

interface Amount {
  readonly productId: string;
  readonly rate: { readonly value: number };
  readonly applications: ReadonlyArray<{ readonly rate: number }>;
}

interface Issued {
  readonly units: string;
  readonly answer: {
    readonly plan: {
      readonly lime: { readonly amount: Amount | null };
      readonly nutrients: ReadonlyArray<{ readonly nutrient: string; readonly amount: Amount | null }>;
    };
  };
}

const remedies: Readonly<Record<string, string>> = { n: 'nitrogen', p2o5: 'phosphorus', k2o: 'potassium' };

/** Tables of format 3, in those of today: each plan that was handed over is a program, what was chosen its site’s draft. */
export function today(tables: Tables): Tables {
  const rows = (file: string): readonly Row[] => tables.get(file) ?? [];
  const products = new Set(rows('products.json').map(({ id }) => id));
  const siteOf = new Map(rows('zones.geojson').map(({ id, siteId }) => [id, siteId]));
  const [programs, zones, treatments, doses]: [Row[], Row[], Row[], Row[]] = [[], [], [], []];
  const drafts = new Map<unknown, Row>();
  const fresh = ({ practiceId, createdAt, deletedAt }: Row): Row => ({
    id: randomUUID(),
    practiceId,
    createdAt,
    deletedAt,
    version: 1,
  });
  for (const plan of rows(PLANS)) {
    const { id, zoneId, issuedAt, labResultId, version, choices } = plan;
    const siteId = siteOf.get(zoneId);
    const issued = plan.issued as Issued | null;
    if (issued) {
      const newer = rows(PLANS).some(
        (other) => other.zoneId === zoneId && other.issued && String(other.issuedAt) > String(issuedAt),
      );
      const program: Row = {
        ...fresh(plan),
        siteId,
        startsOn: null,
        state: newer ? 'superseded' : 'handed over',
        handedOverAt: issuedAt,
        units: issued.units,
      };
      programs.push(program);
      zones.push({ ...fresh(plan), id, version, programId: program.id, zoneId, labResultId, issuedAt, issued });
      const { lime, nutrients } = issued.answer.plan;
      const lines = [
        { remedy: 'lime', amount: lime.amount },
        ...nutrients.map(({ nutrient, amount }) => ({ remedy: remedies[nutrient], amount })),
      ];
      for (const { remedy, amount } of lines) {
        if (!amount) continue;
        const productId = products.has(amount.productId) ? amount.productId : null;
        const treatment: Row = {
          ...fresh(plan),
          programId: program.id,
          zoneId,
          key: remedy,
          remedy,
          productId,
          rate: amount.rate.value,
          unit: 'g/m2',
          override: null,
        };
        treatments.push(treatment);
        doses.push(
          ...amount.applications.map(({ rate }, position) => ({
            ...fresh(plan),
            treatmentId: treatment.id,
            position,
            rate,
            earliest: null,
            latest: null,
          })),
        );
      }
    } else if (plan.deletedAt === null) {
      const draft = drafts.get(siteId) ?? {
        ...fresh(plan),
        siteId,
        startsOn: null,
        state: 'draft',
        handedOverAt: null,
        units: null,
      };
      const chosen = Object.entries((choices ?? {}) as Readonly<Record<string, unknown>>);
      if (chosen.length > 0) drafts.set(siteId, draft);
      treatments.push(
        ...chosen.map(([remedy, material]) => ({
          ...{ ...fresh(plan), programId: draft.id, zoneId, key: remedy, remedy, rate: null, unit: null },
          productId: products.has(material) ? material : null,
          override: { values: { material }, reason: 'Chosen before reasons were kept.' },
        })),
      );
    }
  }
  return quotesToday(
    new Map([
      ...[...tables].filter(([file]) => file !== PLANS),
      ['programs.json', [...programs, ...drafts.values()]],
      ['program-zones.json', zones],
      ['treatments.json', treatments],
      ['doses.json', doses],
    ]),
  );
}

/** An export of format 3, in the tables of today. */
export const readVersion3 = (files: ReadonlyMap<string, string>): Tables => today(readTables(files, tablesOf3));
