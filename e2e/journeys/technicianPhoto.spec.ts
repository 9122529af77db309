import { type Page, expect, test } from './person.ts';

test.use({ as: 'Wynn' });

/** A picture as a phone’s camera takes it: twelve megapixels with grain, some megabytes. */
async function cameraPicture(page: Page): Promise<Buffer> {
  const base64 = await page.evaluate(async () => {
    const canvas = new OffscreenCanvas(4032, 3024);
    const context = canvas.getContext('2d')!;
    const grain = context.createImageData(504, 378);
    for (let at = 0; at < grain.data.length; at += 1) grain.data[at] = at % 4 === 3 ? 255 : (at * 7919 + (at >> 3) * 104_729) % 256;
    for (let x = 0; x < 8; x += 1) for (let y = 0; y < 8; y += 1) context.putImageData(grain, x * 504, y * 378);
    const bytes = new Uint8Array(await (await canvas.convertToBlob({ type: 'image/jpeg', quality: 0.9 })).arrayBuffer());
    let text = '';
    for (let at = 0; at < bytes.length; at += 8192) text += String.fromCharCode(...bytes.subarray(at, at + 8192));
    return btoa(text);
  });
  return Buffer.from(base64, 'base64');
} // prettier-ignore

test('a technician’s photo from the camera arrives, and so does what was done after it', async ({ page }) => {
  await page.setViewportSize({ width: 390, height: 844 });
  const { sites } = (await (await page.request.get('/api/sites?text=Gannet')).json()) as {
    readonly sites: ReadonlyArray<{ readonly id: string }>;
  };
  const [zone] = (await (await page.request.get(`/api/sites/${sites[0]!.id}/zones`)).json()) as ReadonlyArray<{
    readonly id: string;
  }>;
  await page.goto(`/tests/${sites[0]!.id}?zone=${zone!.id}`);
  await page.getByRole('button', { name: /^Probe stop How/ }).click();
  const buffer = await cameraPicture(page);
  expect(buffer.length).toBeGreaterThan(1_000_000);
  await page.getByLabel('Photo of the test').setInputFiles({ name: 'probe.jpg', mimeType: 'image/jpeg', buffer });
  await expect(page.getByRole('img', { name: 'Photo 1 of the test' })).toBeVisible();
  await page.getByRole('textbox', { name: 'It stops at' }).fill('5 in');
  await page.getByRole('button', { name: 'Add', exact: true }).click();
  await expect(page.getByRole('status', { name: 'Sending' })).toHaveText('all sent');
  // Nothing was put aside as refused, and the server has the picture with its test.
  await expect(page.getByRole('button', { name: 'I have read it' })).toHaveCount(0);
  const kept = async (): Promise<number> => {
    const photos = (await (await page.request.get(`/api/sites/${sites[0]!.id}/photos`)).json()) as ReadonlyArray<{
      readonly fieldTestId?: string | null;
    }>;
    return photos.filter(({ fieldTestId }) => fieldTestId).length;
  };
  await expect.poll(kept).toBeGreaterThan(0);
});
