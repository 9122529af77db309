import { execFileSync } from 'node:child_process';
import type { LabResultAnswer, ProblemAnswer, ProductAnswer, ZonePlanAnswer } from '@glenfold/contract';
import { get, send, typed, useDemoServer, zoneOf } from './client.ts';

const server = useDemoServer();

describe('a plan', () => {
  it('differs between two zones of one pH, and says why', async () => {
    const [court, lawn] = [await zoneOf('Gannet', 'GR-1'), await zoneOf('Gannet', 'GR-2')];
    const { result, plan } = await get<ZonePlanAnswer>(`/zones/${court.id}/plan?units=metric`);
    const other = await get<ZonePlanAnswer>(`/zones/${lawn.id}/plan?units=metric`);
    expect(result.values.soilPh!.value).toBe(other.result.values.soilPh!.value);
    expect(plan.lime.amount!.rate.value).toBeGreaterThan(3 * other.plan.lime.amount!.rate.value);
    expect(plan.comparisons.find(({ otherZone }) => otherZone === 'Sycamore lawn')!.reasons).toHaveLength(2);
  });

  it('takes the advisor’s products, and refuses one for another purpose', async () => {
    const { id } = await zoneOf('Gannet', 'GR-1');
    const products = await get<ProductAnswer[]>('/products');
    const pulverised = products.find(({ name }) => name.startsWith('Pulverised'))!;
    const { plan } = await send<ZonePlanAnswer>('put', `/zones/${id}/plan/choices?units=us`, { lime: pulverised.id });
    expect(plan.lime.amount!.productName).toBe(pulverised.name);
    expect(
      (await send<ProblemAnswer>('put', `/zones/${id}/plan/choices?units=us`, { nitrogen: pulverised.id }, 422))
        .errors[0]!.field,
    ).toBe('nitrogen');
    // One choice leaves the others as they were.
    const urea = products.find(({ name }) => name.startsWith('Urea'))!;
    const both = await send<ZonePlanAnswer>('put', `/zones/${id}/plan/choices?units=us`, { nitrogen: urea.id });
    expect(both.choices).toEqual({ lime: pulverised.id, nitrogen: urea.id });
    await send('put', `/products/${pulverised.id}`, { bagMass: 25, bagPrice: -1 }, 422);
    await send('put', `/products/${pulverised.id}`, { bagMass: 25, bagPrice: null });
    expect((await get<ZonePlanAnswer>(`/zones/${id}/plan?units=us`)).plan).toMatchObject({
      cost: null,
      unpriced: [pulverised.name],
    });
    await send('put', `/products/${pulverised.id}`, { bagMass: 25, bagPrice: 6 });
  });

  it('once handed over is frozen: the paper stays when the test is corrected', async () => {
    const zone = await zoneOf('Gannet', 'GR-2');
    const { pdf } = await send<{ pdf: string }>('post', `/zones/${zone.id}/plans?units=us`);
    const read = async (): Promise<string> => {
      const paper = await server
        .owner()
        .agent.get(pdf)
        .expect('content-type', 'application/pdf')
        .buffer(true)
        .parse((response, done) => {
          const parts: Buffer[] = [];
          response.on('data', (part: Buffer) => parts.push(part));
          response.on('end', () => done(null, Buffer.concat(parts)));
        });
      return execFileSync('pdftotext', ['-layout', '-', '-'], { input: paper.body as Buffer, encoding: 'utf8' });
    };
    const paper = await read();
    expect(paper).toMatch(/Sycamore lawn[\s\S]*pH 5.3 is below this mix’s 6.0–6.5. Lime to 6.1/);
    expect(paper).toMatch(/Walled court has pH 5.3 too/);
    const [newest] = (await get<LabResultAnswer[]>(`/sites/${zone.siteId}/lab-results`)).filter(({ zoneIds }) =>
      zoneIds.includes(zone.id),
    );
    await send('put', `/lab-results/${newest!.id}`, typed(zone, { soilPh: 6.1 }));
    expect(await read()).toBe(paper);
  });
});
