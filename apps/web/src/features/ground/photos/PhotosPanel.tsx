import { withReadableDays } from '@glenfold/contract';
import type { ZoneAnswer } from '@glenfold/contract';
import DeleteIcon from '@mui/icons-material/DeleteOutlined';
import { Box, Button, Dialog, IconButton, TextField, Typography } from '@mui/material';
import { useQuery } from '@tanstack/react-query';
import { useState } from 'react';
import { useDropzone } from 'react-dropzone';

import { colours } from '../../../ui/theme.ts';
import { Trouble } from '../../../ui/bits.tsx';
import { useMay } from '../../../ui/session.tsx';
import { useUndo } from '../../../ui/undo.tsx';
import { shrink } from '../../../ui/shrink.ts';
import { dayOf } from '../../../ui/today.ts';
import { queries } from '../../../api/queries.ts';
import { useAddPhoto } from '../api.ts';

const LONGEST = 1600;

/** Photos of a zone, newest first; a phone's camera opens where there is one. */
export function PhotosPanel({ zone }: { readonly zone: ZoneAnswer }) {
  const { data: photos = [] } = useQuery(queries.photos(zone.siteId));
  const { mutateAsync, isPending, error } = useAddPhoto(zone.id);
  const [caption, setCaption] = useState('');
  const [trouble, setTrouble] = useState<Error | null>(null);
  const [shown, setShown] = useState<string | null>(null);
  const may = useMay();
  const { remove } = useUndo();
  const own = photos.filter(({ zoneId }) => zoneId === zone.id).reverse();
  const add = async (files: readonly File[]): Promise<void> => {
    setTrouble(null);
    try {
      for (const file of files) {
        const { type, image } = await shrink(file, LONGEST);
        const takenOn = dayOf(new Date(file.lastModified));
        await mutateAsync({ type, image, takenOn, caption: caption.trim() || null });
      }
      setCaption('');
    } catch (failure) {
      setTrouble(failure as Error);
    }
  };
  const { getRootProps, getInputProps, open } = useDropzone({
    noClick: true,
    accept: { 'image/*': [] },
    onDrop: (files, refused) => {
      const [other] = refused;
      if (other) setTrouble(new Error(`${other.file.name} is no picture: choose a JPEG, PNG or WebP file.`));
      else void add(files);
    },
  });
  const large = own.find(({ id }) => id === shown);
  return (
    <Box {...getRootProps()}>
      <input {...getInputProps({ 'aria-label': 'Photos' })} />
      <Box sx={{ display: 'flex', gap: 1, mb: 1.5, alignItems: 'flex-start' }}>
        <TextField
          label="What it shows"
          size="small"
          value={caption}
          onChange={(event) => setCaption(event.target.value)}
          sx={{ flex: 1 }}
        />
        <Button variant="contained" disabled={isPending} onClick={open}>
          {isPending ? 'Saving…' : 'Add photos'}
        </Button>
      </Box>
      <Trouble error={trouble ?? error} />
      {own.length === 0 && (
        <Typography>
          No photos yet. One from the same spot each season shows better than words whether it worked.
        </Typography>
      )}
      <Box sx={{ display: 'grid', gap: 1, gridTemplateColumns: '1fr 1fr' }}>
        {own.map(({ id, small, caption: words, takenOn }) => (
          <Box component="figure" key={id} sx={{ m: 0, minWidth: 0 }}>
            <Box
              component="button"
              type="button"
              aria-label={`Show large: ${words ?? 'photo'}`}
              onClick={() => setShown(id)}
              sx={{ p: 0, border: `1px solid ${colours.line}`, background: 'none', cursor: 'zoom-in', width: '100%' }}
            >
              <img
                src={small}
                alt={words ?? `${zone.name}, ${takenOn ?? 'date not known'}`}
                style={{ width: '100%', aspectRatio: '4 / 3', objectFit: 'cover', display: 'block' }}
              />
            </Box>
            <Box component="figcaption" sx={{ display: 'flex', fontSize: '0.88rem', lineHeight: 1.25 }}>
              <Box sx={{ flex: 1 }}>
                {words}
                <Box sx={{ color: colours.faded }}>{takenOn && withReadableDays(takenOn)}</Box>
              </Box>
              {may('work.delete') && (
                <IconButton size="small" aria-label="Delete the photo" onClick={() => remove(`/photos/${id}`, 'Photo')}>
                  <DeleteIcon fontSize="small" />
                </IconButton>
              )}
            </Box>
          </Box>
        ))}
      </Box>
      {large && (
        <Dialog open onClose={() => setShown(null)} maxWidth="lg">
          <img src={large.address} alt={large.caption ?? 'Photo'} style={{ maxWidth: '100%', maxHeight: '80vh' }} />
          <Typography sx={{ p: 1.5 }}>{[large.caption, large.takenOn].filter(Boolean).join(', ')}</Typography>
        </Dialog>
      )}
    </Box>
  );
}
