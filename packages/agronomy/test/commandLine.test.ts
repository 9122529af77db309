import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { calculators } from '../src/index.ts';

const runner = resolve(import.meta.dirname, '../bin/run.mjs');
const run = (args: readonly string[], input = '', cwd = tmpdir()) =>
  spawnSync(process.execPath, [runner, ...args], {
    encoding: 'utf8',
    input,
    cwd,
    env: { ...process.env, INIT_CWD: cwd, NODE_OPTIONS: '' },
  });

describe('calc', () => {
  it('prints result and working as one line of JSON', () => {
    const input = { soilPh: 5.6, bufferPh: 6.4, targetPh: 6.5, depth: '8 in' };
    const { status, stdout, stderr } = run(['calc', 'lime.smp'], JSON.stringify(input));
    expect([status, stderr, stdout.trim().split('\n').length]).toEqual([0, '', 1]);
    const { result, working } = JSON.parse(stdout) as {
      result: { requirement: number; assumedEffectiveness: number };
      working: object[];
    };
    // 4.72 short tons an acre, by the factor of the handbook.
    expect(result.requirement).toBeCloseTo(4.72 * 224.17, 0);
    expect(result.assumedEffectiveness).toBe(65);
    expect(working[0]).toEqual(
      expect.objectContaining({
        kind: 'step',
        label: 'Lime test index',
        formula: 'LTI = 10 × buffer pH',
        numbers: '10 × 6.4',
        result: 64,
      }) as object,
    );
  });

  it('lists every calculator with inputs, units, outputs and source', () => {
    const { status, stdout } = run(['calc', '--list']);
    expect(status).toBe(0);
    for (const [name, { inputs, source }] of calculators) {
      const entry = stdout.split('\n\n').find((part) => part.startsWith(`${name}:`))!;
      for (const input of Object.keys(inputs)) expect(entry).toContain(`in   ${input}: `);
      expect(entry).toContain(`from ${source}`);
    }
  });

  it.each([
    [
      'an impossible pH',
      'lime.smp',
      '{"soilPh": 15, "bufferPh": 6.4, "targetPh": 6.5, "depth": 20}',
      /^soilPh was given 15; wanted 2.5 to 11/,
    ],
    [
      'a wrong dimension',
      'lime.smp',
      '{"soilPh": 5, "bufferPh": 6.4, "targetPh": 6.5, "depth": "8 lb"}',
      /^depth was given "8 lb", which is in lb, but a length/,
    ],
    ['a missing field', 'lime.program', '{"effectiveness": 90, "surface": "turf"}', /^requirement was given nothing/],
    [
      'a word that is none of the list',
      'lime.program',
      '{"requirement": 9, "effectiveness": 90, "surface": "roof"}',
      /^surface was given "roof"; wanted one of turf, fine turf, seedbed/,
    ],
    ['no object', 'texture.class', '[1, 2]', /^input was given \[1,2\]; wanted an object with sand, silt, clay/],
    ['broken JSON', 'texture.class', '{sand: 1}', /^input is not JSON/],
    ['an unknown calculator', 'lime.habit', '{}', /^calculator was given "lime.habit"; known are area.polygon/],
    ['nothing at all', '', '', /^calculator was given/],
  ])('exits 2 with one line for %s', (_name, calculator, input, message) => {
    const { status, stdout, stderr } = run(['calc', calculator].filter(Boolean), input);
    expect([status, stdout, stderr.trim().split('\n').length]).toEqual([2, '', 1]);
    expect(stderr).toMatch(message);
  });
});

describe('cases', () => {
  const folder = mkdtempSync(join(tmpdir(), 'cases-'));
  afterAll(() => rmSync(folder, { recursive: true }));
  const file = (name: string, content: unknown): string => {
    writeFileSync(join(folder, name), typeof content === 'string' ? content : JSON.stringify(content));
    return name;
  };
  const volume = (expected: unknown, tolerance?: object) => ({
    calculator: 'organic.volume',
    name: `is ${String(expected)}`,
    input: { area: 10, thickness: 10 },
    expect: { volume: expected },
    ...(tolerance ? { tolerance } : {}),
  });

  it('passes what is right, in the unit it is written in, by file or tolerance of each output', () => {
    const name = file('right.json', {
      source: 'geometry',
      cases: [
        volume(1),
        volume('1000 L'),
        volume('1.31 yd3'),
        volume(1.04, { abs: 0.05 }),
        volume(1.2, { volume: { rel: 0.2 } }),
      ],
    });
    const { status, stdout } = run(['cases', name], '', folder);
    expect([status, stdout.trim().split('\n').at(-1)]).toEqual([0, '5 passed, 0 failed']);
  });

  it('exits 1 when one fails, naming what came out', () => {
    const name = file('wrong.json', {
      source: 'geometry',
      cases: [volume(1), volume(2), { ...volume(1), input: { area: -1, thickness: 1 } }],
    });
    const { status, stdout } = run(['cases', name], '', folder);
    expect(status).toBe(1);
    expect(stdout).toContain('FAIL organic.volume: is 2: volume is 1 m3, expected 2 ± 1 %');
    expect(stdout).toContain('refused: area was given -1');
    expect(stdout.trim().split('\n').at(-1)).toBe('1 passed, 2 failed');
  });

  it.each([
    ['that is not there', 'absent.json', undefined],
    ['that is not JSON', 'text.json', 'lime'],
    ['without cases', 'none.json', { source: 'x' }],
  ])('exits 1 for a file %s', (_name, name, content) => {
    if (content !== undefined) file(name, content);
    const { status, stdout } = run(['cases', name], '', folder);
    expect([status, stdout]).toEqual([1, expect.stringContaining(`FAIL ${name}: cannot be read`)]);
  });
});
