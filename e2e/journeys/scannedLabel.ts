import { writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import qrcode from 'qrcode';

/** What the browser's camera films instead of the world. */
export const filmed = join(tmpdir(), 'glenfold-filmed-label.y4m');

const [WIDTH, HEIGHT, DOT] = [640, 480, 9];

/** Film a label with a code on it: a few frames of uncompressed grey video. */
export function film(text: string): void {
  const { size, data } = qrcode.create(text, { errorCorrectionLevel: 'M' }).modules;
  const light = Buffer.alloc(WIDTH * HEIGHT, 0xe8);
  const [left, top] = [Math.floor((WIDTH - size * DOT) / 2), Math.floor((HEIGHT - size * DOT) / 2)];
  for (let row = 0; row < size * DOT; row += 1)
    for (let column = 0; column < size * DOT; column += 1)
      if (data[Math.floor(row / DOT) * size + Math.floor(column / DOT)])
        light[(top + row) * WIDTH + left + column] = 0x18;
  const colourless = Buffer.alloc((WIDTH * HEIGHT) / 2, 128);
  const frame = Buffer.concat([Buffer.from('FRAME\n'), light, colourless]);
  const head = Buffer.from(`YUV4MPEG2 W${WIDTH} H${HEIGHT} F10:1 Ip A1:1 C420jpeg\n`);
  writeFileSync(filmed, Buffer.concat([head, ...Array.from({ length: 10 }, () => frame)]));
}
