import { newestOf } from '../../ui/results.ts';
import type { ZoneAnswer } from '@glenfold/contract';
import { Box, Button, ToggleButton, ToggleButtonGroup, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { Suspense, useMemo, useState } from 'react';
import { useNavigate, useSearchParams } from 'react-router';
import { queries } from '../../api/queries.ts';
import type { StepProps } from '../../ui/stepProps.ts';
import { stepPath } from '../../ui/steps.ts';
import { colours } from '../../ui/theme.ts';
import { Empty, Trouble } from '../../ui/bits.tsx';
import { deferred } from '../../ui/deferred.tsx';
import { useMay, useSession } from '../../ui/session.tsx';
import { useSessionState } from '../../ui/useSessionState.ts';
import { MeasureForm } from './MeasureForm.tsx';
import { ZoneListForm } from './ZoneListForm.tsx';
import { ZoneForm } from './ZoneForm.tsx';
import type { ZoneDialog } from './ZonePanel.tsx';
import { FactsForm } from './facts/FactsForm.tsx';
import type { Pen } from './drawing/DrawingEditor.tsx';
import type { SheetItem, SheetMark } from './drawing/sheetMap.ts';
import { Rebuild } from './rebuild/Rebuild.tsx';
import { Sections, sectionDress } from './sections/Sections.tsx';
import type { SheetView } from './SheetMenus.tsx';

// Drawing brings a map and a geometry library: only this step waits for them.
const DrawingEditor = deferred(async () => (await import('./drawing/DrawingEditor.tsx')).DrawingEditor);
const SheetMenus = deferred(async () => (await import('./SheetMenus.tsx')).SheetMenus);
const ZonePanel = deferred(async () => (await import('./ZonePanel.tsx')).ZonePanel);
const ThingPanel = deferred(async () => (await import('./things/ThingPanel.tsx')).ThingPanel);

/** Bring what this step draws with, before anybody opens it. */
export const fetchGround = (): void => {
  for (const part of [DrawingEditor, SheetMenus, ZonePanel, ThingPanel]) void part.fetch();
};

const views = ['Plan', 'Sections', 'Rebuilding'] as const;
type View = (typeof views)[number];

const titles: Readonly<Record<View, string>> = {
  Plan: 'Plan of the ground',
  Sections: 'Sections over the years',
  Rebuilding: 'Fill and topsoil',
};

/** Where signs of trouble are seen: those of the chosen zone bold, by their place in its list. */
function marksOf(zones: readonly ZoneAnswer[], chosen: string | undefined): SheetMark[] {
  return zones.flatMap(({ id, facts }) =>
    (facts.signs ?? []).flatMap(({ at }, index): SheetMark[] => {
      const [longitude, latitude] = at ?? [];
      if (longitude === undefined || latitude === undefined) return [];
      const strong = id === chosen;
      return [{ at: [longitude, latitude], text: strong ? `${index + 1}` : '', strong }];
    }),
  );
}

/** The ground drawn to scale, divided into zones, and what is known of each. */
export function Ground({ site, zones, results, zone }: StepProps) {
  const [form, setForm] = useState<'closed' | 'add' | 'list' | ZoneDialog>('closed');
  const [thingId, setThingId] = useState<string | null>(null);
  const [kept, setKept] = useSessionState<View>('glenfold.groundView', 'Plan');
  const [search, setSearch] = useSearchParams();
  // Other steps lead to a view by the address.
  const view = views.find((name) => name === search.get('view')) ?? kept;
  const setView = (next: View): void => {
    setKept(next);
    if (search.has('view')) setSearch({}, { replace: true });
  };
  const [sheet, setSheet] = useState<SheetView>({ tiles: false, sections: false });
  const [pen, setPen] = useState<Pen | null>(null);
  const { data: things, error } = useQuery(queries.groundThings(site.id));
  const plan = useMemo(() => things && { ...things, zones: [...zones] }, [things, zones]);
  const { tiles } = useSession();
  const may = useMay();
  const navigate = useNavigate();
  const close = (): void => setForm('closed');
  const saved = (saved: ZoneAnswer): void => {
    close();
    void navigate(stepPath(site.id, 'ground', saved.id));
  };
  const choose = (item: SheetItem | null): void => {
    setThingId(item?.what === 'feature' ? item.id : null);
    if (item?.what === 'zone') void navigate(stepPath(site.id, 'ground', item.id));
  };
  const thing = plan?.features.find(({ id }) => id === thingId);
  const chosen: SheetItem | null = thing
    ? { what: 'feature', id: thing.id }
    : zone
      ? { what: 'zone', id: zone.id }
      : null;
  const bySection = view === 'Sections' || sheet.sections;
  const dress = useMemo(() => (bySection && plan ? sectionDress(plan.zones) : null), [bySection, plan]);
  const marks = useMemo(() => marksOf(plan?.zones ?? [], zone?.id), [plan, zone?.id]);
  const result = newestOf(results, zone?.id);
  return (
    <>
      <Box sx={{ display: 'flex', alignItems: 'center', flexWrap: 'wrap', gap: 1.5, mb: 1.5 }}>
        <Typography variant="h1" component="h2">
          {titles[view]}
        </Typography>
        <ToggleButtonGroup
          exclusive
          size="small"
          value={view}
          aria-label="What of the ground"
          onChange={(_event, next: View | null) => next && setView(next)}
        >
          {views.map((name) => (
            <ToggleButton key={name} value={name} sx={{ px: 1.5, textTransform: 'none' }}>
              {name}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
        <Box sx={{ flex: 1 }} />
        {may('work.write') && view === 'Plan' && (
          <>
            <Button variant="outlined" onClick={() => setForm('list')}>
              Zones from a list
            </Button>
            <Button variant={zones.length === 0 ? 'contained' : 'outlined'} onClick={() => setForm('add')}>
              Add a zone without a plan
            </Button>
          </>
        )}
      </Box>
      <Trouble error={error} />
      {zones.length === 0 && (
        <Empty title={may('work.write') ? 'Divide the ground into zones' : 'No zones yet'}>
          {may('work.write')
            ? 'Nothing can be sampled or treated before its area is known: every rate is multiplied by it. Draw one zone for each part that differs in grass, soil, shade or treatment, walk round it, bring in a file, or add it by taped lengths or its area alone.'
            : 'An advisor divides the ground into zones first.'}
        </Empty>
      )}
      {view === 'Rebuilding' ? (
        <Rebuild siteId={site.id} zones={zones} zone={zone} />
      ) : (
        <Box
          sx={{
            display: 'grid',
            gridTemplateColumns: { xs: 'minmax(0, 1fr)', lg: 'minmax(0, 1fr) 344px' },
            gap: 2.5,
            alignItems: 'start',
          }}
        >
          {plan && (
            <Suspense fallback={<Typography sx={{ color: colours.faded }}>Laying out the sheet…</Typography>}>
              <DrawingEditor
                position={site.position}
                ref={setPen}
                siteId={site.id}
                plan={plan}
                chosen={chosen}
                onChoose={choose}
                dress={dress}
                marks={marks}
                tiles={sheet.tiles ? tiles : null}
                tools={<SheetMenus site={site} plan={plan} zone={zone} pen={pen} view={sheet} onView={setSheet} />}
              />
              {view === 'Sections' ? (
                <Sections siteId={site.id} zones={zones} />
              ) : thing ? (
                <ThingPanel key={thing.id} thing={thing} pen={pen} />
              ) : (
                zone && <ZonePanel zone={zone} result={result} plan={plan} pen={pen} onDialog={setForm} />
              )}
            </Suspense>
          )}
        </Box>
      )}
      {form === 'list' && <ZoneListForm site={site} zones={zones} onClose={close} />}
      {form === 'measure' && zone && <MeasureForm zone={zone} onClose={close} />}
      {form === 'facts' && zone && <FactsForm zone={zone} onClose={close} />}
      {(form === 'add' || form === 'change') && (
        <ZoneForm siteId={site.id} zone={form === 'change' ? zone : undefined} onClose={close} onSaved={saved} />
      )}
    </>
  );
}
