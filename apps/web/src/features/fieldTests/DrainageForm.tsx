import { type DrainageRecord, drainageNext, present } from '@glenfold/agronomy';
import { Box, Button, Typography } from '@mui/material';
import { useEffect, useState } from 'react';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';
import { alarmFor } from './alarm.ts';
import { DrainageChart } from './DrainageChart.tsx';
import { AddNumber, type FormProps, LengthField, ReadList } from './fields.tsx';

const clock = (at: string): string =>
  new Date(at).toLocaleTimeString([], { hour: '2-digit', minute: '2-digit', weekday: 'short' });

/** The moment, told anew each half minute. */
export function useNow(): string {
  const [now, setNow] = useState(() => new Date().toISOString());
  useEffect(() => {
    const timer = setInterval(() => setNow(new Date().toISOString()), 30_000);
    return () => clearInterval(timer);
  }, []);
  return now;
}

interface DrainageProps extends FormProps {
  readonly site: string;
  readonly zone: string;
  readonly closed: boolean;
}

/** A hole that empties: soak, fill, read when it is time. */
export function DrainageForm({ record, onChange, site, zone, closed }: DrainageProps) {
  const now = useNow();
  const { system, say } = useUnits();
  const hole = record as unknown as DrainageRecord;
  const { readings, soakedAt, filledAt } = hole;
  const next = drainageNext(hole, now);
  const late = next.at !== null && Date.parse(next.at) < Date.parse(now);
  const read = (depthBelowStick: number): void =>
    onChange({
      readings: [...readings, { at: new Date().toISOString(), depthBelowStick }],
      ...(filledAt ? {} : { filledAt: new Date().toISOString() }),
    });
  return (
    <>
      <Box
        role="status"
        aria-label="What comes next"
        sx={{
          borderLeft: `5px solid ${next.what === 'done' ? colours.lichen : late ? colours.ochre : colours.slate}`,
          pl: 1.5,
          py: 0.5,
        }}
      >
        <Typography sx={{ fontSize: '1.15rem', fontWeight: 700, lineHeight: 1.3 }}>{next.words}</Typography>
        {next.at !== null && !late && next.what !== 'done' && !closed && (
          <Button
            size="small"
            onClick={() =>
              alarmFor(next.what === 'fill' ? `Fill the hole again, ${zone}` : `Read the hole, ${zone}`, next.at!, site)
            }
          >
            Alarm for {clock(next.at)} in my calendar
          </Button>
        )}
      </Box>
      {!closed && next.what === 'soak' && (
        <Button
          variant="contained"
          size="large"
          sx={{ minHeight: 56 }}
          onClick={() => onChange({ soakedAt: new Date().toISOString() })}
        >
          Filled for the night
        </Button>
      )}
      {!closed && readings.length === 0 && (
        <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr 1fr', gap: 1 }}>
          <LengthField name="holeDepth" label="Hole, deep" record={record} onChange={onChange} />
          <LengthField name="holeDiameter" label="Hole, wide" record={record} onChange={onChange} />
          <LengthField name="stickHeight" label="Stick above" record={record} onChange={onChange} />
        </Box>
      )}
      <ReadList
        label="Reading"
        list={readings}
        onRemove={(index) => onChange({ readings: readings.filter((_, other) => other !== index) })}
        tell={({ at, depthBelowStick }, index) => {
          const before = readings[index - 1];
          const rate =
            before && Date.parse(at) > Date.parse(before.at)
              ? ((depthBelowStick - before.depthBelowStick) * 10) / ((Date.parse(at) - Date.parse(before.at)) / 3_600_000)
              : undefined;
          return `${clock(at)}: ${depthBelowStick === 0 ? 'at the stick' : present('depth', depthBelowStick, system).text}${rate === undefined ? '' : `, ${say('rate', rate)}`}`;
        }}
      >
        {!closed && (
          <AddNumber label="From the stick down to the water" sense="depth" action="Read now" onAdd={read} />
        )}
      </ReadList>
      {readings.length > 1 && <DrainageChart hole={hole} />}
      {soakedAt && readings.length === 0 && (
        <Typography sx={{ color: colours.faded }}>Soaked {clock(soakedAt)}.</Typography>
      )}
    </>
  );
} // prettier-ignore
