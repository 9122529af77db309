import type { BagAnswer, LaboratoryAnswer, ProblemAnswer } from '@glenfold/contract';
import { get, send, siteOf, textOf, useDemoServer, zoneOf } from './client.ts';
import { bagBody, laboratoryBody } from './promisedRoutes.ts';
import { demoEmails, signIn } from './harness.ts';

const server = useDemoServer();

const own = {
  ...laboratoryBody,
  ...{ address: 'Harbour Road 4\nPort Fennimore', scientist: 'Dr Ilse Marram', phone: '555 0114', bufferMethod: 'smp' },
};

describe('a laboratory of the practice’s own', () => {
  it('stands beside those that let know by themselves, and is chosen for bags with its fee and its address', async () => {
    const made = await send<LaboratoryAnswer>('post', '/laboratories', own);
    expect(made).toMatchObject({ simulated: false, daysMost: 9, scientist: 'Dr Ilse Marram' });
    const all = await get<LaboratoryAnswer[]>('/laboratories');
    expect(all.filter(({ id }) => id !== null).map(({ name }) => name)).toEqual(['Tidewater Soils']);
    expect(all.length).toBeGreaterThan(1);
    const zone = await zoneOf('Harbour', 'HS-1');
    const plan = { bags: [{ ...bagBody(zone.id), laboratory: made.name }] };
    const [bag] = await send<BagAnswer[]>('post', `/sites/${(await siteOf('Harbour')).id}/bags`, plan);
    const form = await textOf(`/api/bags/submission.pdf?units=us&ids=${bag!.id}`);
    expect(form).toMatch(/to Tidewater Soils, Harbour Road 4, Port Fennimore/);
    expect(form).toMatch(/18/);
    // Those who see no costs see it without its fees.
    const technician = await signIn(server.current(), demoEmails.technician);
    const seen = (await technician.ask('get', '/laboratories')).body as LaboratoryAnswer[];
    expect(seen.find(({ name }) => name === made.name)!.fees).toEqual([]);
  });

  it.each([
    ['a name that is there already', { name: 'TIDEWATER soils' }, 'name', /is there already/],
    ['the name of one that lets know', { name: 'Fennimore soil laboratory' }, 'name', /is there already/],
    ['days the wrong way round', { name: 'A', daysLeast: 9, daysMost: 5 }, 'daysMost', /9 days or more/],
    [
      'a depth the wrong way round',
      { name: 'A', depths: [{ for: 'lawns', from: 12, to: 8 }] },
      'depths.0.to',
      /less to the more/,
    ],
    ['two fees of one panel', { name: 'A', fees: [own.fees[0], own.fees[0]] }, 'fees.1.panel', /keep one/],
    ['a panel nobody knows', { name: 'A', fees: [{ panel: 'gold', fee: 1 }] }, 'fees.0.panel', /choose one of/],
    ['a bag of nothing', { name: 'A', volume: 0 }, 'volume', /20 to 5000 mL/],
  ])('refuses %s', async (_what, more, field, message) => {
    const { errors } = await send<ProblemAnswer>('post', '/laboratories', { ...own, ...more }, 422);
    expect(errors).toEqual([{ field, message: expect.stringMatching(message) as string }]);
  });

  it('comes back when it was deleted by mistake, unless its name was given away meanwhile', async () => {
    const { id } = await send<LaboratoryAnswer>('post', '/laboratories', { ...own, name: 'Second' });
    await send('delete', `/laboratories/${id}`);
    const twin = await send<LaboratoryAnswer>('post', '/laboratories', { ...own, name: 'second' });
    await send('post', `/laboratories/${id}/restore`, undefined, 422);
    await send('delete', `/laboratories/${twin.id}`);
    expect(await send<LaboratoryAnswer>('post', `/laboratories/${id}/restore`)).toMatchObject({ name: 'Second' });
  });
});
