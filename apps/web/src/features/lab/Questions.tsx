import { type LabQuestionAnswer, LabQuestionInput, type LabResultAnswer, type ZoneAnswer, labQuestionInput, withReadableDays } from '@glenfold/contract'; // prettier-ignore
import { Box, Button, MenuItem, TextField, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { FormDialog } from '../../ui/FormDialog.tsx';
import { colours } from '../../ui/theme.ts';
import { useToday } from '../../ui/today.ts';
import { useMay } from '../../ui/session.tsx';
import { useTyped } from '../../ui/useTyped.ts';
import { useUndo } from '../../ui/undo.tsx';
import { labQueries, useSaveQuestion } from './api.ts';

interface QuestionsProps {
  readonly siteId: string;
  readonly zones: readonly ZoneAnswer[];
  readonly results: readonly LabResultAnswer[];
  readonly chosen: string | undefined;
}

const answerFields = ['askedOf', 'laboratory'] as const;
const labels = { askedOf: 'Put to', laboratory: 'Laboratory' } as const;

/** A question with what came back. */
function QuestionForm({ zones, results, chosen, opened, onClose }: Omit<QuestionsProps, 'siteId'> & { readonly opened: LabQuestionAnswer | undefined; readonly onClose: () => void }) {
  const save = useSaveQuestion();
  const today = useToday(zones[0]!.siteId);
  const start: LabQuestionInput = opened
    ? labQuestionInput(opened)
    : { zoneId: chosen ?? zones[0]!.id, resultId: null, laboratory: null, askedOf: null, askedOn: today, question: '', answer: null, answeredBy: null, answeredOn: null };
  const { typed, set, problem, check } = useTyped(LabQuestionInput, start, save.error);
  const ofZone = results.filter(({ zoneIds }) => zoneIds.includes(typed.zoneId));
  const text = (key: 'question' | 'answer' | 'askedOf' | 'laboratory' | 'answeredBy') => ({
    value: typed[key] ?? '',
    onChange: (event: React.ChangeEvent<HTMLInputElement>) => set({ [key]: event.target.value || (key === 'question' ? '' : null) }),
    error: !!problem(key),
    helperText: problem(key),
  });
  const day = (key: 'askedOn' | 'answeredOn') => ({
    type: 'date' as const,
    value: typed[key] ?? '',
    onChange: (event: React.ChangeEvent<HTMLInputElement>) => set({ [key]: event.target.value || null }),
    error: !!problem(key),
    helperText: problem(key),
    slotProps: { inputLabel: { shrink: true } },
  });
  return (
    <FormDialog
      title={opened ? 'The question, and the answer' : 'Ask a laboratory’s soil scientist'}
      action="Save"
      wide
      onClose={onClose}
      onSave={() => check((input) => save.mutate({ ...(opened ? { seen: opened, opened: labQuestionInput(opened) } : {}), input, onTheirs: onClose }, { onSuccess: onClose }))}
      saving={save}
    >
      <Box sx={{ display: 'grid', gridTemplateColumns: { sm: '1fr 1fr' }, gap: 2 }}>
        <TextField select label="About" value={typed.zoneId} onChange={(event) => set({ zoneId: event.target.value, resultId: null })}>
          {zones.map(({ id, name }) => (
            <MenuItem key={id} value={id}>{name}</MenuItem>
          ))}
        </TextField>
        <TextField select label="Which result" value={typed.resultId ?? ''} onChange={(event) => set({ resultId: event.target.value || null })}>
          <MenuItem value="">none in particular</MenuItem>
          {ofZone.map(({ id, sampledOn, label }) => (
            <MenuItem key={id} value={id}>{`${withReadableDays(sampledOn ?? 'no date')}, ${label}`}</MenuItem>
          ))}
        </TextField>
        {answerFields.map((key) => (
          <TextField key={key} label={labels[key]} {...text(key)} />
        ))}
        <TextField label="Asked on" {...day('askedOn')} />
      </Box>
      <TextField label="The question" multiline minRows={2} {...text('question')} autoFocus />
      <TextField label="The answer" multiline minRows={2} {...text('answer')} />
      <Box sx={{ display: 'grid', gridTemplateColumns: { sm: '1fr 1fr' }, gap: 2 }}>
        <TextField label="Answered by" {...text('answeredBy')} />
        <TextField label="Answered on" {...day('answeredOn')} />
      </Box>
    </FormDialog>
  );
} // prettier-ignore

/** What laboratories were asked about the zones of a site. */
export function Questions({ siteId, zones, results, chosen }: QuestionsProps) {
  const { data: questions = [] } = useQuery(labQueries.labQuestions(siteId));
  const [opened, setOpened] = useState<LabQuestionAnswer | 'new' | null>(null);
  const may = useMay();
  const { remove } = useUndo();
  const nameOf = (id: string): string => zones.find((zone) => zone.id === id)?.name ?? 'a zone that is gone';
  return (
    <>
      <Box sx={{ display: 'flex', justifyContent: 'space-between', alignItems: 'baseline', gap: 2, mb: 1 }}>
        <Typography sx={{ maxWidth: 560 }}>
          When a result is odd, or a lawn fails in spite of it: who was asked, and what they said, stays with the zone.
        </Typography>
        {may('work.write') && (
          <Button variant="outlined" onClick={() => setOpened('new')}>Write down a question</Button>
        )}
      </Box>
      {questions.length === 0 && <Typography sx={{ color: colours.faded }}>Nothing was asked yet.</Typography>}
      {questions.map((one) => (
        <Box component="article" key={one.id} aria-label={`Question of ${one.askedOn}`} sx={{ borderTop: `1px solid ${colours.line}`, borderLeft: `4px solid ${one.answer ? colours.lichen : colours.ochre}`, pl: 1.5, py: 1 }}>
          <Typography sx={{ color: colours.faded, fontSize: '0.92rem' }}>
            {[nameOf(one.zoneId), one.askedOn, one.askedOf ? `to ${one.askedOf}` : '', one.laboratory ?? '', one.askedBy ? `by ${one.askedBy}` : ''].filter(Boolean).join(', ')}
          </Typography>
          <Typography sx={{ fontWeight: 700, whiteSpace: 'pre-line' }}>{one.question}</Typography>
          <Typography sx={{ whiteSpace: 'pre-line' }}>{one.answer ? `${one.answer} (${one.answeredBy}${one.answeredOn ? `, ${one.answeredOn}` : ''})` : 'No answer yet.'}</Typography>
          {may('work.write') && (
            <Box>
              <Button size="small" onClick={() => setOpened(one)} aria-label={`${one.answer ? 'Change' : 'Write the answer to'} the question of ${one.askedOn}`}>{one.answer ? 'Change' : 'Write the answer'}</Button>
              {may('work.delete') && <Button size="small" onClick={() => remove(`/lab-questions/${one.id}`, 'The question')}>Delete</Button>}
            </Box>
          )}
        </Box>
      ))}
      {opened && <QuestionForm key={opened === 'new' ? 'new' : opened.id} zones={zones} results={results} chosen={chosen} opened={opened === 'new' ? undefined : opened} onClose={() => setOpened(null)} />}
    </>
  );
} // prettier-ignore
