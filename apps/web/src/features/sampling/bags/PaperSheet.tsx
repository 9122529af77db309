import { writeBagCode } from '@glenfold/agronomy';
import { type BagAnswer, type CoreTapInput, type ZoneAnswer, skipReasons } from '@glenfold/contract';
import { Box, MenuItem, TextField, Typography } from '@mui/material';
import { useState } from 'react';
import { FormDialog } from '../../../ui/FormDialog.tsx';
import { QuantityField } from '../../../ui/QuantityField.tsx';
import { colours } from '../../../ui/theme.ts';
import { deviceToday } from '../../../ui/today.ts';
import { useUnits } from '../../../ui/units.tsx';
import { useBookSheet } from '../api.ts';

/** What the sheet says of a core, where it is not as planned. */
interface Line {
  readonly reason?: string;
  /** cm; a text is no depth yet. */
  readonly pushed?: number | string | null;
  readonly recovered?: number | string | null;
}

type Core = BagAnswer['places'][number];

/** A core as it is booked: taken as planned unless the sheet says otherwise. */
export function bookedCore(core: Core, line: Line, depth: number, at: string): CoreTapInput {
  const { reason, pushed, recovered } = line;
  const length = (value: Line['pushed'], otherwise: number): number => (typeof value === 'number' ? value : otherwise);
  const reached = length(pushed, depth);
  return {
    ...{ id: crypto.randomUUID(), coreId: core.id, at },
    ...(reason
      ? { state: 'skipped' as const, reason }
      : { state: 'cored' as const, pushed: reached, recovered: length(recovered, reached) }),
  };
}

interface PaperSheetProps {
  /** Planned bags, each with cores that wait. */
  readonly bags: readonly BagAnswer[];
  readonly zones: readonly Pick<ZoneAnswer, 'id' | 'name'>[];
  readonly onClose: () => void;
}

/** A field sheet that was filled in by hand, booked in one go: only what differs from the plan is typed. */
export function PaperSheet({ bags, zones, onClose }: PaperSheetProps) {
  const { say } = useUnits();
  const [chosen, setChosen] = useState(bags[0]);
  const [on, setOn] = useState(deviceToday());
  const [lines, setLines] = useState<Readonly<Record<string, Line>>>({});
  const book = useBookSheet();
  // Once it is booked the chosen bag waits no longer: what was said of it is read before another is chosen.
  const bag = bags.find(({ id }) => id === chosen?.id) ?? chosen;
  const waiting = (bag?.places ?? []).filter(({ state }) => state === 'waiting');
  const listed = bag && !bags.includes(bag) ? [bag, ...bags] : bags;
  const lineOf = (core: Core): Line => lines[core.id] ?? {};
  const set = (core: Core, change: Line): void => setLines({ ...lines, [core.id]: { ...lineOf(core), ...change } });
  const taken = waiting.filter((core) => !lineOf(core).reason).length;
  const [said, setSaid] = useState<readonly string[]>([]);
  const problemOf = (value: Line['pushed']): string | undefined =>
    typeof value === 'string' ? `“${value}” is no depth: type 4 in or 10 cm.` : undefined;
  const save = (): void => {
    if (!bag || waiting.length === 0 || waiting.some((core) => problemOf(lineOf(core).pushed) ?? problemOf(lineOf(core).recovered))) return;
    // Of a day that is over nobody knows the hour: noon of it.
    const at = (on === deviceToday() ? new Date() : new Date(`${on}T12:00:00`)).toISOString();
    book.mutate(waiting.map((core) => bookedCore(core, lineOf(core), bag.depth, at)) , {
      // What the server said of one of them is read before the sheet goes.
      onSuccess: (words) => (words.length > 0 ? setSaid(words) : onClose()),
    });
  };
  return (
    <FormDialog
      title="A field sheet came back"
      action={`Book ${waiting.length} ${waiting.length === 1 ? 'core' : 'cores'}`}
      wide
      onClose={onClose}
      onSave={save}
      saving={book}
      byField={false}
    >
      <Box sx={{ display: 'grid', gridTemplateColumns: { sm: '1fr 180px' }, gap: 2 }}>
        <TextField select label="Bag" value={bag?.id ?? ''} onChange={(event) => setChosen(bags.find(({ id }) => id === event.target.value))}>
          {listed.map(({ id, code, zoneNames }) => (
            <MenuItem key={id} value={id}>{`${writeBagCode(code)}, ${zoneNames.join(', ')}`}</MenuItem>
          ))}
        </TextField>
        <TextField type="date" label="Taken on" value={on} onChange={(event) => setOn(event.target.value)} slotProps={{ inputLabel: { shrink: true }, htmlInput: { max: deviceToday() } }} />
      </Box>
      <Typography>
        {`All are booked as taken, ${say('depth', bag?.depth ?? 0)} deep and whole: write down only what was otherwise.`}
      </Typography>
      <Box role="table" aria-label="Cores of the sheet" sx={{ maxHeight: 420, overflowY: 'auto', borderTop: `1px solid ${colours.faded}` }}>
        {waiting.map((core) => {
          const line = lineOf(core);
          const name = `Core ${core.number}`;
          return (
            <Box role="row" aria-label={name} key={core.id} sx={{ display: 'grid', gridTemplateColumns: { xs: '1fr 1fr', sm: '130px 190px 1fr 1fr' }, gap: 1, alignItems: 'center', borderBottom: `1px solid ${colours.line}`, py: 0.75, opacity: line.reason ? 0.7 : 1 }}>
              <Box role="cell">
                <strong>{name}</strong>
                <Box sx={{ fontSize: '0.88rem', color: colours.faded }}>{zones.find(({ id }) => id === core.zoneId)?.name}</Box>
              </Box>
              <Box role="cell">
                <TextField select size="small" fullWidth value={line.reason ?? ''} onChange={(event) => set(core, { reason: event.target.value })} slotProps={{ select: { displayEmpty: true }, htmlInput: { 'aria-label': `${name}: taken or not` } }}>
                  <MenuItem value="">taken</MenuItem>
                  {skipReasons.map((reason) => (
                    <MenuItem key={reason} value={reason}>{`left out: ${reason}`}</MenuItem>
                  ))}
                </TextField>
              </Box>
              <Box role="cell">{!line.reason && <QuantityField size="small" sense="depth" label={`${name} pushed to`} value={line.pushed ?? null} problem={problemOf(line.pushed)} onChange={(pushed) => set(core, { pushed })} fullWidth />}</Box>
              <Box role="cell">{!line.reason && <QuantityField size="small" sense="depth" label={`${name} came up`} value={line.recovered ?? null} problem={problemOf(line.recovered)} onChange={(recovered) => set(core, { recovered })} fullWidth />}</Box>
            </Box>
          );
        })}
      </Box>
      {said.map((words) => (
        <Typography key={words} role="alert" sx={{ color: colours.ochre, fontWeight: 700 }}>
          {words}
        </Typography>
      ))}
      <Typography role="status">{`${taken} taken, ${waiting.length - taken} left out.`}</Typography>
    </FormDialog>
  );
} // prettier-ignore
