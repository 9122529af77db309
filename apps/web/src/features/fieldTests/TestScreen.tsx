import type { TakenPhoto } from '../../ui/field/TakePhoto.tsx';
import { PendingOf } from './pending.ts';
import { type FieldTestJudged, InputError, fieldTestOf, findGrass, judgeFieldTest } from '@glenfold/agronomy';
import type { ZoneAnswer } from '@glenfold/contract';
import { Box, Button, TextField, Typography } from '@mui/material';
import { type ReactNode, useState } from 'react';
import { Cautions } from '../../ui/bits.tsx';
import { Words } from '../../ui/Words.tsx';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';
import { Entries } from '../../ui/working.tsx';
import { CoverForm } from './CoverForm.tsx';
import { DrainageForm } from './DrainageForm.tsx';
import { CoreForm, FizzForm, ProbeForm, RingForm, SensorForm, WaterDropForm } from './HandForms.tsx';
import { JarForm } from './JarForm.tsx';
import { TestDrawing } from './TestDrawing.tsx';
import { CupsForm, WateringForm } from './WaterForms.tsx';
import { type Draft, NoteField } from './fields.tsx';
import { TestPhotos } from './TestPhotos.tsx';
import type { KeptTest, PackedSite, TestEdit } from './testStore.ts';

/** What of a zone its tests are judged by, on the device. */
function groundOf({ facts, soilGroup, rootDepth, grass, surface, measured }: ZoneAnswer) {
  return {
    slope: facts.slope ?? undefined,
    soilGroup: soilGroup ?? undefined,
    rootDepth: rootDepth ?? undefined,
    season: grass ? findGrass(grass).season : undefined,
    fineTurf: surface === 'fine turf',
    sprinklerRate: measured.sprinklerRate?.value,
  };
}

type Judged = { readonly judged: FieldTestJudged } | { readonly fault: string };

function judgedOf(test: KeptTest, zone: ZoneAnswer, units: 'metric' | 'us'): Judged {
  try {
    return { judged: judgeFieldTest(test.kind, test.record, groundOf(zone), units) };
  } catch (error) {
    if (error instanceof InputError) return { fault: error.message };
    throw error;
  }
}

interface TestScreenProps {
  readonly test: KeptTest;
  readonly site: PackedSite;
  readonly zone: ZoneAnswer;
  readonly onChange: (edit: TestEdit) => void;
  readonly taken: readonly TakenPhoto[];
  readonly onPhoto: (photo: TakenPhoto) => Promise<void>;
  readonly onLeave: () => void;
  readonly onDrop: () => void;
}

/** One test: what comes next, what is read, what it says, and how it is done. */
export function TestScreen({ test: kept, site, zone, taken, onChange, onPhoto, onLeave, onDrop }: TestScreenProps) {
  const { system } = useUnits();
  const [working, setWorking] = useState(false);
  // What is typed stands here at once; on the device it is kept a moment later.
  const [test, setTest] = useState(kept);
  const edit = (how: TestEdit): void => {
    setTest((last) => ({ ...last, ...how(last) }));
    onChange(how);
  };
  const about = fieldTestOf[test.kind];
  const record = test.record as Draft;
  // What is left out is not kept as nothing.
  const change = (more: Draft): void =>
    edit((last) => ({ record: Object.fromEntries(Object.entries({ ...last.record, ...more }).filter(([, value]) => value !== undefined)) }));
  const outcome = judgedOf(test, zone, system);
  const props = { record, onChange: change };
  const forms: Readonly<Record<KeptTest['kind'], ReactNode>> = {
    drainage: <DrainageForm {...props} site={site.siteName} zone={zone.name} closed={test.closed} />,
    jar: <JarForm {...props} site={site.siteName} zone={zone.name} />,
    core: <CoreForm {...props} />,
    probe: <ProbeForm {...props} />,
    ring: <RingForm {...props} />,
    waterDrop: <WaterDropForm {...props} />,
    fizz: <FizzForm {...props} />,
    soilTemperature: <SensorForm {...props} what="temperature" />,
    soilMoisture: <SensorForm {...props} what="moisture" />,
    catchCups: <CupsForm {...props} />,
    wateringDepth: <WateringForm {...props} />,
    cover: <CoverForm {...props} onPhoto={onPhoto} />,
  };
  const says = 'judged' in outcome ? outcome.judged : undefined;
  return (
    <PendingOf.Provider value={test.id}>
      <Box sx={{ display: 'flex', gap: 2, alignItems: 'center' }}>
        <TestDrawing kind={test.kind} size={104} />
        <Box>
          <Typography variant="h1">{about.title}</Typography>
          <Typography sx={{ color: colours.faded }}>{zone.name}. {about.about}</Typography>
        </Box>
      </Box>
      <Cautions texts={about.cautions} />
      {forms[test.kind]}
      {'fault' in outcome && (
        <Typography role="alert" sx={{ color: colours.ochre, fontWeight: 700 }}>
          {`Not right yet: ${outcome.fault}.`}
        </Typography>
      )}
      {says?.title && (
        <Box component="section" aria-label="What it says" sx={{ border: `1px solid ${colours.ink}`, background: colours.sheet, p: 1.5 }}>
          <Typography sx={{ fontFamily: 'Bitter, serif', fontWeight: 700, fontSize: '1.35rem', lineHeight: 1.2 }}>
            <Words>{`${test.kind === 'drainage' && !test.closed ? 'So far: ' : ''}${says.title}`}</Words>
          </Typography>
          {says.words.map((words) => (
            <Typography key={words} sx={{ mt: 0.5 }}>
              <Words>{words}</Words>
            </Typography>
          ))}
          {says.working.length > 0 && (
            <>
              <Button size="small" onClick={() => setWorking(!working)} aria-expanded={working} sx={{ mt: 0.5 }}>
                {working ? 'Fold the working' : 'How this comes about'}
              </Button>
              {working && <Entries working={says.working} />}
            </>
          )}
        </Box>
      )}
      <Box component="details">
        <Box component="summary" sx={{ fontWeight: 700, py: 1, minHeight: 44 }}>
          How it is done
        </Box>
        <Typography sx={{ color: colours.faded }}>You need: {about.tools.join(', ')}.</Typography>
        <Box component="ol" sx={{ pl: 2.5, m: 0 }}>
          {about.steps.map((step) => (
            <Box component="li" key={step} sx={{ mt: 0.5 }}>
              {step}
            </Box>
          ))}
        </Box>
      </Box>
      <TestPhotos test={kept} taken={taken} onPhoto={onPhoto} />
      <NoteField {...props} />
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
        <TextField type="date" label="On" value={test.on} onChange={(event) => edit(() => ({ on: event.target.value }))} slotProps={{ inputLabel: { shrink: true } }} />
        <TextField label="By" value={test.doneBy ?? ''} onChange={(event) => edit(() => ({ doneBy: event.target.value || null }))} />
      </Box>
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
        <Button
          variant="contained"
          size="large"
          disabled={!test.closed && 'fault' in outcome}
          onClick={() => {
            edit((last) => ({ closed: !last.closed }));
            if (!test.closed) onLeave();
          }}
          sx={{ minHeight: 56, flex: 1 }}
        >
          {test.closed ? 'Open it again' : 'It is done'}
        </Button>
        {kept.revision === 0 && (
          <Button onClick={onDrop} sx={{ minHeight: 56 }}>
            Not after all
          </Button>
        )}
      </Box>
    </PendingOf.Provider>
  );
} // prettier-ignore
