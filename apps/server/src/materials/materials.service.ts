import {
  type Material,
  type Product,
  type StockedMaterial,
  genericMaterials,
  materialColumns,
  productEffectiveness,
  productOf,
  unitPrice,
  writeMaterialRow,
} from '@glenfold/agronomy';
import type { GenericMaterialAnswer, MaterialInput, MaterialsFileAnswer, ProductAnswer } from '@glenfold/contract';
import { Injectable } from '@nestjs/common';
import papaparse from 'papaparse';
import { PracticeService } from '../people/practice.service.ts';
import type { Values } from '../platform/owned.ts';
import { refuse } from '../platform/problem.ts';
import { Records, type RecordsOf } from '../platform/records.ts';
import { Threads } from '../platform/threads.ts';
import { Days } from '../settings/days.service.ts';
import { materialsFile } from './materialsFile.ts';
import { ProductRecord } from './product.entity.ts';

/** Spreadsheets take a cell that begins so for a formula. */
const FORMULA = /^'*[=+\-@\t\r]/;

/** What the practice buys and spreads. */
@Injectable()
export class MaterialsService {
  constructor(
    private readonly records: Records,
    private readonly threads: Threads,
    private readonly days: Days,
    private readonly practices: PracticeService,
  ) {}

  products(): Promise<ProductRecord[]> {
    return this.records.of(ProductRecord).find({}, { position: 'ASC', createdAt: 'ASC' });
  }

  add(input: MaterialInput): Promise<ProductRecord> {
    return this.records.together(async (of) => {
      const known = await this.products();
      refuseTwin(known, input.name);
      return of(ProductRecord).add({
        ...(await this.#dated(valuesOf(input), undefined)),
        position: nextPosition(known),
      });
    });
  }

  change(id: string, input: MaterialInput, version: number): Promise<ProductRecord> {
    return this.records.together(async (of) => {
      const known = await this.products();
      refuseTwin(known, input.name, id);
      const before = known.find((one) => one.id === id);
      return of(ProductRecord).change(id, await this.#dated(valuesOf(input), before), { version, tell: productAnswer });
    });
  }

  remove(id: string): Promise<void> {
    return this.records.of(ProductRecord).remove(id);
  }

  async restore(id: string): Promise<ProductRecord> {
    const { name } = await this.records.of(ProductRecord).deleted(id);
    refuseTwin(await this.products(), name, id);
    return this.records.of(ProductRecord).restore(id);
  }

  /** The generic catalogue, and what of it is in the practice's list. */
  async generic(): Promise<GenericMaterialAnswer[]> {
    const here = new Set((await this.products()).map(({ name }) => name.toLowerCase()));
    return genericMaterials.map(({ name, kind }) => ({ name, kind, here: here.has(name.toLowerCase()) }));
  }

  /** Take generic materials into the list; those that are there already stay as they are. */
  takeOver(names: readonly string[]): Promise<MaterialsFileAnswer> {
    const wanted = genericMaterials.filter(({ name }) => names.includes(name));
    if (wanted.length < new Set(names).size)
      refuse([{ field: 'names', message: 'Choose materials of the generic catalogue.' }]);
    return this.records.together(async (of) => {
      const known = await this.products();
      const fresh = wanted.filter(({ name }) => !twinOf(known, name));
      await addAll(
        of,
        known,
        fresh.map((material) => ({ material, ...unpriced })),
      );
      return { added: fresh.length, changed: 0, unchanged: wanted.length - fresh.length };
    });
  }

  /** The generic catalogue for a new practice, with prices where it brings some. */
  async begin(prices: ReadonlyMap<string, Partial<Omit<StockedMaterial, 'material'>>> = new Map()): Promise<void> {
    const all = genericMaterials.map((material) => ({
      material,
      ...unpriced,
      ...prices.get(material.name),
    }));
    await this.records.together((of) => addAll(of, [], all));
  }

  async csv(): Promise<string> {
    const rows = (await this.products()).map((record) =>
      writeMaterialRow({ material: materialOf(record), ...keptOf(record) }),
    );
    return `${papaparse.unparse({ fields: [...materialColumns], data: rows }, { newline: '\n', escapeFormulae: FORMULA })}\n`;
  }

  /** A price that is new has today’s day, unless another was written. */
  async #dated(values: ProductValues, before: ProductRecord | undefined): Promise<ProductValues> {
    if (values.packPrice === null) return { ...values, pricedOn: null };
    const was = before?.pricedOn ?? null;
    if (values.packPrice === before?.packPrice) return { ...values, pricedOn: values.pricedOn ?? was };
    if (values.pricedOn !== null && values.pricedOn !== was) return values;
    return { ...values, pricedOn: await this.days.on(null) };
  }

  /** Read a materials file, all of it or nothing: a name that is there is changed, a new one added. */
  async import(csv: string): Promise<MaterialsFileAnswer> {
    const { currency } = await this.practices.current();
    const read = await this.threads.run(materialsFile, csv, currency);
    return this.records.together(async (of) => {
      const known = await this.products();
      const answer = { added: 0, changed: 0, unchanged: 0 };
      const fresh: StockedMaterial[] = [];
      for (const stocked of read) {
        const twin = twinOf(known, stocked.material.name);
        if (!twin) {
          fresh.push(stocked);
          answer.added += 1;
          continue;
        }
        const { version } = twin;
        const saved = await of(ProductRecord).change(twin.id, await this.#dated(valuesOf(inputOf(stocked)), twin));
        if (saved.version === version) answer.unchanged += 1;
        else answer.changed += 1;
      }
      await addAll(of, known, fresh);
      return answer;
    });
  }
}

type ProductValues = Omit<Values<ProductRecord>, 'position'>;

const twinOf = (known: readonly ProductRecord[], name: string): ProductRecord | undefined =>
  known.find((one) => one.name.toLowerCase() === name.toLowerCase());

function refuseTwin(known: readonly ProductRecord[], name: string, id?: string): void {
  const twin = twinOf(known, name);
  if (twin && twin.id !== id)
    refuse([
      { field: 'name', message: `${twin.name} is in the list already: choose another name, or change that one.` },
    ]);
}

const nextPosition = (known: readonly ProductRecord[]): number =>
  Math.max(-1, ...known.map(({ position }) => position)) + 1;

async function addAll(
  of: RecordsOf,
  known: readonly ProductRecord[],
  materials: readonly StockedMaterial[],
): Promise<void> {
  const first = nextPosition(known);
  await of(ProductRecord).addAll(
    materials.map((stocked, index) => ({ ...valuesOf(inputOf(stocked)), position: first + index })),
  );
}

type Kept = Omit<StockedMaterial, 'material'>;
const unpriced: Kept = { packPrice: null, stock: null, pricedOn: null, deliveryPrice: null, loadSize: null };
const keptOf = ({ packPrice, stock, pricedOn, deliveryPrice, loadSize }: ProductRecord): Kept => ({
  ...{ packPrice, stock, pricedOn, deliveryPrice, loadSize },
});
const inputOf = ({ material, ...kept }: StockedMaterial): MaterialInput => ({ ...material, ...kept }) as MaterialInput;

function valuesOf(input: MaterialInput): ProductValues {
  const { name, kind, analysis, nitrogenSource, chelate, seeds, caution, packSize, packUnit, packPrice, stock } = input;
  return {
    ...{ name, kind, packSize, packUnit },
    analysis: Object.fromEntries(Object.entries(analysis).filter(([, value]) => typeof value === 'number')),
    nitrogenSource: nitrogenSource ?? null,
    chelate: chelate ?? null,
    seeds: seeds ?? null,
    natural: input.natural ?? false,
    dolomitic: input.dolomitic ?? false,
    caustic: input.caustic ?? false,
    caution: caution ?? null,
    packPrice: packPrice ?? null,
    stock: stock ?? null,
    pricedOn: input.pricedOn ?? null,
    deliveryPrice: input.deliveryPrice ?? null,
    loadSize: input.loadSize ?? null,
  };
}

/** A record as the core has materials: what is not known is left out. */
export function materialOf(record: ProductRecord): Material {
  const { name, kind, analysis, nitrogenSource, chelate, seeds, natural, dolomitic, caustic, caution } = record;
  const { packSize, packUnit } = record;
  return {
    ...{ name, kind, analysis, packSize, packUnit },
    nitrogenSource: nitrogenSource ?? undefined,
    chelate: (chelate ?? undefined) as Material['chelate'],
    seeds: seeds ?? undefined,
    natural: natural || undefined,
    dolomitic: dolomitic || undefined,
    caustic: caustic || undefined,
    caution: caution ?? undefined,
  };
}

/** A record as rates are reckoned with it; nothing for what is not spread by its lime or nutrients. */
export function coreProduct(record: ProductRecord): Product | undefined {
  return productOf(record.id, materialOf(record), record.packPrice);
}

export function productAnswer(record: ProductRecord): ProductAnswer {
  const { id, version, name, kind, analysis, nitrogenSource, chelate, seeds, natural, dolomitic, caustic, caution } =
    record;
  const { packSize, packUnit, packPrice } = record;
  const lime = coreProduct(record)?.lime;
  return {
    ...{ id, version, name, kind, analysis, nitrogenSource, seeds, natural, dolomitic, caustic, caution },
    chelate: chelate as ProductAnswer['chelate'],
    ...{ packSize, packUnit },
    ...keptOf(record),
    effectiveness: lime ? productEffectiveness(lime).value : null,
    unitPrice: unitPrice(materialOf(record), packPrice),
  };
}
