import { productOf } from '../materials/product.ts';
import type { LimeComparison } from '../rates/compareLime.ts';
import type { Brought, Macro } from '../rates/needs.ts';
import { type PlanInput, type ProductChoices, type TestedZone, ratesOf, understand } from '../rates/plan.ts';
import type { Reading } from '../reading/reading.ts';
import type { Asked, Stocked } from '../remedies/remedy.ts';
import { remedies } from '../remedies/remedies.ts';
import type { PlaceClimate } from '../season/climate.ts';
import { type YearAhead, yearAhead } from '../remedies/months.ts';
import { defaultSettings } from '../settings/settings.ts';
import type { Figure } from '../working/working.ts';
import { type BalanceLine, balanceOf, planned } from './balance.ts';
import type { Change } from './changes.ts';
import { changeOf, outOf, ownFeed, ownOf } from './ownChanges.ts';
import { type Finding, findingsOf } from './findings.ts';
import { judgedOf } from './judged.ts';
import { fed, macroOf } from './fed.ts';
import { lessGone } from './gone.ts';
import { feedTreatment, limeTreatment } from './ratesAsTreatments.ts';
import type { Advised } from '../lab/advised.ts';
import { type BesideLab, besideLab } from './besideLab.ts';
import { type RuleThatBinds, rulesThatBind } from './rulesThatBind.ts';
import { fillMaterials } from '../organic/rebuild.ts';
import { placed } from './placing.ts';
import { type VisitLine, visitLines, withWork } from './work.ts';
import { type AgainstUsual, againstUsual, visitsOf } from './usualYear.ts';
import type { Judged, Treatment } from '../remedies/treatment.ts';
import { afterFeeding, wantedBeside } from './afterFeeding.ts';
import { proposedOrUsual, treatmentsOf } from './alone.ts';
import { acidityOf, costOf } from './sums.ts';

/** What a zone gets in a year, in the order of work, and what was looked at beside. */
export interface ZoneProgram {
  readonly treatments: readonly Treatment[];
  readonly judged: readonly Judged[];
  readonly comparisons: readonly LimeComparison[];
  readonly balance: readonly BalanceLine[];
  readonly findings: readonly Finding[];
  /** Net acidity of the year’s feeding, sulfur and lime, g/m² as CaCO₃; more than nothing acidifies. */
  readonly acidity: Figure;
  /** Drives there, by the practice’s prices of work; nothing on papers of before. */
  readonly visits?: readonly VisitLine[];
  /** Nothing while something that is due has no price. */
  readonly cost: Figure | null;
  readonly unpriced: readonly string[];
  /** Treatments that nothing is bought for and of which nobody has said what they cost: not in the sum; nothing on papers of before. */
  readonly unpricedWork?: readonly string[];
  /** What need not be bought. */
  readonly leftOut: readonly string[];
  /** Where it is other than the usual year; nothing where there is none, as before there could be. */
  readonly usual?: AgainstUsual | null;
  /** The laboratory's own advice in amounts beside it, each difference explained; nothing on papers of before. */
  readonly besideLab?: readonly BesideLab[];
  /** Rules of the place that bind here, a sentence each; nothing on papers of before. */
  readonly rules?: readonly RuleThatBinds[];
  /** The months it is for; nothing where the place has no climate. */
  readonly year:
    | (Pick<YearAhead, 'from' | 'basis' | 'madeUp'> & {
        readonly months: ReadonlyArray<{ readonly month: string; readonly mean: number; readonly growth: number }>;
      })
    | null;
}

/** What a program rests on beside the test. */
export interface ProgramInput extends Omit<PlanInput, 'products' | 'choices'> {
  readonly materials: readonly Stocked[];
  readonly changes?: readonly Change[];
  readonly others?: readonly TestedZone[];
  /** What the laboratory itself advises, in amounts. */
  readonly advised?: readonly Advised[] | undefined;
  /** First day of the program, `2026-11-27`. */
  readonly from: string;
  readonly climate?: PlaceClimate | undefined;
}

/** What is filled in lies in the order in which it is put down. */
const lies = ({ remedy, values }: Treatment): number =>
  remedy === 'fill' ? (fillMaterials.materials.find(({ name }) => name === values.soil)?.lies ?? 0) : 0;

/** How much of a zone is cleared by hand, m²; nothing where none is. */
function clearedOf(changes: readonly Change[], area: number): number | undefined {
  const clears = changes.filter(({ remedy, out }) => remedy === 'clear' && out === undefined);
  if (clears.length === 0) return undefined;
  const sum = clears.reduce((all, { values }) => all + (typeof values.area === 'number' ? values.area : area), 0);
  return Math.min(sum, area);
}

/** What treatments of a remedy bring beside the feeding; nothing where none is planned. @param quick all of its nitrogen counts */
function broughtBy(
  treatments: readonly Treatment[],
  remedy: Treatment['remedy'],
  by: string,
  quick: boolean,
): Brought[] {
  const own = planned(treatments).filter((treatment) => treatment.remedy === remedy);
  const sum = (key: Macro): number => own.reduce((all, { brings }) => all + brings[key], 0);
  const sums = { n: sum('n'), p2o5: sum('p2o5'), k2o: sum('k2o') };
  return sums.n + sums.p2o5 + sums.k2o > 0 ? [{ ...sums, by, quick }] : [];
}

/** Seed and sod are left out where sprayed mulch brings the seed, unless somebody has set them by hand. */
function sownOnce(treatments: readonly Treatment[], changes: readonly Change[]): Treatment[] {
  const sprayed = planned(treatments).find(({ remedy }) => remedy === 'mulch');
  if (!sprayed) return [...treatments];
  return treatments.map((treatment) =>
    (treatment.remedy === 'seed' || treatment.remedy === 'sod') &&
    treatment.status === 'planned' &&
    changeOf(changes, treatment.key) === undefined
      ? {
          ...treatment,
          status: 'left out',
          words: 'The sprayed mulch brings the seed: sown by itself the ground would be sown, and paid for, twice.',
        }
      : treatment,
  );
}

/** The program of one zone; of a rate set by hand, what is still to go down. */
export function programZone(input: ProgramInput): { readonly reading: Reading; readonly program: ZoneProgram } {
  const { changes = [], materials, system } = input;
  if (changes.every(({ gone }) => gone === undefined)) return programOf(input);
  // As it was set tells which product every rate is of.
  const { treatments } = programOf(input).program;
  const left = lessGone(changes, treatments, materials, system);
  return programOf({ ...input, changes: left });
}

function programOf(input: ProgramInput): { readonly reading: Reading; readonly program: ZoneProgram } {
  const { zone, system, changes = [], materials, from, climate, settings = defaultSettings } = input;
  const products = materials.flatMap(({ id, material, price }) => productOf(id, material, price) ?? []);
  const chosen: ProductChoices = Object.fromEntries(
    (['lime', ...fed] as const).flatMap((key) => {
      const own = ownOf(changes, key).material ?? visitsOf(settings.usualYear, key)[0]?.material ?? undefined;
      return own === undefined ? [] : [[key, own]];
    }),
  );
  const understood = understand({ ...input, products });
  const year = yearAhead(from, climate, understood.sward.main?.season ?? 'cool', settings.rules?.blackouts);
  const asked: Asked = {
    ...{ ...understood, zone, settings, system, materials, year, from },
    cleared: clearedOf(changes, zone.area),
  };

  // What is laid and mended first: its nutrients come off the feeding.
  const before = remedies.map((remedy) => ({
    remedy,
    proposal: proposedOrUsual(remedy.name, remedy.propose(asked), asked),
  }));
  const alone = sownOnce(
    before.flatMap(({ remedy, proposal }) => treatmentsOf(remedy.name, proposal, asked, changes)),
    changes,
  );
  const plan = ratesOf(
    understood,
    { ...input, products, choices: chosen, on: from },
    {
      brought: [
        ...broughtBy(alone, 'compost', 'compost', false),
        ...broughtBy(alone, 'mulch', 'the feed in the tank', true),
      ],
      feeding: {
        own: Object.fromEntries(fed.flatMap((key) => ownFeed(changes, key, zone.garden))),
        out: new Set(fed.filter((key) => outOf(changes, key)).map((key) => macroOf[key])),
      },
    },
  );
  const lime = limeTreatment(plan, asked, products, changes);
  const feeding = fed.map((key) => feedTreatment(key, plan, asked, products, changes));
  const rest = afterFeeding(
    [...alone, ...lime, ...feeding.flatMap(({ treatment }) => treatment ?? [])],
    asked,
    changes,
  );
  const unplaced = [...alone, ...lime, ...feeding.flatMap(({ treatment }) => treatment ?? []), ...rest].sort(
    (one, other) => one.stage - other.stage || lies(one) - lies(other),
  );
  const treatments = placed(unplaced, zone.surface === 'seedbed', {
    from,
    year,
    changes,
    usual: settings.usualYear,
  }).map((treatment) =>
    withWork(treatment, settings.work, zone.area, changeOf(changes, treatment.key)?.work ?? [], settings.currency),
  );
  const visits = visitLines(treatments, settings.work, settings.currency);
  const needs = Object.fromEntries(Object.entries(wantedBeside(asked)).filter(([, need]) => need > 0));
  const judged = judgedOf(plan, before, lime, treatments, feeding, zone.signs ?? [], system);
  const balance = balanceOf(treatments, plan, needs);
  return {
    reading: understood.reading,
    program: {
      treatments,
      judged,
      usual: againstUsual(settings.usualYear, treatments, judged, {
        ...{ system, materials, area: zone.area, currency: settings.currency },
      }),
      comparisons: plan.comparisons,
      balance,
      findings: findingsOf(treatments, balance, products, { system, zone, year }),
      acidity: acidityOf(treatments),
      visits,
      ...costOf(treatments, visits, settings.currency),
      besideLab: besideLab(input.advised ?? [], { zone, understood, plan, treatments, materials, settings, system }),
      rules: rulesThatBind(treatments, plan, understood, { zone, settings, system }),
      leftOut: plan.leftOut.filter((name) => !planned(treatments).some((treatment) => treatment.name === name)),
      year: year
        ? {
            from: year.from,
            basis: year.basis,
            madeUp: year.madeUp,
            months: year.months.map(({ month, mean, growth }) => ({ month, mean, growth })),
          }
        : null,
    },
  };
}
