import { type UnitSystem, present, writeBagCode } from '@glenfold/agronomy';
import { Plane } from '@glenfold/agronomy/plan';
import { type BagAnswer, type GroundPlanAnswer, colours } from '@glenfold/contract';
import type { Content } from 'pdfmake/interfaces.js';
import { planSheet, sheetSize } from '../ground/planSheet.ts';
import { bytesOf, cell, head, plain, rules } from '../platform/paper.ts';

const checks = [
  'Clean plastic bucket',
  'Buried lines marked',
  'Soil not wet, not frozen',
  'Mulch, thatch and stones pushed aside',
  'Every core to the same depth',
];

/** The planned cores on the plan, and under it a list for each bag to write on: a walk without a device. */
export function fieldSheetPdf(
  site: { readonly name: string; readonly place: string | null },
  plan: GroundPlanAnswer,
  bags: readonly BagAnswer[],
  by: string,
  units: UnitSystem,
): Promise<Buffer> {
  const cores = bags
    .flatMap(({ code, places }) => places.map((core) => ({ ...core, code })))
    .sort((one, other) => one.turn - other.turn);
  const placed = cores.flatMap(({ place, turn }) => (place ? [{ at: place, text: `${turn}` }] : []));
  const gate = plan.features.find(({ kind }) => kind === 'gate')?.geometry.coordinates as number[] | undefined;
  const begin = gate ?? placed[0]?.at;
  const { svg } = planSheet(site, plan, `${by}. Cores are numbered as they are walked.`, units, {
    title: 'field sheet',
    places: placed,
    way: begin ? [begin, ...placed.map(({ at }) => at), begin] : [],
  });
  const { width, height } = sheetSize(units);
  const plane = begin ? new Plane([begin[0]!, begin[1]!]) : null;
  const length = (metres: number): string => present('length', Math.abs(metres), units).text;
  const where = (place: readonly number[] | null): string => {
    if (!place || !plane) return 'walk a Z';
    const [east, north] = plane.toPlane([place[0]!, place[1]!]);
    return `${length(north)} ${north < 0 ? 'S' : 'N'}, ${length(east)} ${east < 0 ? 'W' : 'E'}`;
  };
  const lists = bags.map((bag): Content[] => [
    {
      text: `Bag ${writeBagCode(bag.code)}: ${plain(bag.zoneNames.join(', '))}`,
      font: 'Bitter',
      fontSize: 14,
      margin: [0, 0, 0, 2],
      pageBreak: 'before',
    },
    {
      text: `${bag.cores} cores to ${present('depth', bag.depth, units).text}, ${bag.purpose}. ${gate ? 'Places from the gate.' : 'Places from the first core.'}    ${checks.map((check) => `[  ] ${check}`).join('   ')}`,
      margin: [0, 0, 0, 6],
      fontSize: 9,
    },
    {
      layout: { ...rules, vLineWidth: () => 0.3, vLineColor: () => colours.line, paddingTop: () => 4, paddingBottom: () => 4 }, // prettier-ignore
      table: {
        headerRows: 1,
        widths: [30, 30, 130, 84, 74, 74, '*'],
        body: [
          ['Walk', 'Core', 'Place', 'Lat, long', 'Pushed to', 'Came up', 'Moisture, note'].map(head),
          ...bag.places.map(({ turn, number, place }) => [
            cell(`${turn}`),
            cell(`${number}`),
            cell(where(place)),
            cell(place ? `${place[1].toFixed(5)}, ${place[0].toFixed(5)}` : '', { fontSize: 7.5 }),
            ...['', '', ''].map((text) => cell(text)),
          ]),
        ],
      },
    },
  ]);
  return bytesOf({
    info: { title: `${site.name}: field sheet` },
    pageSize: { width, height },
    pageMargins: [36, 36, 36, 36],
    defaultStyle: { font: 'Atkinson', fontSize: 10, color: colours.ink },
    content: [{ svg, width, absolutePosition: { x: 0, y: 0 } }, { text: ' ' }, ...lists.flat()],
  });
}
