import { type ReferenceTable, referenceTables } from '@glenfold/agronomy';
import { Box, Typography } from '@mui/material';
import { useParams } from 'react-router';
import { colours } from '../../ui/theme.ts';
import { type Part, PartsPage } from '../../ui/PartsPage.tsx';
import { TextureTriangle } from '../../ui/TextureTriangle.tsx';
import { Grasses } from './Grasses.tsx';
import { PublishedTable } from './PublishedTable.tsx';
import { SoilTests } from './SoilTests.tsx';

interface Subject extends Part {
  readonly subject: ReferenceTable['subject'];
}

const subjects: readonly Subject[] = [
  { name: 'grasses', title: 'Grasses', subject: 'Grasses', about: 'pH, nitrogen, shade, salt, seed' },
  { name: 'soil-tests', title: 'Soil tests', subject: 'Soil tests', about: 'bands by extractant' },
  { name: 'lime', title: 'Lime', subject: 'Lime', about: 'buffers, materials, caps' },
  { name: 'sulfur', title: 'Sulfur and acidity', subject: 'Sulfur and acidity', about: 'lowering pH, what acidifies' },
  { name: 'nitrogen', title: 'Nitrogen', subject: 'Nitrogen', about: 'credits, growth through the year' },
  { name: 'materials', title: 'Materials', subject: 'Materials', about: 'composts, soils, fill, amendments' },
  { name: 'soil-and-water', title: 'Soil and water', subject: 'Soil and water', about: 'texture, drainage, water use' },
  { name: 'judgement', title: 'Judgement', subject: 'Judgement', about: 'what limits, when to correct' },
  { name: 'season', title: 'Season', subject: 'Season', about: 'go, wait or never; cards; how fast it works' },
  { name: 'trouble', title: 'Trouble', subject: 'Trouble', about: 'signs, causes, cheapest checks' },
];

/** The triangle, and the rest as published. */
function SoilAndWater({ tables }: { readonly tables: readonly ReferenceTable[] }) {
  return (
    <>
      <Box sx={{ display: 'grid', gridTemplateColumns: { md: '1fr 1fr' }, columnGap: 4 }}>
        <TextureTriangle />
        {tables[0] && <PublishedTable table={tables[0]} />}
      </Box>
      {tables.slice(1).map((table) => (
        <PublishedTable key={table.title} table={table} />
      ))}
    </>
  );
}

const drawn: Readonly<Partial<Record<string, typeof Grasses>>> = {
  grasses: Grasses,
  'soil-tests': SoilTests,
  'soil-and-water': SoilAndWater,
};

/** Every table that a rate rests on, with its source, to be checked against one's own. */
export function Tables() {
  const { part } = useParams();
  const chosen = subjects.find(({ name }) => name === part) ?? subjects[0]!;
  const tables = referenceTables.filter(({ subject }) => subject === chosen.subject);
  const Drawn = drawn[chosen.name];
  return (
    <PartsPage of="Tables" label="Tables" base="/tables" parts={subjects} chosen={chosen}>
      {Drawn ? <Drawn tables={tables} /> : tables.map((table) => <PublishedTable key={table.title} table={table} />)}
      <Typography sx={{ borderLeft: `3px solid ${colours.ochre}`, pl: 1.5, maxWidth: 820, fontSize: '0.92rem' }}>
        General tables. The label, the local rule and your own laboratory’s table win over any number here.
      </Typography>
    </PartsPage>
  );
}
