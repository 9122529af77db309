// The arrows of the house: contract and core know nothing of server or web, and a step keeps out of another's insides.
const rooms = ['ground', 'catalogue', 'sampling', 'lab', 'rates', 'report', 'rounds', 'exchange', 'demo'];
const laterThan = rooms.slice(0, -1).map((room, index) => ({
  name: `${room}-not-into-what-comes-later`,
  severity: 'error',
  from: { path: `^apps/server/src/${room}/` },
  to: { path: `^apps/server/src/(${rooms.slice(index + 1).join('|')})/` },
}));

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
    // An earlier step does not lean on a later one.
    ...laterThan,
    {
      name: 'ui-knows-no-feature',
      severity: 'error',
      from: { path: '^apps/web/src/(ui|api)/' },
      to: { path: '^apps/web/src/(features|frame)/' },
    },
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
