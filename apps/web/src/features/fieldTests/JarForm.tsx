import { type JarShares, jarNext, jarSpread } from '@glenfold/agronomy';
import { Box, Button, Typography } from '@mui/material';
import { TextureTriangle } from '../../ui/TextureTriangle.tsx';
import { colours } from '../../ui/theme.ts';
import { useNow } from './DrainageForm.tsx';
import { alarmFor } from './alarm.ts';
import { type FormProps, LengthField } from './fields.tsx';

/** Soil in a jar: shaken, and read as it settles. */
export function JarForm({ record, onChange, site, zone }: FormProps & { readonly site: string; readonly zone: string }) {
  const now = useNow();
  const shakenAt = record.shakenAt as string | undefined;
  const next = shakenAt ? jarNext(shakenAt, now) : undefined;
  const { sandHeight: sand, siltHeight: silt, clayHeight: clay } = record as Readonly<Record<string, number | string | undefined>>;
  const heights: JarShares | undefined =
    typeof sand === 'number' && typeof silt === 'number' && typeof clay === 'number' && sand + silt + clay > 0
      ? { sand, silt, clay }
      : undefined;
  return (
    <>
      {next ? (
        <Box role="status" sx={{ borderLeft: `5px solid ${colours.slate}`, pl: 1.5 }}>
          <Typography sx={{ fontSize: '1.1rem', fontWeight: 700 }}>{next.words}</Typography>
          {Date.parse(next.at) > Date.parse(now) && (
            <Button size="small" onClick={() => alarmFor(`Mark the ${next.layer} in the jar, ${zone}`, next.at, site)}>
              Alarm for it in my calendar
            </Button>
          )}
        </Box>
      ) : (
        <Button variant="outlined" sx={{ minHeight: 52 }} onClick={() => onChange({ shakenAt: new Date().toISOString() })}>
          Shaken and put down just now
        </Button>
      )}
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr 1fr', gap: 1 }}>
        <LengthField name="sandHeight" label="Sand, high" record={record} onChange={onChange} />
        <LengthField name="siltHeight" label="Silt, high" record={record} onChange={onChange} />
        <LengthField name="clayHeight" label="Clay, high" record={record} onChange={onChange} />
      </Box>
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
        <LengthField name="depthFrom" label="Layer from" record={record} onChange={onChange} />
        <LengthField name="depthTo" label="Layer to" record={record} onChange={onChange} />
      </Box>
      {heights && <TextureTriangle spread={jarSpread(heights).points} />}
    </>
  );
} // prettier-ignore
