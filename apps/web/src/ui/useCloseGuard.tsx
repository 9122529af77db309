import { Box, Button } from '@mui/material';
import { type ReactNode, type SyntheticEvent, useEffect, useRef, useState } from 'react';
import { colours } from './theme.ts';

/** What is chosen and not typed: an option, a tick. */
const CHOICES =
  '[role="option"], [role="checkbox"], [role="radio"], [role="switch"], input[type="checkbox"], input[type="radio"]';

interface CloseGuard {
  /** Laid round the form: hears that something was typed or chosen. */
  readonly hears: {
    readonly onInput: () => void;
    readonly onClickCapture: (event: SyntheticEvent) => void;
  };
  /** Closes what nobody has typed into, and asks first where somebody has. */
  readonly close: () => void;
  /** The question, while it is asked. */
  readonly question: ReactNode;
}

/**
 * Nothing that was typed is lost without a question: not by Escape, not by a click beside the form, not by Cancel, and
 * not by leaving the page.
 */
export function useCloseGuard(onClose: () => void): CloseGuard {
  const typed = useRef(false);
  const [asking, setAsking] = useState(false);
  useEffect(() => {
    const stay = (event: BeforeUnloadEvent): void => {
      if (typed.current) event.preventDefault();
    };
    window.addEventListener('beforeunload', stay);
    return () => window.removeEventListener('beforeunload', stay);
  }, []);
  const hear = (): void => {
    typed.current = true;
  };
  return {
    hears: {
      onInput: hear,
      onClickCapture: ({ target }) => {
        if (target instanceof Element && target.closest(CHOICES)) hear();
      },
    },
    close: () => (typed.current ? setAsking(true) : onClose()),
    question: asking && (
      <Box
        role="alert"
        sx={{
          display: 'flex',
          flexWrap: 'wrap',
          gap: 1,
          alignItems: 'center',
          flexBasis: '100%',
          borderLeft: `4px solid ${colours.ochre}`,
          pl: 1.5,
          py: 0.5,
        }}
      >
        <Box sx={{ flex: 1, minWidth: 200 }}>What you entered here is not saved. Close, and lose it?</Box>
        <Button autoFocus variant="outlined" onClick={() => setAsking(false)}>
          Keep it open
        </Button>
        <Button onClick={onClose}>Close without saving</Button>
      </Box>
    ),
  };
}
