import { useEffect, useState } from 'react';

/** A typed text once the hand rests, so that not every letter is asked for. */
export function useSettled(text: string, after = 200): string {
  const [settled, setSettled] = useState(text);
  useEffect(() => {
    const timer = setTimeout(() => setSettled(text), after);
    return () => clearTimeout(timer);
  }, [text, after]);
  return settled;
}
