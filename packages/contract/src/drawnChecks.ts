import {
  type FeatureKind,
  type LengthName,
  type ShapeName,
  InputError,
  areaShape,
  checkGeometry,
  featureKinds,
} from '@glenfold/agronomy';
import type { ValidationArguments } from 'class-validator';
import { decorate } from './checks.ts';

/** A geometry of the plan that suits what it is drawn as; the message names the place in it that does not. */
export function Drawn(kind: FeatureKind | 'zone' | 'by kind'): PropertyDecorator {
  const fault = ({ value, object }: ValidationArguments): string | undefined => {
    const drawnAs = kind === 'by kind' ? (object as { kind: FeatureKind }).kind : kind;
    // A kind that nobody knows is refused by itself.
    if (drawnAs !== 'zone' && !featureKinds.includes(drawnAs)) return undefined;
    try {
      checkGeometry(value, drawnAs, 'The outline');
    } catch (error) {
      if (error instanceof InputError) return `${error.message}.`;
      throw error;
    }
    return undefined;
  };
  return decorate(
    'drawn',
    [kind],
    (_value, args) => fault(args) === undefined,
    (args) => fault(args) ?? '',
  ) as PropertyDecorator;
}

/** A simple shape whose lengths close it. */
export function Taped(): PropertyDecorator {
  const fault = ({ value }: ValidationArguments): string | undefined => {
    try {
      const { lengths, ...shape } = value as TapedShape;
      areaShape({ ...lengths, ...shape });
    } catch (error) {
      if (error instanceof InputError) return `${error.message}.`;
      throw error;
    }
    return undefined;
  };
  return decorate(
    'taped',
    [],
    (value, args) => typeof value === 'object' && value !== null && fault(args) === undefined,
    (args) => fault(args) ?? '',
  ) as PropertyDecorator;
}

/** A simple shape by its lengths, m, or in paces where a pace is given. */
export interface TapedShape {
  readonly shape: ShapeName;
  readonly lengths: Readonly<Partial<Record<LengthName, number>>>;
  /** m */
  readonly pace?: number;
  /** % by which a length may be off. */
  readonly spread?: number;
}
