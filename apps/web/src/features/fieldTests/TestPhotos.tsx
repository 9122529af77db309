import { Box, Button, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useRef, useState } from 'react';
import { Trouble } from '../../ui/bits.tsx';
import { shrink } from '../../ui/shrink.ts';
import { colours } from '../../ui/theme.ts';
import { queries } from '../../api/queries.ts';
import { LONGEST_PHOTO } from '../../offline/photos.ts';
import type { KeptTest, TakenPhoto } from './testStore.ts';

interface TestPhotosProps {
  readonly test: KeptTest;
  /** Taken here, arrived or not. */
  readonly taken: readonly TakenPhoto[];
  readonly onPhoto: (photo: TakenPhoto) => Promise<void>;
}

/** What was seen in a test, beside what was read: kept on the device until it has arrived. */
export function TestPhotos({ test, taken, onPhoto }: TestPhotosProps) {
  const { data: known = [] } = useQuery({ ...queries.photos(test.siteId), retry: false });
  const [fault, setFault] = useState<Error | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const take = async (picked: File | undefined): Promise<void> => {
    if (!picked) return;
    setFault(null);
    try {
      await onPhoto({ id: crypto.randomUUID(), ...(await shrink(picked, LONGEST_PHOTO)) });
    } catch (problem) {
      setFault(problem as Error);
    }
  };
  const here = new Set(taken.map(({ id }) => id));
  const shown = [
    ...known.flatMap(({ id, small, fieldTestId }) => (fieldTestId === test.id && !here.has(id) ? [{ id, source: small }] : [])),
    ...taken.map(({ id, type, image }) => ({ id, source: `data:${type};base64,${image}` })),
  ];
  return (
    <Box component="section" aria-label="Photos of the test">
      <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center' }}>
        <Button variant="outlined" onClick={() => file.current?.click()} sx={{ minHeight: 48 }}>
          Add a photo
        </Button>
        <Typography sx={{ color: colours.faded }}>
          {shown.length === 0 ? 'none yet' : `${shown.length} ${shown.length === 1 ? 'photo' : 'photos'}`}
        </Typography>
      </Box>
      <input ref={file} type="file" accept="image/*" capture="environment" hidden aria-label="Photo of the test" onChange={(event) => void take(event.target.files?.[0])} />
      <Trouble error={fault} />
      {shown.length > 0 && (
        <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(3, 1fr)', gap: 1, mt: 1 }}>
          {shown.map(({ id, source }, index) => (
            <img key={id} src={source} alt={`Photo ${index + 1} of the test`} style={{ width: '100%', aspectRatio: '4 / 3', objectFit: 'cover', border: `1px solid ${colours.line}` }} />
          ))}
        </Box>
      )}
    </Box>
  );
} // prettier-ignore
