import { Button } from '@mui/material';

interface MoreProps {
  readonly pages: {
    readonly hasNextPage: boolean;
    readonly isFetchingNextPage: boolean;
    readonly fetchNextPage: () => unknown;
  };
  readonly children: string;
}

/** The way to the next page of a long list, where there is one. */
export function More({ pages, children }: MoreProps) {
  if (!pages.hasNextPage) return null;
  return (
    <Button
      variant="outlined"
      sx={{ mt: 2 }}
      disabled={pages.isFetchingNextPage}
      onClick={() => void pages.fetchNextPage()}
    >
      {children}
    </Button>
  );
}
