import { zoneCost } from '@glenfold/agronomy';
import { materialInput, type ProductAnswer, type SiteProgramAnswer, type ZoneAnswer } from '@glenfold/contract';
import { get, send, textOf, typed, useDemoServer, zoneOf } from './client.ts';

const server = useDemoServer();

/** The text of a zone’s program as it is handed over now. */
async function printed(zone: ZoneAnswer, units: 'us' | 'metric'): Promise<string> {
  const { pdf } = await send<{ pdf: string }>('post', `/sites/${zone.siteId}/programs?units=${units}`, {
    zoneIds: [zone.id],
  });
  return textOf(pdf);
}

describe('a printed program', () => {
  it('is in the person’s units throughout', async () => {
    const zone = await zoneOf('Gannet', 'GR-1');
    const metric = await printed(zone, 'metric');
    expect(metric).toMatch(/422 m²/);
    expect(metric).toMatch(/g\/m²/);
    expect(metric).not.toMatch(/\blb\b|\bin deep/);
    const us = await printed(zone, 'us');
    expect(us).toMatch(/4,540 ft²/);
    expect(us).not.toMatch(/\bkg\b|g\/m²/);
  });

  it('shows every total, its reason and its caution first, then the test; workings only on the copy for the work', async () => {
    const zone = await zoneOf('Gannet', 'GR-1');
    const paper = await printed(zone, 'us');
    const [given = '', test = ''] = paper.split('What the test says');
    // The same share as on the site's page, and what it would cost alone beside it.
    const { zones, list } = await get<SiteProgramAnswer>(`/sites/${zone.siteId}/program?units=us`);
    const own = zones.find(({ zoneId }) => zoneId === zone.id)!;
    const share = zoneCost({ zoneId: zone.id, zone: own.name, treatments: own.program.treatments }, list, '$')!.value;
    expect(share).toBeLessThan(590);
    for (const words of [
      'Walled court',
      `For this zone: $${share.toFixed(2)} as its share`,
      '590.37 alone',
      'Lime',
      'P2O5',
      'K2O',
      'Wear a dust mask',
      'Pelletised',
    ])
      expect(given).toContain(words);
    expect(test).toMatch(/Organic matter/);
    expect(paper).not.toMatch(/How the numbers came about|Rounded|multiple of/);
    const work = await textOf(`/api/zones/${zone.id}/program.pdf?units=us&copy=work`);
    expect(work).toMatch(/How the numbers came about/);
    expect(work).toContain('60.4 − 0.87 × 63');
    expect((await server.owner().ask('get', `/zones/${zone.id}/program.pdf?units=us&copy=mine`)).status).toBe(400);
  });

  it('as a draft says so, and hands nothing over', async () => {
    const zone = await zoneOf('Gannet', 'GR-1');
    const handedOver = async (): Promise<number> => (await server.current().sql('SELECT 1 FROM program_zone')).length;
    const before = await handedOver();
    const draft = await textOf(`/api/zones/${zone.id}/program.pdf?units=us`);
    expect(draft).toMatch(/Draft: not handed over/);
    expect(await handedOver()).toBe(before);
    expect(await printed(zone, 'us')).not.toMatch(/Draft/);
    expect(await handedOver()).toBe(before + 1);
  });

  it('says plainly what it cannot say, and what need not be bought', async () => {
    const zone = await zoneOf('Gannet', 'GR-3');
    const enough = { value: 300, unit: 'mg/kg', basis: 'element' };
    await send('post', '/lab-results', typed(zone, { soilPh: 5.8, bufferPh: null, values: { p: enough, k: enough } }));
    const text = await printed(zone, 'us');
    expect(text).toMatch(/No buffer pH was measured, and none is wanted here/);
    expect(text).toMatch(/Not needed, and so not to be bought: Lime, P2O5, K2O\./);
    expect(text).not.toMatch(/Liming|dust mask/);
  });

  it('leaves the cost open while a price is missing, naming the product', async () => {
    const products = await get<ProductAnswer[]>('/products');
    const potash = products.find(({ name }) => name.startsWith('Sulfate of potash'))!;
    await send('put', `/products/${potash.id}`, { ...materialInput(potash), packPrice: null });
    const text = await printed(await zoneOf('Gannet', 'GR-1'), 'us');
    expect(text).toMatch(/Cost open: no price is set for Sulfate of potash/);
    expect(text).toMatch(/no price/);
  });
});
