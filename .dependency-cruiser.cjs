// The arrows of the house: contract and core know nothing of server or web, and a step keeps out of another's insides.
const houses = {
  'packages/agronomy/src': [
    ...['working', 'units', 'data', 'calculators', 'analytes', 'ground', 'geometry', 'sampling', 'soil', 'water'],
    ...[
      'organic',
      'spread',
      'acidify',
      'lime',
      'nutrients',
      'materials',
      'season',
      'forecast',
      'ledger',
      'seed',
      'lab',
      'settings',
      'rules',
      'reading',
      'evidence',
      'trouble',
      'rates',
      'remedies',
      'program',
      'jobs',
      'advice',
    ],
    ...['tables', 'registry'],
  ],
  'apps/server/src': [
    ...[
      'platform',
      'ports',
      'audit',
      'steps',
      'sites',
      'people',
      'runs',
      'settings',
      'measurements',
      'entries',
      'ground',
      'materials',
      'machines',
      'laboratories',
      'sampling',
      'lab',
      'rates',
      'season',
      'logbook',
      'proof',
      'report',
    ],
    ...['rounds', 'standins', 'exchange', 'demo'],
  ],
  'apps/web/src': ['api', 'offline', 'position', 'ui', 'features', 'frame'],
};

/** Rooms in the order in which they are built: what comes earlier knows nothing of what comes later, nor of what wires them. */
const inOrder = Object.entries(houses).flatMap(([house, rooms]) => [
  ...rooms.map((room, index) => ({
    name: `${room}-not-into-what-comes-later`,
    severity: 'error',
    from: { path: `^${house}/${room}/` },
    to: { path: `^${house}/(${[...rooms.slice(index + 1).map((later) => `${later}/`), '[^/]+$'].join('|')})` },
  })),
  {
    name: `every-room-of-${house.replaceAll('/', '-')}-has-its-place`,
    severity: 'error',
    comment: 'A new room is put into the order above.',
    from: { path: `^${house}/(?!(${[...rooms, 'migrations'].join('|')})/)[^/]+/` },
    to: {},
  },
]);

module.exports = {
  forbidden: [
    { name: 'no-circular', severity: 'error', from: {}, to: { circular: true } },
    {
      name: 'core-stands-alone',
      severity: 'error',
      comment: 'The core imports nothing but itself, geodesy and plane geometry.',
      from: { path: '^packages/agronomy/src' },
      to: { pathNot: ['^packages/agronomy/src', 'geographiclib-geodesic', 'jsts', 'delaunator'] },
    },
    {
      name: 'contract-knows-core-only',
      severity: 'error',
      from: { path: '^packages/contract' },
      to: { path: '^apps/' },
    },
    { name: 'server-not-into-web', severity: 'error', from: { path: '^apps/server' }, to: { path: '^apps/web' } },
    { name: 'web-not-into-server', severity: 'error', from: { path: '^apps/web' }, to: { path: '^apps/server' } },
    ...inOrder,
    {
      name: 'features-keep-apart',
      severity: 'error',
      comment: 'Shared pieces go to ui/.',
      from: { path: '^apps/web/src/features/([^/]+)/' },
      to: { path: '^apps/web/src/features/', pathNot: '^apps/web/src/features/$1/' },
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)(dist|node_modules/@types)/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.base.json' },
    enhancedResolveOptions: {
      exportsFields: ['exports'],
      conditionNames: ['glenfold-source', 'import', 'require', 'node', 'default', 'types'],
      extensions: ['.ts', '.tsx', '.js', '.mjs', '.cjs', '.json', '.d.ts'],
    },
  },
};
