import type { ZoneAnswer, ZoneFactsInput } from '@glenfold/contract';
import { useRef, useState } from 'react';
import { useSaveFacts } from '../api.ts';

/**
 * What is known of a zone, and how it is changed: part by part, saved at once, each change on top of the one before
 * even while that is still on its way.
 */
export function useFacts(zone: ZoneAnswer) {
  const saving = useSaveFacts(zone.id);
  const [sent, setSent] = useState<ZoneFactsInput | null>(null);
  const latest = useRef(0);
  const facts = sent ?? zone.facts;
  /** @param onDone when it is saved, or what somebody else saved first is to stand */
  const send = (input: ZoneFactsInput, onDone?: () => void): void => {
    const turn = (latest.current += 1);
    setSent(input);
    saving.mutate(
      { seen: zone, input, opened: zone.facts, onTheirs: onDone },
      {
        onSuccess: onDone,
        onSettled: () => {
          if (latest.current === turn) setSent(null);
        },
      },
    );
  };
  const change = (part: ZoneFactsInput): void => send({ ...facts, ...part });
  return { facts, change, send, saving };
}
