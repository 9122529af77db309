import { type Section, SectionsSetting, sections } from '@glenfold/contract';
import { Box, Button, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useDecide } from '../../../api/decide.ts';
import { queries } from '../../../api/queries.ts';
import { MoneyField, NumberField } from '../../../ui/NumberField.tsx';
import { Trouble } from '../../../ui/bits.tsx';
import { useMay } from '../../../ui/session.tsx';
import { useUnits } from '../../../ui/units.tsx';
import { useTyped } from '../../../ui/useTyped.ts';

const names: Readonly<Record<Section, string>> = { now: 'Now', next: 'Next', later: 'Later' };
const fresh: SectionsSetting = { now: {}, next: {}, later: {} };

interface PlansProps {
  readonly siteId: string;
  readonly own: { readonly id: string; readonly version: number; readonly value: object } | undefined;
  readonly onDone: () => void;
}

function PlansForm({ siteId, own: opened, onDone }: PlansProps) {
  const [own] = useState(opened);
  const saving = useDecide('sections', { siteId });
  const { typed, set, problem, check } = useTyped(
    SectionsSetting,
    (own?.value as SectionsSetting | undefined) ?? fresh,
    saving.error,
    'value.',
  );
  return (
    <Box
      component="form"
      aria-label="Years and budgets"
      noValidate
      onSubmit={(event) => {
        event.preventDefault();
        check((input) =>
          saving.mutate({ seen: own, input, opened: own?.value, onTheirs: onDone }, { onSuccess: onDone }),
        );
      }}
      sx={{ display: 'grid', gap: 1.25, mb: 2 }}
    >
      {sections.map((section) => (
        <Box
          key={section}
          role="group"
          aria-label={names[section]}
          sx={{ display: 'grid', gridTemplateColumns: '64px 1fr 1.4fr', gap: 1, alignItems: 'start' }}
        >
          <Typography sx={{ fontWeight: 700, pt: 1 }}>{names[section]}</Typography>
          <NumberField
            label="Year"
            value={typed[section].year}
            onChange={(year) => set({ [section]: { ...typed[section], year } })}
            problem={problem(`${section}.year`)}
          />
          <MoneyField
            label="Budget"
            value={typed[section].budget}
            onChange={(budget) => set({ [section]: { ...typed[section], budget } })}
            problem={problem(`${section}.budget`)}
          />
        </Box>
      ))}
      <Trouble error={saving.error?.fields.length === 0 ? saving.error : null} />
      <Box sx={{ display: 'flex', gap: 1 }}>
        <Button type="submit" variant="contained" size="small" disabled={saving.isPending}>
          Save years and budgets
        </Button>
        <Button size="small" onClick={onDone}>
          Leave as it was
        </Button>
      </Box>
    </Box>
  );
}

/** The year of each section and what it may cost; the Rates step holds the programs against it. */
export function SectionPlans({ siteId }: { readonly siteId: string }) {
  const { say } = useUnits();
  const may = useMay();
  const [open, setOpen] = useState(false);
  const { data: all } = useQuery(queries.settings());
  if (!may('costs.read') || !all) return null;
  const own = all.find((setting) => setting.kind === 'sections' && setting.siteId === siteId);
  const plans = (own?.value as SectionsSetting | undefined) ?? fresh;
  if (open) return <PlansForm siteId={siteId} own={own} onDone={() => setOpen(false)} />;
  const told = sections.flatMap((section) => {
    const { year, budget } = plans[section];
    const words = [year, budget == null ? undefined : say('money', budget)].filter((part) => part != null).join(', ');
    return words === '' ? [] : [`${names[section]}: ${words}`];
  });
  return (
    <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'baseline', flexWrap: 'wrap', mb: 1.5 }}>
      <Typography sx={{ fontSize: '0.95rem' }}>
        {told.length > 0 ? told.join('. ') : 'No section has a year or a budget yet'}.
      </Typography>
      {may('work.write') && (
        <Button size="small" variant="outlined" onClick={() => setOpen(true)}>
          Years and budgets
        </Button>
      )}
    </Box>
  );
}
