import { Box, Button, Typography } from '@mui/material';
import { Component, type ReactNode } from 'react';
import { useRouteError } from 'react-router';
import { colours } from './theme.ts';

/** Browsers' words for a part of the application that is not on the server any more. */
const GONE = /dynamically imported module|importing a module script|preload (css|module)|error loading/i;

/** Whether a part of the application could not be loaded, as after an update of the server. */
export function isGone(error: unknown): boolean {
  return error instanceof Error && GONE.test(error.message);
}

interface BrokenProps {
  readonly error: unknown;
  /** What broke, inside a sentence: "this step". */
  readonly what: string;
  readonly onAgain?: (() => void) | undefined;
}

/** What stands where a part broke: what to do, and that nothing else is lost. */
export function Broken({ error, what, onAgain }: BrokenProps) {
  const gone = isGone(error);
  return (
    <Box
      role="alert"
      sx={{
        borderLeft: `3px solid ${colours.ochre}`,
        background: colours.ochreWash,
        px: 2,
        py: 1.5,
        my: 1,
        maxWidth: 620,
      }}
    >
      <Typography variant="h3" component="p" sx={{ mb: 0.5 }}>
        {gone ? 'A newer version is there' : `Something broke in ${what}`}
      </Typography>
      <Typography>
        {gone
          ? `Glenfold was renewed on the server, and ${what} is only there in the new version. What you typed elsewhere on this page is still here: save it first, then load the new version.`
          : 'This is our fault, not yours. What you saved is safe, and what you typed elsewhere on this page is still here.'}
      </Typography>
      <Box sx={{ display: 'flex', gap: 1, mt: 1.5 }}>
        <Button variant="contained" onClick={() => window.location.reload()}>
          {gone ? 'Load the new version' : 'Load the page again'}
        </Button>
        {!gone && onAgain && (
          <Button variant="outlined" onClick={onAgain}>
            Try again here
          </Button>
        )}
      </Box>
    </Box>
  );
}

interface BoundaryProps {
  readonly what: string;
  readonly children: ReactNode;
}

/** Keeps a fault inside a part of the page, so that the rest of it goes on. */
export class Boundary extends Component<BoundaryProps, { readonly error: unknown }> {
  override state: { readonly error: unknown } = { error: null };

  static getDerivedStateFromError(error: unknown): { readonly error: unknown } {
    return { error };
  }

  override render(): ReactNode {
    const { error } = this.state;
    if (error === null) return this.props.children;
    return <Broken error={error} what={this.props.what} onAgain={() => this.setState({ error: null })} />;
  }
}

/** In place of a whole page that broke. */
export function BrokenPage() {
  return (
    <Box component="main" sx={{ p: 3 }}>
      <Broken error={useRouteError()} what="this page" />
    </Box>
  );
}
