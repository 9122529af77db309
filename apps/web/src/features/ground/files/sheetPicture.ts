import atkinsonBold from '@fontsource/atkinson-hyperlegible/files/atkinson-hyperlegible-latin-700-normal.woff2?url';
import atkinson from '@fontsource/atkinson-hyperlegible/files/atkinson-hyperlegible-latin-400-normal.woff2?url';
import bitter from '@fontsource/bitter/files/bitter-latin-700-normal.woff2?url';

const SCALE = 3;

/** A font as it stands inside a drawing: a picture may load nothing. */
async function face(family: string, weight: string, address: string): Promise<string> {
  const bytes = new Uint8Array(await (await fetch(address)).arrayBuffer());
  const text = bytes.reduce((all, byte) => all + String.fromCharCode(byte), '');
  return `@font-face{font-family:${family};font-weight:${weight};src:url(data:font/woff2;base64,${btoa(text)})}`;
}

/** A drawing in points as a PNG of 216 dots to the inch. @throws with words when it cannot be made */
export async function pictureOf(svg: string): Promise<Blob> {
  const faces = await Promise.all([
    face('Atkinson', 'normal', atkinson),
    face('Atkinson', 'bold', atkinsonBold),
    face('Bitter', 'normal', bitter),
  ]);
  const styled = svg.replace('<defs>', `<defs><style>${faces.join('')}</style>`);
  const address = URL.createObjectURL(new Blob([styled], { type: 'image/svg+xml' }));
  try {
    const image = new Image();
    image.src = address;
    await image.decode();
    const canvas = document.createElement('canvas');
    canvas.width = image.naturalWidth * SCALE;
    canvas.height = image.naturalHeight * SCALE;
    canvas.getContext('2d')?.drawImage(image, 0, 0, canvas.width, canvas.height);
    const blob = await new Promise<Blob | null>((resolve) => canvas.toBlob(resolve, 'image/png'));
    if (!blob) throw new Error('no picture');
    return blob;
  } catch (error) {
    throw new Error('The picture cannot be made in this browser. Take the PDF instead.', { cause: error });
  } finally {
    URL.revokeObjectURL(address);
  }
}
