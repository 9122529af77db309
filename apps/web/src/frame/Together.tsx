import { useEffect, useRef } from 'react';
import { fieldName } from '../ui/recordWords.ts';
import { type Late, mergeOf, saveMerged } from './late.ts';

interface TogetherProps {
  readonly late: Late;
  readonly onDone: (late: Late) => void;
  readonly onSay: (words: string) => void;
}

/** Saves once more what nobody else has touched, and says with what it was saved together. */
export function Together({ late, onDone, onSay }: TogetherProps) {
  const act = useRef({ onDone, onSay });
  useEffect(() => {
    act.current = { onDone, onSay };
  });
  useEffect(() => {
    const { kept, theirsOnly } = mergeOf(late);
    act.current.onDone(late);
    act.current.onSay(
      `Saved together with what ${late.conflict.changedBy} changed meanwhile${theirsOnly.length > 0 ? `: ${theirsOnly.map(fieldName).join(', ')}` : ''}.`,
    );
    saveMerged(late, kept);
  }, [late]);
  return null;
}
