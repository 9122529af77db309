import fc from 'fast-check';
import { linesOf, zonesOf } from '../src/features/ground/zoneList.ts';

const told = { siteName: 'Quarry Lane', labels: [], areaUnit: 'm2', grass: 'tall fescue' } as const;

describe('zones from a list', () => {
  it('are read from a spreadsheet, a message or a file, with or without a first line of headings', () => {
    const wanted = [
      ['Terrace 1', 60, 'fine fescue', 'QL-1'],
      ['Terrace 2', 1250, 'tall fescue', 'QL-2'],
    ];
    for (const text of [
      'Name\tArea\tGrass\nTerrace 1\t60\tfine fescue\nTerrace 2\t1250 m2\t',
      'Terrace 1; 60; fine fescues\r\n\r\nTerrace 2; 1250',
      'Terrace 1, 60 m2, Fine fescue\nTerrace 2, 1,250.0',
    ]) {
      const { zones, problems } = zonesOf(linesOf(text), told);
      expect([...problems]).toEqual([]);
      expect(zones.map(({ name, area, grass, label }) => [name, area, grass, label])).toEqual(wanted);
    }
  });

  it('take any unit of area, and go on with the site’s own labels', () => {
    const lines = linesOf('A\t0.1 ac\nB\t40 m2\nC\t100');
    const { zones } = zonesOf(lines, { ...told, areaUnit: 'ft2', labels: ['GR-1', 'GR-3'] });
    expect(zones.map(({ area }) => area)).toEqual(
      [404.686, 40, 9.290304].map((area) => expect.closeTo(area, 2) as number),
    );
    expect(zones.map(({ label }) => label)).toEqual(['GR-2', 'GR-4', 'GR-5']);
  });

  it('make a garden bed of vegetables, which has no grass', () => {
    const { zones } = zonesOf(linesOf('Plot\t60\tvegetable bed'.replace('Plot', 'Patch')), told);
    expect(zones[0]).toMatchObject({ grass: null, surface: 'garden bed' });
  });

  it.each([
    ['\t60', /name/],
    ['Yard', /area is missing/],
    ['Yard\tbig', /big|number/i],
    ['Yard\t0.2', /outside 1 to/],
    ['Yard\t60\tmoss', /“moss” is no grass/],
  ])('say what is wrong with %j, and add nothing of it', (text, message) => {
    const { zones, problems } = zonesOf(
      [
        { name: '', area: '', grass: '' },
        ...linesOf(`x\n${text}`)
          .slice(1)
          .map((line) => line),
      ],
      told,
    );
    const line = text.startsWith('\t') ? { name: '', area: '60', grass: '' } : linesOf(text)[0]!;
    const again = zonesOf([line], told);
    expect(again.zones).toEqual([]);
    expect(again.problems.get(0)).toMatch(message);
    expect(zones.length + problems.size).toBeLessThanOrEqual(1);
  });

  it('give every zone a label of its own, however many there are', () => {
    fc.assert(
      fc.property(
        fc.array(fc.string({ maxLength: 8 }), { maxLength: 40 }),
        fc.integer({ min: 1, max: 60 }),
        fc.string({ maxLength: 12 }),
        (labels, count, siteName) => {
          const lines = Array.from({ length: count }, (_, at) => ({ name: `Z${at}`, area: '50', grass: '' }));
          const { zones } = zonesOf(lines, { ...told, labels, siteName });
          const all = [
            ...zones.map(({ label }) => label.toLowerCase()),
            ...new Set(labels.map((label) => label.toLowerCase())),
          ];
          expect(new Set(all).size).toBe(all.length);
          expect(zones.every(({ label }) => label.length >= 1 && label.length <= 24)).toBe(true);
        },
      ),
    );
  });
});
