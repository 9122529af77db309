import { quantity } from '../calculators/fields.ts';
import { group, record } from '../calculators/structures.ts';
import { readTable } from '../calculators/table.ts';
import creditData from '../data/nitrogen-credits.json' with { type: 'json' };
import growthData from '../data/growth-potential.json' with { type: 'json' };

const share = () => quantity('', { min: 0, max: 1 });
export const shades = ['full sun', 'part', 'deep'] as const;

/** What shade, clippings and organic matter take off the nitrogen of the year. */
export const nitrogenCredits = readTable(
  'nitrogen-credits',
  {
    shade: record(shades, share()),
    clippings: share(),
    /** %; the ranges were made on ordinary soils, so only what stands above this earns a credit. */
    ordinaryOrganicMatter: quantity('%', { min: 0, max: 20 }),
    rootZone: quantity('cm', { above: 0, max: 60 }),
    /** Most that clippings and organic matter take off the need together. */
    mostTogether: share(),
    nitrogenInOrganicMatter: share(),
    yearlyRelease: share(),
  },
  creditData,
);

const celsius = () => quantity('C', { min: 0, max: 50 });
const curve = () => group({ best: celsius(), spread: quantity('', { above: 0, max: 30 }) });

/** Growth by temperature, by season of the grass. */
export const growthPotentials = readTable('growth-potential', { cool: curve(), warm: curve() }, growthData);
