import type { QueryRunner } from 'typeorm';

const APP = 'glenfold_app';
const DOOR = 'glenfold_door';

/** The application's rights to a table of a practice (no real deleting), and row-level security by practice. */
export function wall(table: string): string {
  return `
    GRANT SELECT, INSERT, UPDATE ON "${table}" TO ${APP};
    ALTER TABLE "${table}" ENABLE ROW LEVEL SECURITY;
    CREATE POLICY "own" ON "${table}" TO ${APP}
      USING ("practiceId" = practice_at_work()) WITH CHECK ("practiceId" = practice_at_work());`;
}

/** The audit of each change of a row. What is loaded brings its own along, and does not ask row by row whether it does. */
export function audited(table: string): string {
  return `CREATE OR REPLACE TRIGGER "audited" AFTER INSERT OR UPDATE ON "${table}" FOR EACH ROW
    WHEN (current_setting('glenfold.loading', true) IS DISTINCT FROM 'on') EXECUTE FUNCTION audit_change();`;
}

/** What every table of practices' records has: the wall, and the audit of each change. */
export function protect(table: string): string {
  return `${wall(table)}
    ${audited(table)}`;
}

/** Lets the door, which finds out who is asking, into a table; across practices, since none is known yet. */
export function openToDoor(table: string, rights: string): string {
  return `
    GRANT ${rights} ON "${table}" TO ${DOOR};
    CREATE POLICY "door" ON "${table}" TO ${DOOR} USING (true) WITH CHECK (true);`;
}

/** What does not belong in the book of changes, since it would be kept twice: pictures, files, reports. */
export async function auditLeavesOut(runner: QueryRunner, from: string, to: string): Promise<void> {
  const [{ definition }] = (await runner.query(`SELECT pg_get_functiondef('audit_change'::regproc) AS definition`)) as [
    { readonly definition: string },
  ];
  await runner.query(definition.replace(from, to));
}
