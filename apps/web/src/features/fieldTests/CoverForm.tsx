import type { TakenPhoto } from '../../ui/field/TakePhoto.tsx';
import { coverMethods, greenShare } from '@glenfold/agronomy';
import { Box, Button, Typography } from '@mui/material';
import { useEffect, useRef, useState } from 'react';
import { colours } from '../../ui/theme.ts';
import { LONGEST_PHOTO } from '../../offline/photos.ts';
import { shrink } from '../../ui/shrink.ts';
import type {} from './testStore.ts';
import { type FormProps, PlainField, WordField } from './fields.tsx';

const hits = ['living', 'weed', 'bare'] as const;
type Hit = (typeof hits)[number];
const looks: Readonly<Record<Hit, string>> = { living: colours.lichen, weed: colours.ochre, bare: colours.ink };
/** Points across and down. */
const ACROSS = 8;
const DOWN = 6;

interface CoverFormProps extends FormProps {
  readonly onPhoto: (photo: TakenPhoto) => Promise<void>;
}

/** A photo with a grid of points over it: each is touched until it says what it hits; or the green is counted. */
function PhotoCount({ onChange, onPhoto }: Pick<CoverFormProps, 'onChange' | 'onPhoto'>) {
  const [image, setImage] = useState<ImageBitmap | null>(null);
  const [points, setPoints] = useState<ReadonlyArray<Hit | null>>(() => Array<Hit | null>(ACROSS * DOWN).fill(null));
  const [fault, setFault] = useState<string | null>(null);
  const canvas = useRef<HTMLCanvasElement>(null);
  const file = useRef<HTMLInputElement>(null);
  useEffect(() => {
    const context = canvas.current?.getContext('2d', { willReadFrequently: true });
    if (context && image) context.drawImage(image, 0, 0, 480, 360);
  }, [image]);
  const take = async (picked: File | undefined): Promise<void> => {
    if (!picked) return;
    try {
      setImage(await createImageBitmap(picked));
      setFault(null);
      // What a count rests on is kept with it.
      await onPhoto({ id: crypto.randomUUID(), ...(await shrink(picked, LONGEST_PHOTO)) });
    } catch {
      setFault('This is no picture that can be read here. Choose a JPEG, PNG or WebP file.');
    }
  };
  const touch = (index: number): void => {
    const at = points[index] ?? null;
    const next = at === null ? hits[0] : (hits[hits.indexOf(at) + 1] ?? null);
    const changed = points.map((one, other) => (other === index ? next : one));
    setPoints(changed);
    const counted = changed.filter((one) => one !== null);
    onChange({
      method: 'points counted',
      points: counted.length || undefined,
      livingPoints: counted.filter((one) => one === 'living').length,
      weedPoints: counted.filter((one) => one === 'weed').length,
    });
  };
  const countGreen = (): void => {
    const context = canvas.current?.getContext('2d', { willReadFrequently: true });
    if (!context) return;
    const living = Math.round(greenShare(context.getImageData(0, 0, 480, 360).data));
    onChange({ method: 'green share of a photo', living });
  };
  const left = points.filter((one) => one === null).length;
  return (
    <Box>
      <Box sx={{ display: 'flex', gap: 1, flexWrap: 'wrap', mb: 1 }}>
        <Button variant="outlined" onClick={() => file.current?.click()} sx={{ minHeight: 48 }}>
          {image ? 'Another photo' : 'Take a photo, straight down'}
        </Button>
        {image && (
          <Button variant="outlined" onClick={countGreen} sx={{ minHeight: 48 }}>
            Count the green
          </Button>
        )}
      </Box>
      <input ref={file} type="file" accept="image/*" capture="environment" hidden aria-label="Photo of the ground" onChange={(event) => void take(event.target.files?.[0])} />
      {fault && <Typography role="alert">{fault}</Typography>}
      <Box sx={{ position: 'relative', display: image ? 'block' : 'none' }}>
        <canvas ref={canvas} width="480" height="360" style={{ width: '100%', display: 'block' }} />
        {points.map((hit, index) => (
          <Box
            component="button"
            type="button"
            key={index}
            aria-label={`Point ${index + 1}: ${hit ?? 'not counted'}`}
            onClick={() => touch(index)}
            sx={{ position: 'absolute', left: `${(((index % ACROSS) + 0.5) / ACROSS) * 100}%`, top: `${((Math.floor(index / ACROSS) + 0.5) / DOWN) * 100}%`, width: 36, height: 36, transform: 'translate(-50%, -50%)', border: '2px solid white', borderRadius: '50%', background: hit ? looks[hit] : 'rgba(255,255,255,0.25)', color: 'white', fontWeight: 700, p: 0 }}
          >
            {hit ? hit.charAt(0).toUpperCase() : '+'}
          </Box>
        ))}
      </Box>
      {image && <Typography sx={{ fontSize: '0.92rem', color: colours.faded }}>{`Touch a point once for living grass, twice for weed, three times for bare; ${left} to go. None is counted that you did not touch.`}</Typography>}
    </Box>
  );
} // prettier-ignore

/** Cover, weeds and colour: by eye, by points on a photo, or by its green. */
export function CoverForm({ record, onChange, onPhoto }: CoverFormProps) {
  const counted = record.method === 'points counted';
  return (
    <>
      <WordField name="method" label="Judged" words={coverMethods} record={record} onChange={onChange} />
      {record.method !== 'by eye' && <PhotoCount onChange={onChange} onPhoto={onPhoto} />}
      <Box sx={{ display: 'grid', gridTemplateColumns: '1fr 1fr', gap: 1 }}>
        {!counted && <PlainField name="living" label="Living cover" unit="%" record={record} onChange={onChange} />}
        {!counted && <PlainField name="weeds" label="Weeds, coarse grass" unit="%" record={record} onChange={onChange} />}
        <PlainField name="colour" label="Colour, 1 to 9" record={record} onChange={onChange} helperText="1 straw, 9 dark green" />
      </Box>
    </>
  );
} // prettier-ignore
