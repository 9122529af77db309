import type { PictureType } from '@glenfold/contract';
import { base64 } from './base64.ts';

export interface ShrunkPicture {
  readonly type: PictureType;
  /** Base64. */
  readonly image: string;
  readonly width: number;
  readonly height: number;
}

/**
 * A picture no larger than it needs to be, as a JPEG: phones make ten times what a screen shows.
 *
 * @param longest pixels of its longer side.
 * @throws with words for what is no picture
 */
export async function shrink(file: Blob, longest: number, quality = 0.82): Promise<ShrunkPicture> {
  const bitmap = await createImageBitmap(file).catch(() => {
    throw new Error('This is no picture that can be read here. Choose a JPEG, PNG or WebP file.');
  });
  const scale = Math.min(1, longest / Math.max(bitmap.width, bitmap.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(bitmap.width * scale));
  canvas.height = Math.max(1, Math.round(bitmap.height * scale));
  const context = canvas.getContext('2d');
  if (!context) throw new Error('The picture cannot be made smaller here.');
  // What was clear in a PNG is white on paper.
  context.fillStyle = '#FFFFFF';
  context.fillRect(0, 0, canvas.width, canvas.height);
  context.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  bitmap.close();
  const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/jpeg', quality));
  if (!blob) throw new Error('The picture cannot be made smaller here.');
  return { type: 'image/jpeg', image: await base64(blob), width: canvas.width, height: canvas.height };
}
