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
  /** @param version of the zone that was seen; nothing takes the one that is shown */
  const send = (input: ZoneFactsInput, version = zone.version, onSaved?: () => void): void => {
    const turn = (latest.current += 1);
    setSent(input);
    saving.mutate(
      { seen: { id: zone.id, version }, input },
      {
        onSuccess: onSaved,
        onSettled: () => {
          if (latest.current === turn) setSent(null);
        },
      },
    );
  };
  const change = (part: ZoneFactsInput): void => send({ ...facts, ...part });
  return { facts, change, send, saving };
}
