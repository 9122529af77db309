import { Box } from '@mui/material';
import { useMutationState } from '@tanstack/react-query';

/** In no way of anybody who sees the page, and read where it is not seen. */
const unseen = { position: 'absolute', width: '1px', height: '1px', overflow: 'hidden', clipPath: 'inset(50%)', whiteSpace: 'nowrap' }; // prettier-ignore

/**
 * Tells whoever listens to the page that a save has arrived; who sees it sees what changed. It stands once in the
 * application and listens to all saves. What went wrong is told where it stands.
 */
export function Spoken() {
  const last = useMutationState({
    filters: { status: 'success', predicate: ({ meta }) => meta?.spoken !== undefined },
    select: ({ meta, state }) => ({ said: String(meta!.spoken), at: state.submittedAt }),
  }).at(-1);
  return (
    <Box aria-live="polite" sx={unseen}>
      {/* Of its own each time: the same words are said again. */}
      {last && <span key={last.at}>{last.said}</span>}
    </Box>
  );
}
