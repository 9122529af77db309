// Starts calc, cases, advise or scenarios from the TypeScript sources, so that they never lag behind them.
let tsx;
try {
  tsx = await import('tsx/esm/api');
} catch {
  process.stderr.write(
    'The packages are not installed yet: run "npm install" (or "npm start") once, then this again.\n',
  );
  process.exit(3);
}
const [name = ''] = process.argv.splice(2, 1);
tsx.register();
await import(`./${name}.ts`);
