import { soilGroups } from '../soil/soilGroups.ts';
import { InputError, choice, optional, quantity } from '../calculators/fields.ts';
import { flag, listOf, record, series, text } from '../calculators/structures.ts';
import { mustRise, readTable } from '../calculators/table.ts';
import sourceData from '../data/nitrogen-sources.json' with { type: 'json' };
import sulfurData from '../data/sulfur.json' with { type: 'json' };

const sourceFields = {
  perNitrogen: listOf(
    {
      name: text(),
      limeEquivalent: quantity('', { min: -10, max: 10 }),
      /** Whether the sulfur put down with it makes acid of its own. */
      sulfurCounts: optional(flag()),
    },
    'sources',
    { min: 1, max: 50 },
  ),
};

/** kg CaCO₃ for each kg of N, by who measured or reckoned it. */
export const acidityBases = {
  pierre: readTable('nitrogen-sources.pierre', sourceFields, sourceData.pierre),
  'full nitrification': readTable(
    'nitrogen-sources.full nitrification',
    sourceFields,
    sourceData['full nitrification'],
  ),
} as const;

export const nitrogenSourceNames = acidityBases.pierre.perNitrogen.map(({ name }) => name);
export const nitrogenSourceField = () => choice(nitrogenSourceNames);

const amount = () => quantity('lb/1000ft2', { min: 0, max: 1000 });

/** Sulfur from each pH to 6.5, lb/1000 ft² for the slice. */
export const sulfurTable = readTable(
  'sulfur.requirement',
  {
    depthIn: quantity('in', { above: 0, max: 24 }),
    ph: series(quantity('pH', { above: 6.5, max: 9 }), 'pH values', { min: 2, max: 10 }),
    toSixFive: record(soilGroups, series(amount(), 'amounts', { min: 2, max: 10 })),
    carbonatePerSulfur: quantity('', { above: 0, max: 10 }),
    /** lb S/1000 ft² for each unit of pH below 6.5. */
    belowSixFive: record(soilGroups, amount()),
    feasibleUpTo: amount(),
    feasibleOnFineTurf: amount(),
  },
  sulfurData.requirement,
);
mustRise('sulfur.requirement.ph', sulfurTable.ph);
for (const [group, amounts] of Object.entries(sulfurTable.toSixFive)) {
  const path = `sulfur.requirement.toSixFive.${group}`;
  mustRise(path, amounts);
  if (amounts.length !== sulfurTable.ph.length)
    throw new InputError(path, `has ${amounts.length} amounts; wanted one for each of ${sulfurTable.ph.length} pH`);
}

export const sulfurSurfaces = ['turf', 'fine turf'] as const;
const cap = () => record(sulfurSurfaces, quantity('lb/1000ft2', { min: 0.1, max: 100 }));

/** Read caps of sulfur on turf, general or a practice's own. @throws {InputError} where a year takes less than once. */
export function readSulfurLimits(raw: unknown, name = 'table') {
  const limits = readTable(name, { perApplication: cap(), perYear: cap() }, raw);
  for (const surface of sulfurSurfaces)
    if (limits.perYear[surface] < limits.perApplication[surface])
      throw new InputError(`${name}.perYear.${surface}`, 'is less than one application; wanted as much or more');
  return limits;
}

export const sulfurLimits = readSulfurLimits(sulfurData.limits, 'sulfur.limits');
