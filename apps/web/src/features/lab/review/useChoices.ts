import type { ColumnMatch } from '@glenfold/agronomy';
import type { LabReportAnswer, LabReportChoices, RowDecision } from '@glenfold/contract';
import { useEffect, useRef } from 'react';
import { useCorrectLabFile } from '../api.ts';

/** A column as it is sent: its header stays with the file. */
const columnChoice = ({ field, unit, basis, method, limit, advised }: ColumnMatch) => ({
  ...{ field, unit, basis, method: method ?? null, limit: limit ?? null, advised: advised ?? null },
});

function choicesOf(file: LabReportAnswer): LabReportChoices {
  return {
    columns: file.columns.map(columnChoice),
    // Only what the person set stays fixed; the rest is matched by label again.
    rows: file.rows.filter(({ zoneChosen }) => zoneChosen).map(({ line, zoneId, bagId }) => ({ line, zoneId, bagId })),
    decisions: file.rows.flatMap(({ line, state, corrected, row }): RowDecision[] =>
      state === null && corrected.length === 0
        ? []
        : [
            {
              ...{ line, state },
              values: Object.fromEntries(Object.entries(row.values).filter(([analyte]) => corrected.includes(analyte))),
            },
          ],
    ),
    ...{ extractant: file.extractant, bufferMethod: file.bufferMethod, limeFactor: file.limeFactor },
    ...{ depth: file.depth, dateOrder: file.dateOrder },
  };
}

/** What a person puts right of a file: each choice goes on from the one before, whether or not its answer is here yet. */
export function useChoices(file: LabReportAnswer) {
  const correct = useCorrectLabFile();
  const latest = useRef({ version: file.version, choices: choicesOf(file) });
  const underWay = useRef(0);
  useEffect(() => {
    // An answer to an earlier choice does not know of those that are under way.
    if (underWay.current === 0 && file.version > latest.current.version)
      latest.current = { version: file.version, choices: choicesOf(file) };
  }, [file]);
  const send = (change: Partial<LabReportChoices>): void => {
    const choices = { ...latest.current.choices, ...change };
    latest.current = { ...latest.current, choices };
    // A correction that is refused is not part of the next one.
    const onError = (): void => void (latest.current = { version: file.version, choices: choicesOf(file) });
    const onTheirs = (): void => void (latest.current = { ...latest.current, version: 0 });
    underWay.current += 1;
    void correct
      .mutateAsync({ seen: file, input: choices, onTheirs })
      .catch(onError)
      .finally(() => (underWay.current -= 1));
  };
  return {
    correct,
    send,
    column: (index: number, column: ColumnMatch): void =>
      send({
        columns: latest.current.choices.columns.map((entry, other) => (other === index ? columnChoice(column) : entry)),
      }),
    /** @param goal `zone ID` or `bag ID`; nowhere when empty. */
    place: (line: number, goal: string): void => {
      const [kind, id = null] = goal.split(' ');
      const choice = { line, zoneId: kind === 'zone' ? id : null, bagId: kind === 'bag' ? id : null };
      send({ rows: [...latest.current.choices.rows.filter((other) => other.line !== line), choice] });
    },
    decide: (lines: readonly number[], change: (before: RowDecision) => RowDecision): void => {
      const before = latest.current.choices.decisions ?? [];
      const changed = lines.map((line) => change(before.find((one) => one.line === line) ?? { line, state: null }));
      send({ decisions: [...before.filter(({ line }) => !lines.includes(line)), ...changed] });
    },
  };
}

export type Choices = ReturnType<typeof useChoices>;
