import { Button } from '@mui/material';
import type { PictureType } from '@glenfold/contract';
import { useRef, useState } from 'react';
import { LONGEST_PHOTO } from '../../offline/photos.ts';
import { Trouble } from '../bits.tsx';
import { shrink } from '../shrink.ts';

/** A picture as it was taken here, made small. */
export interface TakenPhoto {
  readonly id: string;
  readonly type: PictureType;
  readonly image: string;
}

interface TakePhotoProps {
  /** What stands on the button. */
  readonly children: string;
  /** What the picture is of. */
  readonly label: string;
  readonly onPhoto: (photo: TakenPhoto) => Promise<void> | void;
}

/** Takes a picture with the device's camera, or from its album, and makes it small before anything else is done with it. */
export function TakePhoto({ children, label, onPhoto }: TakePhotoProps) {
  const [fault, setFault] = useState<Error | null>(null);
  const file = useRef<HTMLInputElement>(null);
  const take = async (picked: File | undefined): Promise<void> => {
    if (!picked) return;
    setFault(null);
    try {
      const { type, image } = await shrink(picked, LONGEST_PHOTO);
      await onPhoto({ id: crypto.randomUUID(), type, image });
    } catch (problem) {
      setFault(problem as Error);
    }
  };
  return (
    <>
      <Button variant="outlined" onClick={() => file.current?.click()} sx={{ minHeight: 48 }}>
        {children}
      </Button>
      <input
        ref={file}
        type="file"
        accept="image/*"
        capture="environment"
        hidden
        aria-label={label}
        onChange={(event) => void take(event.target.files?.[0])}
      />
      <Trouble error={fault} />
    </>
  );
}
