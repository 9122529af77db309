import { capital } from '../units/capital.ts';
import { choice, optional, quantity } from '../calculators/fields.ts';
import { listOf, series, text } from '../calculators/structures.ts';
import { testLimits } from '../water/testLimits.ts';
import { waterRing } from '../water/ring.ts';
import { figure } from '../working/working.ts';
import { degreeOf } from './degree.ts';
import { depthText, fieldTest, median, note, nothingYet, oneStep, rateText } from './fieldTest.ts';

const cm = (max: number) => quantity('cm', { min: 0, max });
const SOURCE = testLimits.source;

export const smells = ['earth', 'nothing', 'sour', 'rotten eggs'] as const;
export const layerSoils = ['sand', 'loam', 'clay', 'gravel', 'rubble', 'peat'] as const;

const smellWords: Readonly<Record<(typeof smells)[number], string>> = {
  earth: 'It smells of earth: alive, with air in it.',
  nothing: 'It smells of nothing: little lives in it.',
  sour: 'It smells sour: short of air. Look for what holds the water before feeding.',
  'rotten eggs': 'It smells of rotten eggs: no air at all, water stands in it. Drainage comes first.',
};

/** A core or a spade’s block, looked at. */
export const coreTest = fieldTest({
  kind: 'core',
  title: 'Core inspection',
  about: 'Thatch, roots, layers, and whether the soil breathes.',
  tools: ['spade or a wide probe', 'ruler', 'knife', 'white tray'],
  steps: [
    'Cut a block a spade deep with one clean face, where the lawn looks as it mostly does.',
    'Press the thatch with a thumb and measure it; measure to where most roots end, not the longest one.',
    'Mark where colour or feel changes. Break a piece: crumbs are good, plates and sharp blocks are packed.',
    'Smell it at once. Count worms in a block a spade wide, deep and long. Look for rust spots and grey.',
  ],
  cautions: ['Have buried lines and irrigation marked before you push a spade in.'],
  fields: {
    thatch: optional(cm(15)),
    rootDepth: optional(cm(100)),
    mottlesFrom: optional(cm(150)),
    worms: optional(quantity('', { min: 0, max: 300, whole: true })),
    smell: optional(choice(smells)),
    layers: optional(
      listOf({ from: cm(150), to: quantity('cm', { above: 0, max: 150 }), soil: choice(layerSoils), words: optional(text(120)) }, 'layers', { min: 0, max: 10 }),
    ),
    note: note(),
  },
  judge: ({ thatch, rootDepth, mottlesFrom, worms, smell, layers = [] }, ground, units) => {
    const values = [
      ...(thatch === undefined ? [] : [{ analyte: 'thatch' as const, value: thatch }]),
      ...(rootDepth === undefined ? [] : [{ analyte: 'rootDepth' as const, value: rootDepth }]),
      ...(mottlesFrom === undefined ? [] : [{ analyte: 'mottlesFrom' as const, value: mottlesFrom }]),
      ...(worms === undefined ? [] : [{ analyte: 'worms' as const, value: worms }]),
    ];
    if (values.length === 0 && smell === undefined && layers.length === 0) return nothingYet;
    const thick = thatch === undefined ? undefined : degreeOf('thatch', { thatch, surface: ground.fineTurf ? 'fine turf' : 'turf' });
    const words = [
      ...(thatch === undefined ? [] : [thick === 'severe' ? `Thatch of ${depthText(thatch, units)}: water and lime stay in it. Dethatch and core before anything is spread.` : thick ? `Thatch of ${depthText(thatch, units)}: enough to hold back water. Core, and topdress.` : `Thatch of ${depthText(thatch, units)}: a cushion, no harm.`]),
      ...(rootDepth === undefined ? [] : [`Most roots end at ${depthText(rootDepth, units)}: that is how deep it drinks. Water to there and a little below, so that roots follow.`]),
      ...(mottlesFrom === undefined ? [] : [mottlesFrom < testLimits.mottles.wetAbove ? `Rust spots from ${depthText(mottlesFrom, units)}: water stands there for weeks of a year. A drainage hole tells what holds it.` : `Rust spots only from ${depthText(mottlesFrom, units)}: below what the roots need.`]),
      ...(smell === undefined ? [] : [smellWords[smell]]),
      ...(worms === undefined ? [] : [worms === 0 ? 'No worms: acid, wet, dry or poor; the test of the soil tells which.' : worms >= testLimits.worms.manyFrom ? `${worms} worms: they core it for nothing.` : `${worms} ${worms === 1 ? 'worm' : 'worms'}.`]),
      ...layers.slice(1).flatMap((layer, index) => {
        const above = layers[index]!;
        return above.soil !== layer.soil ? [`${capital(above.soil)} over ${layer.soil} at ${depthText(layer.from, units)}: water waits where soils change, whichever way.`] : [];
      }),
    ];
    const title = [thatch === undefined ? '' : `thatch ${depthText(thatch, units)}`, rootDepth === undefined ? '' : `roots to ${depthText(rootDepth, units)}`, smell === 'sour' ? 'smells sour' : smell === 'rotten eggs' ? 'smells of rotten eggs' : ''].filter(Boolean).join(', ');
    return { values, title: title === '' ? 'Looked at' : capital(title), words, working: [] };
  },
}); // prettier-ignore

/** A probe pushed with both hands, in several places. */
export const probeTest = fieldTest({
  kind: 'probe',
  title: 'Probe stop',
  about: 'How deep the ground is soft.',
  tools: ['pointed rod or soil probe with a handle'],
  steps: [
    'Wait until a day after rain: dry ground stops any probe.',
    'Push with both hands, steadily, until it stops. Note how deep. Where it does not stop, note the whole length.',
    'Do it in at least five places over the zone.',
  ],
  cautions: ['Have buried lines marked; stop at once where it rings on metal or stone.'],
  fields: {
    stops: series(cm(120), 'pushes', { min: 0, max: 60 }),
    /** How long the probe is: a push to its end did not stop. */
    length: optional(quantity('cm', { above: 0, max: 150 })),
    note: note(),
  },
  judge: ({ stops, length }, _ground, units) => {
    if (stops.length === 0) return nothingYet;
    const middle = median(stops);
    const stopped = length === undefined || middle < length - 0.5;
    const packed = stopped ? degreeOf('compaction', { probeStop: middle }) : undefined;
    const spread = Math.max(...stops) - Math.min(...stops);
    return {
      values: stopped ? [{ analyte: 'probeStop', value: middle }] : [],
      title: stopped ? `Stops at ${depthText(middle, units)}` : 'Does not stop',
      words: [
        stopped
          ? packed
            ? `The middle of ${stops.length} pushes is ${depthText(middle, units)}: ${packed === 'severe' ? 'packed hard' : 'packed'} where roots should be. Core it; on clay in spring or autumn, when it is moist.`
            : `The middle of ${stops.length} pushes is ${depthText(middle, units)}: deep enough for grass.`
          : 'It goes in to its end: not packed.',
        ...(spread > testLimits.probe.uneven
          ? [`From ${depthText(Math.min(...stops), units)} to ${depthText(Math.max(...stops), units)}: uneven. Treat the worst part by itself.`]
          : []),
        ...(stops.length < testLimits.probe.least ? [`Push in ${testLimits.probe.least} places or more before you decide.`] : []),
      ],
      working: oneStep({
        label: 'Where the probe stops',
        formula: 'middle of all pushes',
        numbers: `${stops.map(figure).join(', ')} cm`,
        result: middle,
        unit: 'cm',
      }),
    };
  },
}); // prettier-ignore

/** A ring that is kept filled. */
export const ringTest = fieldTest({
  kind: 'ring',
  title: 'Ring infiltration',
  about: 'How fast the soil takes in water, and so how long sprinklers may run.',
  tools: ['ring of 15 cm (6 in) or more, or a can without bottom', 'block of wood and hammer', 'ruler', 'watch', 'water'],
  steps: [
    'Cut the grass short and drive the ring in 5 cm (2 in), level.',
    'Lay a cloth in, pour water to a mark, pull the cloth out and start the watch.',
    'Note how far the water has gone down, and fill up to the mark again each time: add up all that went in.',
    'Go on until two readings take in at the same speed.',
  ],
  cautions: [],
  fields: {
    diameter: optional(quantity('cm', { above: 2, max: 200 })),
    readings: listOf({ time: quantity('min', { min: 0, max: 2880 }), infiltrated: quantity('mm', { min: 0, max: 5000 }) }, 'readings', { min: 0, max: 200 }),
    note: note(),
  },
  judge: ({ readings }, { sprinklerRate }, units) => {
    if (readings.filter(({ time }) => time > 0).length < 2) return nothingYet;
    const { result, working } = waterRing({ readings });
    const { steady } = result;
    const slow = steady < testLimits.ring.slowBelow;
    return {
      values: [{ analyte: 'infiltration', value: steady }],
      title: `Takes in ${rateText(steady, units)} once it is wet`,
      words: [
        slow ? 'Slowly: on a slope it runs off, on the flat it stands. Cycle and soak, and core it.' : 'As a lawn should.',
        sprinklerRate === undefined
          ? 'Set cups out to know whether your sprinklers give more than that.'
          : sprinklerRate > steady
            ? `Your sprinklers give ${rateText(sprinklerRate, units)}, more than it takes in: run them in cycles, with a pause to soak.`
            : `Your sprinklers give ${rateText(sprinklerRate, units)}: it takes that in without running off.`,
      ],
      working,
    };
  },
}); // prettier-ignore

const dropClasses = [
  ['slight', 'a little repellent', 'A wetting agent helps where it dries out first.'],
  ['strong', 'strongly repellent', 'Water runs off or goes down in fingers: a wetting agent, watered in, then water in short runs.'],
  ['severe', 'severely repellent', 'Core, then a wetting agent in two passes a week apart; water little and often until it wets again.'],
  ['extreme', 'extremely repellent', 'Core or slit it and bring a wetting agent in; what stays dry is better replaced at the top.'],
] as const; // prettier-ignore

/** Drops of water on dry soil. */
export const waterDropTest = fieldTest({
  kind: 'waterDrop',
  title: 'Water drop',
  about: 'Whether the ground sheds water.',
  tools: ['dropper or a straw', 'water', 'watch', 'knife'],
  steps: [
    'Take a core where it dries out first, and let it dry to the touch: damp soil hides it.',
    'Lay it on its side. Put a drop at the surface and one every two centimetres (an inch) down.',
    'Time how long each stands before it goes in. Note the longest.',
  ],
  cautions: [],
  fields: { seconds: series(quantity('s', { min: 0, max: 20_000 }), 'drops', { min: 0, max: 40 }), note: note() },
  judge: ({ seconds }) => {
    if (seconds.length === 0) return nothingYet;
    const middle = median(seconds);
    const { waterDrop } = testLimits;
    const found = dropClasses.filter(([name]) => middle >= waterDrop[name]).at(-1);
    return {
      values: [{ analyte: 'waterDrop', value: middle }],
      title: found ? capital(found[1]) : 'Takes water at once',
      words: [
        `The middle of ${seconds.length} ${seconds.length === 1 ? 'drop' : 'drops'} stood ${Math.round(middle)} s${found ? `: ${found[1]}` : ''}.`,
        found ? found[2] : 'A dry spot here has another cause: roots, sprinklers, stone below.',
      ],
      working: oneStep({
        label: 'Water drop penetration time',
        formula: `from ${waterDrop.slight} s slight, ${waterDrop.strong} strong, ${waterDrop.severe} severe, ${waterDrop.extreme} extreme`,
        numbers: `${seconds.map(figure).join(', ')} s`,
        result: middle,
        unit: 's',
        source: SOURCE,
      }),
    };
  },
}); // prettier-ignore

export const fizzes = ['none', 'weak', 'strong'] as const;

const ADVICE = 'live with the pH, feed by ammonium sulfate, iron when it yellows';
const fizzWords: Readonly<Record<(typeof fizzes)[number], string>> = {
  none: 'Sulfur can lower the pH here, in small steps.',
  weak: `No sulfur before a laboratory’s free carbonate tells how much lime there is: below half a percent small steps may be tried, from there on it changes nothing. Until then ${ADVICE}.`,
  strong: `Sulfur would be used up by the lime and change nothing: ${ADVICE}.`,
};

/** Acid on soil. */
export const fizzTest = fieldTest({
  kind: 'fizz',
  title: 'Fizz test',
  about: 'Whether there is free lime, which no sulfur can overcome.',
  tools: ['household vinegar, or dilute acid of 10 %', 'dropper', 'saucer', 'goggles for acid'],
  steps: [
    'Put a spoon of dry, crumbled soil in a saucer; pick out white shell and stone, and try them apart.',
    'Drop on enough to wet it, and listen close by.',
    'Nothing, a faint hiss, or foam: that is none, weak or strong.',
  ],
  cautions: ['Acid burns eyes and skin: wear goggles and gloves, add acid to soil and never near bleach. Vinegar is weaker, safer, and misses little lime.'],
  fields: { fizz: optional(choice(fizzes)), shells: optional(choice(['yes', 'no'])), note: note() },
  judge: ({ fizz, shells }) => {
    if (fizz === undefined) return nothingYet;
    return {
      values: [{ analyte: 'fizz', value: fizzes.indexOf(fizz) }],
      title: fizz === 'none' ? 'No free lime' : `Free lime: it fizzes ${fizz === 'weak' ? 'weakly' : 'strongly'}`,
      words: [
        fizzWords[fizz],
        ...(shells === 'yes' ? ['Shell and stone fizz by themselves: test the fine soil between them.'] : []),
      ],
      working: [],
    };
  },
}); // prettier-ignore
