import { Box, Button } from '@mui/material';
import type { Entry } from '../../offline/outbox.ts';
import type { KeptPhoto } from '../../offline/photos.ts';
import { drop } from '../../offline/sender.ts';
import { colours } from '../theme.ts';

/** Photos that have not arrived yet: seen, and taken back, before they do. */
export function WaitingPhotos({
  photos,
  onTakenBack,
}: {
  readonly photos: ReadonlyArray<Entry<KeptPhoto>>;
  readonly onTakenBack?: (id: string) => void;
}) {
  if (photos.length === 0) return null;
  return (
    <Box sx={{ display: 'grid', gridTemplateColumns: 'repeat(auto-fill, minmax(150px, 1fr))', gap: 1 }}>
      {photos.map(({ id, body: { photo } }) => (
        <Box key={id}>
          <img
            src={`data:${photo.type};base64,${photo.image}`}
            alt={photo.caption ?? 'Photo that waits'}
            style={{ width: '100%', aspectRatio: '4 / 3', objectFit: 'cover', border: `1px solid ${colours.line}` }}
          />
          <Button size="small" onClick={() => void drop([id]).then(() => onTakenBack?.(id))}>
            Take back
          </Button>
        </Box>
      ))}
    </Box>
  );
}
