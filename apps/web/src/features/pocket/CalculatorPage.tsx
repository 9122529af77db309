import {
  type Calculator,
  type FieldShape,
  type Typed,
  type UnitSystem,
  calculators,
  exampleOf,
  plainLabel,
  spelledOut,
  typedFrom,
} from '@glenfold/agronomy';
import { Box, Button, Typography } from '@mui/material';
import { useEffect, useRef, useState } from 'react';
import { Link, useLocation, useNavigate, useParams } from 'react-router';
import { Empty } from '../../ui/bits.tsx';
import { type TypedForm, calculate } from '../../ui/calculation.ts';
import { keepPages } from '../../ui/keepPages.ts';
import { colours } from '../../ui/theme.ts';
import { useUnits } from '../../ui/units.tsx';
import { Entries } from '../../ui/working.tsx';
import { FieldOf } from '../../ui/FieldOf.tsx';
import { PocketFrame } from './PocketFrame.tsx';
import { ResultOf } from '../../ui/ResultOf.tsx';

/** Lists and groups stand in the address as JSON, everything else as it was typed. */
const written = (typed: Typed): string => (typeof typed === 'string' ? typed : JSON.stringify(typed));

/** Where the address keeps in which units its plain numbers were typed. */
const UNITS = 'units';

/** What the address keeps of a form; typed beside other units, its numbers have theirs. */
function formOf({ inputs }: Calculator, address: URLSearchParams, system: UnitSystem): TypedForm {
  const [typedIn = system] = [address.get(UNITS)].filter((one) => one === 'us' || one === 'metric');
  const read = (typed: Typed, shape: FieldShape): Typed =>
    typedIn === system ? typed : spelledOut(typed, shape, typedIn);
  return Object.fromEntries(
    Object.entries(inputs).flatMap(([name, { shape }]) => {
      const text = address.get(name);
      if (text === null) return [];
      if (shape.kind !== 'list' && shape.kind !== 'group') return [[name, read(text, shape)]];
      try {
        return [[name, read(JSON.parse(text) as Typed, shape)]];
      } catch {
        return [];
      }
    }),
  );
}

/** What the address says of the form that it was kept from; nothing where somebody came by it. */
interface OfForm {
  readonly form?: string;
}

/** One calculation by itself: what goes in, what comes out, how, and from where. */
export function CalculatorPage() {
  const { subject, method } = useParams();
  const name = `${subject ?? ''}.${method ?? ''}`;
  const { key, state } = useLocation() as { readonly key: string; readonly state: OfForm | null };
  useEffect(() => void keepPages(['/pocket']), []);
  const calculator = calculators.get(name);
  if (!calculator)
    return (
      <PocketFrame>
        <Empty title="No such calculation" to="/pocket" action="To all calculations">
          It may have been renamed.
        </Empty>
      </PocketFrame>
    );
  // An address that the form itself has kept is no new form.
  const form = state?.form ?? key;
  return <Calculation key={`${name} ${form}`} name={name} calculator={calculator} form={form} />;
}

/** What is typed, and the address that keeps it: it comes after, and may lag behind quick hands. */
function useKept(form: string): readonly [kept: string, keep: (next: (last: string) => string) => void] {
  const { search } = useLocation();
  const navigate = useNavigate();
  const [kept, setKept] = useState(search);
  const latest = useRef(search);
  const keep = (next: (last: string) => string): void => {
    latest.current = next(latest.current);
    setKept(latest.current);
    void navigate({ search: latest.current }, { replace: true, state: { form } satisfies OfForm });
  };
  return [kept, keep];
}

interface CalculationProps {
  readonly name: string;
  readonly calculator: Calculator;
  readonly form: string;
}

function Calculation({ name, calculator, form: formKey }: CalculationProps) {
  const { system } = useUnits();
  const [copied, setCopied] = useState(false);
  const [kept, keep] = useKept(formKey);
  const { inputs, outputs, title, source } = calculator;
  const read = (search: string): TypedForm => formOf(calculator, new URLSearchParams(search), system);
  const form = read(kept);
  const example = exampleOf(name);
  const { outcome, wanted, problem } = calculate(calculator, form, system);
  const fill = (change: (last: TypedForm) => TypedForm): void => {
    setCopied(false);
    keep((last) => {
      const some = Object.entries(change(read(last))).flatMap(([field, typed]): Array<[string, string]> =>
        typed === '' || (Array.isArray(typed) && typed.length === 0) ? [] : [[field, written(typed)]],
      );
      return some.length > 0 ? `?${new URLSearchParams([...some, [UNITS, system]]).toString()}` : '';
    });
  };
  const asked = Object.entries(inputs).filter(([, { shape, optional }]) => !(shape.kind === 'json' && optional));
  const needed = asked.filter(([, { optional }]) => !optional);
  const more = asked.filter(([, { optional }]) => optional);
  const fields = (some: typeof asked) =>
    some.map(([field, one]) => (
      <FieldOf
        key={field}
        name={field}
        path={field}
        field={one}
        value={form[field]}
        onChange={(value) => fill((last) => ({ ...last, [field]: value }))}
        problem={problem}
      />
    ));
  const stack = { display: 'flex', flexDirection: 'column', gap: 1.75 } as const;
  return (
    <PocketFrame>
      <Link to="/pocket" style={{ color: colours.slate }}>
        All calculations
      </Link>
      <Typography variant="h1" sx={{ mt: 0.5, mb: 2 }}>
        {title}
      </Typography>
      <Box
        sx={{
          display: 'grid',
          gridTemplateColumns: { xs: 'minmax(0, 1fr)', md: 'minmax(0, 430px) minmax(0, 1fr)' },
          columnGap: 6,
          rowGap: 3,
        }}
      >
        <Box component="form" aria-label="What goes in" onSubmit={(event) => event.preventDefault()} sx={stack}>
          {fields(needed)}
          {more.length > 0 && (
            <Box component="details" open={more.some(([field]) => form[field] !== undefined) || needed.length === 0}>
              <Box component="summary" sx={{ cursor: 'pointer', color: colours.slate, mb: 1.5, minHeight: 24 }}>
                What may be said beside
              </Box>
              <Box sx={stack}>{fields(more)}</Box>
            </Box>
          )}
          <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap' }}>
            {example && (
              <Button
                variant="outlined"
                onClick={() =>
                  fill(() =>
                    Object.fromEntries(
                      Object.entries(inputs).map(([field, { shape }]) => [
                        field,
                        typedFrom(example[field], shape, system),
                      ]),
                    ),
                  )
                }
              >
                Fill in an example
              </Button>
            )}
            {kept !== '' && <Button onClick={() => fill(() => ({}))}>Empty it</Button>}
            {outcome && (
              <Button
                onClick={() => {
                  const link = `${window.location.origin}${window.location.pathname}${kept}`;
                  void navigator.clipboard.writeText(link).then(() => setCopied(true));
                }}
              >
                {copied ? 'Link copied' : 'Copy the link'}
              </Button>
            )}
          </Box>
          <Typography sx={{ color: colours.faded, fontSize: '0.9rem' }}>
            A number without a unit is in the unit beside it; any other may be typed with its own, such as “8 in”.
          </Typography>
        </Box>
        <Box aria-live="polite">
          {wanted && (
            <Typography sx={{ borderLeft: `3px solid ${colours.slate}`, pl: 1.5 }}>
              Still wanted:{' '}
              {wanted
                .map((field) =>
                  plainLabel(field)
                    .toLowerCase()
                    .replace(/\bph\b/, 'pH'),
                )
                .join(', ')}
              .
            </Typography>
          )}
          {problem && (
            <Typography role="alert" sx={{ borderLeft: `3px solid ${colours.ochre}`, pl: 1.5 }}>
              {problem.path
                .split('.')
                .map((part) => (/^\d+$/.test(part) ? Number(part) + 1 : plainLabel(part)))
                .join(', ')}
              : {problem.words}.
            </Typography>
          )}
          {outcome && (
            <>
              <ResultOf outputs={outputs} result={outcome.result} />
              <Typography variant="h2" sx={{ mt: 3, mb: 0.5, fontSize: '1.1rem' }}>
                How it comes about
              </Typography>
              <Entries working={outcome.working} />
            </>
          )}
          <Typography sx={{ color: colours.faded, fontSize: '0.9rem', mt: 2 }}>Source: {source}.</Typography>
        </Box>
      </Box>
    </PocketFrame>
  );
}
