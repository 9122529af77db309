// Before each test file: properties are tried on the same cases every time, so that no run fails by chance.
// FC_SEED=random npm test -- unit looks for new ones; any other number tries its own.
import fc from 'fast-check';

const { FC_SEED } = process.env;
if (FC_SEED !== 'random') fc.configureGlobal({ seed: Number(FC_SEED ?? 20261126) });
