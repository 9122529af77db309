import type { UnitSystem } from '../units/present.ts';
import { drainageTest } from './drainage.ts';
import { type AnyFieldTest, type FieldTestJudged, type FieldTestKind, type TestedGround, fieldTestKinds } from './fieldTest.ts'; // prettier-ignore
import { coreTest, fizzTest, probeTest, ringTest, waterDropTest } from './handTests.ts';
import { jarTest } from './jarTest.ts';
import { catchCupsTest, coverTest, soilMoistureTest, soilTemperatureTest, wateringDepthTest } from './probeTests.ts';

/** Every test by its kind. */
export const fieldTestOf: Readonly<Record<FieldTestKind, AnyFieldTest>> = {
  ...{ drainage: drainageTest, jar: jarTest, core: coreTest, probe: probeTest, ring: ringTest },
  ...{ waterDrop: waterDropTest, fizz: fizzTest, soilTemperature: soilTemperatureTest },
  ...{ soilMoisture: soilMoistureTest, catchCups: catchCupsTest, wateringDepth: wateringDepthTest, cover: coverTest },
};

export const isFieldTestKind = (kind: string): kind is FieldTestKind =>
  (fieldTestKinds as readonly string[]).includes(kind);

/**
 * What a record of a test says, as far as it is done.
 *
 * @param record as the test's fields take it: lengths cm, rates mm/h, moments ISO 8601.
 * @throws {InputError} naming the field of a record that cannot be.
 */
export const judgeFieldTest = (
  kind: FieldTestKind,
  record: unknown,
  ground: TestedGround,
  units: UnitSystem,
): FieldTestJudged => fieldTestOf[kind].judge(record, ground, units);
