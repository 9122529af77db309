import type { TakenPhoto } from '../../ui/field/TakePhoto.tsx';
import { Box, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { TakePhoto } from '../../ui/field/TakePhoto.tsx';
import { colours } from '../../ui/theme.ts';
import { queries } from '../../api/queries.ts';
import type { KeptTest } from './testStore.ts';

interface TestPhotosProps {
  readonly test: KeptTest;
  /** Taken here, arrived or not. */
  readonly taken: readonly TakenPhoto[];
  readonly onPhoto: (photo: TakenPhoto) => Promise<void>;
}

/** What was seen in a test, beside what was read: kept on the device until it has arrived. */
export function TestPhotos({ test, taken, onPhoto }: TestPhotosProps) {
  const { data: known = [] } = useQuery({ ...queries.photos(test.siteId), retry: false });
  const here = new Set(taken.map(({ id }) => id));
  const shown = [
    ...known.flatMap(({ id, small, fieldTestId }) => (fieldTestId === test.id && !here.has(id) ? [{ id, source: small }] : [])),
    ...taken.map(({ id, type, image }) => ({ id, source: `data:${type};base64,${image}` })),
  ];
  return (
    <Box component="section" aria-label="Photos of the test">
      <Box sx={{ display: 'flex', gap: 1.5, alignItems: 'center' }}>
        <TakePhoto label="Photo of the test" onPhoto={onPhoto}>
          Add a photo
        </TakePhoto>
        <Typography sx={{ color: colours.faded }}>
          {shown.length === 0 ? 'none yet' : `${shown.length} ${shown.length === 1 ? 'photo' : 'photos'}`}
        </Typography>
      </Box>
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
