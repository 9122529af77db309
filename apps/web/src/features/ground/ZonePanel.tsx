import { aimOf, areaShape, grassWords, soilOf, swardOf } from '@glenfold/agronomy';
import { type DrawingAnswer, type LabResultAnswer, type ZoneAnswer, withReadableDays } from '@glenfold/contract';
import { Box, Button, Tab, Tabs, Typography } from '@mui/material';
import type { ReactNode } from 'react';
import { colours } from '../../ui/theme.ts';
import { CoreStick } from '../../ui/CoreStick.tsx';
import { useMay } from '../../ui/session.tsx';
import { useSessionState } from '../../ui/useSessionState.ts';
import { useUnits } from '../../ui/units.tsx';
import { Opens } from '../../ui/working.tsx';
import { DividePanel } from './divide/DividePanel.tsx';
import { SoilHistory } from './facts/SoilHistory.tsx';
import { LevelsPanel } from './levels/LevelsPanel.tsx';
import { PhotosPanel } from './photos/PhotosPanel.tsx';
import type { Pen } from './drawing/DrawingEditor.tsx';
import { TroublePanel } from './trouble/TroublePanel.tsx';

const tabs = ['Facts', 'Trouble', 'Soil', 'Levels', 'Divide', 'Photos'] as const;
export type ZoneTab = (typeof tabs)[number];
export type ZoneDialog = 'change' | 'measure' | 'facts';

const dialogNames: Readonly<Record<ZoneDialog, string>> = {
  change: 'Change the facts',
  measure: 'Measure thatch and roots',
  facts: 'Note light, fall, water and use',
};

/** The area, and how it was found. */
function AreaFact({ zone }: { readonly zone: ZoneAnswer }) {
  const { say } = useUnits();
  const told = say('area', zone.area);
  if (zone.geometry) return <>{told}, from the plan</>;
  if (!zone.taped) return <>{told}, as typed</>;
  const { lengths, ...shape } = zone.taped;
  const { working } = areaShape({ ...lengths, ...shape });
  return (
    <>
      <Opens title={`Area of ${zone.name}`} told={told} working={working} />, {shape.pace ? 'paced' : 'taped'}
    </>
  );
}

/** The band of the sward and where in it is aimed; an aim of one's own that is not followed says why. */
function AimFact({ zone }: { readonly zone: ZoneAnswer }) {
  const sward = swardOf({ grass: zone.grass, mix: zone.facts.mix ?? undefined });
  const { aim, words } = aimOf(sward, zone.aimPh ?? undefined, zone.aimReason ?? undefined);
  const [low, high] = sward.ph.map((end) => end.toFixed(1));
  return (
    <>
      {low}–{high}, aim {aim.toFixed(1)}
      {aim === zone.aimPh && ' (your own)'}
      {words && <Box sx={{ fontWeight: 400, color: colours.ochre, fontSize: '0.92rem', lineHeight: 1.3 }}>{words}</Box>}
    </>
  );
}

function Facts({ zone, onDialog }: { readonly zone: ZoneAnswer; readonly onDialog: (dialog: ZoneDialog) => void }) {
  const { say } = useUnits();
  const may = useMay();
  const { facts } = zone;
  const slope = facts.slope == null ? null : `${facts.slope} %${facts.aspect ? ` to the ${facts.aspect}` : ''}`;
  const soil = soilOf(zone);
  const dry = facts.drySpell && `${facts.drySpell}${facts.drySpellOn ? `, ${withReadableDays(facts.drySpellOn)}` : ''}`;
  const air = [facts.air, facts.frostPocket && 'frost pocket', facts.seaside && 'sea wind'].filter(Boolean).join(', ');
  const groups: ReadonlyArray<
    readonly [dialog: ZoneDialog, action: string, facts: ReadonlyArray<readonly [string, ReactNode]>]
  > = [
    [
      'change',
      'Change',
      [
        ['Area', <AreaFact key="area" zone={zone} />],
        ['Bag label', zone.label],
        ['Grass', grassWords(zone.grass, facts.mix)],
        ['pH wanted', <AimFact key="aim" zone={zone} />],
        ['Surface', zone.surface],
        ['Soil', soil && `${soil.group}${soil.byJar ? ', by the jar test' : ''}`],
        ...(zone.grass ? [['Care', `${zone.intensity}, clippings ${zone.clippings}`] as const] : []),
      ],
    ],
    [
      'measure',
      'Measure',
      [
        ['Thatch', zone.thatch == null ? null : say('depth', zone.thatch)],
        ['Roots', zone.rootDepth == null ? null : `to ${say('depth', zone.rootDepth)}`],
        ['Probe stops', zone.probeStop == null ? null : `at ${say('depth', zone.probeStop)}`],
      ],
    ],
    [
      'facts',
      'Note',
      [
        ['Light', [zone.shade, facts.sunHours == null ? '' : `${facts.sunHours} h of sun`].filter(Boolean).join(', ')],
        ['Slope', slope],
        ['Watered by', facts.irrigation],
        ['Used for', facts.use],
        ['Air', air || null],
        ['Elevation', facts.elevation == null ? null : say('length', facts.elevation)],
        ['Dry spell', dry ?? null],
      ],
    ],
  ];
  return (
    <>
      {groups.map(([dialog, action, entries]) => (
        <Box key={dialog} sx={{ borderBottom: `1px solid ${colours.line}`, pb: 1, mb: 1, position: 'relative' }}>
          <Box component="dl" sx={{ display: 'grid', gridTemplateColumns: '96px 1fr', m: 0, rowGap: 0.4, pr: 10 }}>
            {entries.map(([name, value]) => [
              <Box component="dt" key={name} sx={{ color: colours.faded }}>
                {name}
              </Box>,
              <Box
                component="dd"
                key={`${name} value`}
                sx={{ m: 0, fontWeight: value ? 700 : 400, color: value ? colours.ink : colours.faded }}
              >
                {value ?? 'not known'}
              </Box>,
            ])}
          </Box>
          {(dialog !== 'change' || may('work.write')) && (
            <Button
              size="small"
              variant="outlined"
              aria-label={dialogNames[dialog]}
              onClick={() => onDialog(dialog)}
              sx={{ position: 'absolute', right: 0, top: 0 }}
            >
              {action}
            </Button>
          )}
        </Box>
      ))}
    </>
  );
}

interface ZonePanelProps {
  readonly zone: ZoneAnswer;
  readonly result: LabResultAnswer | undefined;
  readonly plan: DrawingAnswer;
  readonly pen: Pen | null;
  readonly onDialog: (dialog: ZoneDialog) => void;
}

/** The chosen zone beside the plan: what is known of it, part by part. */
export function ZonePanel({ zone, result, plan, pen, onDialog }: ZonePanelProps) {
  const [tab, setTab] = useSessionState<ZoneTab>('glenfold.zoneTab', 'Facts');
  const signs = zone.facts.signs?.length ?? 0;
  return (
    <Box component="section" aria-label={`Facts of ${zone.name}`} sx={{ minWidth: 0 }}>
      <Typography variant="h2">{zone.name}</Typography>
      <Tabs
        value={tab}
        onChange={(_event, next: ZoneTab) => setTab(next)}
        variant="scrollable"
        scrollButtons={false}
        aria-label={`Parts of ${zone.name}`}
        sx={{ minHeight: 36, mb: 1.5, borderBottom: `1px solid ${colours.ink}` }}
      >
        {tabs.map((name) => (
          <Tab
            key={name}
            value={name}
            label={name === 'Trouble' && signs > 0 ? `Trouble ${signs}` : name}
            sx={{ minHeight: 36, minWidth: 0, px: 0.8, textTransform: 'none', fontSize: '0.9rem' }}
          />
        ))}
      </Tabs>
      <Box key={zone.id}>
        {tab === 'Facts' && (
          <>
            <Facts zone={zone} onDialog={onDialog} />
            <CoreStick zone={zone} result={result} size="large" />
          </>
        )}
        {tab === 'Trouble' && <TroublePanel zone={zone} result={result} plan={plan} pen={pen} />}
        {tab === 'Soil' && <SoilHistory zone={zone} />}
        {tab === 'Levels' && <LevelsPanel zone={zone} plan={plan} />}
        {tab === 'Divide' && <DividePanel zone={zone} plan={plan} pen={pen} />}
        {tab === 'Photos' && <PhotosPanel zone={zone} />}
      </Box>
    </Box>
  );
}
