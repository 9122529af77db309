import { grassTable, grasses, saltTolerance, seedingWindows } from '../nutrients/grasses.ts';
import { capital } from '../units/capital.ts';
import { known, range, table } from './table.ts';

export const ofGrasses = [
  table(
    'Grasses',
    'What each grass wants and stands',
    grassTable,
    ['Grass', 'Season', 'pH', 'Aim', 'N, lb/1000 ft² a year', 'Shade', 'Least sun, h', 'Salt, suffers from dS/m'],
    grasses.map((grass) => [
      capital(grass.label),
      grass.season,
      grass.ph.map((end) => end.toFixed(1)).join('–'),
      grass.aim.toFixed(1),
      range(grass.nitrogen),
      grass.shade,
      known(grass.leastSun),
      `${range(grass.salt)} (${saltTolerance(grass)})`,
    ]),
  ),
  table(
    'Grasses',
    'Establishing and seeding',
    grassTable,
    ['Grass', 'From', 'Spreads by', 'New, lb/1000 ft²', 'Overseed', 'Depth, cm', 'Days to emerge', 'Soil, °C'],
    grasses.map(({ label, establish, spreads, seed, season }) => [
      capital(label),
      establish.join(', '),
      spreads,
      range(seed?.new, 'not seeded'),
      seed
        ? `${range(seed.overseed, 'half of new')}${seed.winterOverBermuda ? `; ${range(seed.winterOverBermuda)} into bermuda for the winter` : ''}`
        : '–',
      range(seed?.depth),
      range(seed?.emerge),
      seed ? `${range(seedingWindows[season].range)}, ${seedingWindows[season].trend}` : '–',
    ]),
  ),
];
