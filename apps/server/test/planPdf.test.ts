import type { ProductAnswer, ZoneAnswer } from '@glenfold/contract';
import { get, send, textOf, typed, useDemoServer, zoneOf } from './client.ts';

useDemoServer();

/** The text of a zone's plan as it prints now. */
async function printed(zone: ZoneAnswer, units: 'us' | 'metric'): Promise<string> {
  const { pdf } = await send<{ pdf: string }>('post', `/zones/${zone.id}/plans?units=${units}`);
  return textOf(pdf);
}

describe('a printed plan', () => {
  it('is in the person’s units throughout', async () => {
    const zone = await zoneOf('Gannet', 'GR-1');
    const metric = await printed(zone, 'metric');
    expect(metric).toMatch(/422 m²/);
    expect(metric).toMatch(/g\/m²/);
    expect(metric.split('How the numbers came about')[0]).not.toMatch(/\blb\b|\bin deep/);
    const us = await printed(zone, 'us');
    expect(us).toMatch(/4,540 ft²/);
    expect(us.split('How the numbers came about')[0]).not.toMatch(/\bkg\b|g\/m²/);
  });

  it('shows every total on its first page and the workings from a page of their own', async () => {
    const [first = '', second = ''] = (await printed(await zoneOf('Gannet', 'GR-1'), 'us')).split('\f');
    for (const words of [
      'Walled court',
      'Products for this zone: $233.60',
      'What the test says',
      'Lime',
      'Fertilizer for the year',
      'P2O5',
      'K2O',
      'Wear a dust mask',
    ])
      expect(first).toContain(words);
    expect(second.trim()).toMatch(/^How the numbers came about/);
    expect(second).toContain('60.4 − 0.87 × 63');
  });

  it('says plainly what it cannot say, and what need not be bought', async () => {
    const zone = await zoneOf('Gannet', 'GR-3');
    const enough = { value: 300, unit: 'mg/kg', basis: 'element' };
    await send(
      'post',
      '/lab-results',
      typed(zone, { soilPh: 5.1, bufferPh: null, nutrients: { p: enough, k: enough } }),
    );
    const text = await printed(zone, 'us');
    expect(text).toMatch(/No buffer pH was measured/);
    expect(text).toMatch(/Not needed, and so not to be bought: P2O5, K2O\./);
    expect(text).not.toMatch(/Liming|dust mask/);
  });

  it('leaves the cost open while a price is missing, naming the product', async () => {
    const products = await get<ProductAnswer[]>('/products');
    const potash = products.find(({ name }) => name.startsWith('Sulfate of potash'))!;
    await send('put', `/products/${potash.id}`, { bagMass: potash.bagMass, bagPrice: null });
    const text = await printed(await zoneOf('Gannet', 'GR-1'), 'us');
    expect(text).toMatch(/Cost open: no price is set for Sulfate of potash/);
    expect(text).toMatch(/no price/);
  });
});
