import type { SampleKind } from '@glenfold/agronomy';
import { Column, Entity } from 'typeorm';
import { Owned } from '../platform/owned.ts';

/** What a laboratory measured, or an advisor: one for each bag, or for each label that was typed, with the zones that share it. */
@Entity('sample')
export class Sample extends Owned {
  @Column({ type: 'uuid' })
  siteId: string;

  /** The bag it came in, where that was planned here. */
  @Column({ type: 'uuid', nullable: true })
  bagId: string | null;

  /** A copy for some of the bag's zones, which somebody corrected apart from the others in an earlier version. */
  @Column({ type: 'boolean', nullable: true })
  apart: boolean | null;

  @Column({ type: 'text', default: 'soil' })
  of: SampleKind;

  /** As written on the bag. */
  @Column({ type: 'text' })
  label: string;

  @Column({ type: 'date', nullable: true })
  sampledOn: string | null;

  /** cm; where the slice begins. */
  @Column({ type: 'double precision', default: 0 })
  depthFrom: number;

  /** cm; where it ends. */
  @Column({ type: 'double precision' })
  depth: number;

  /** Of the composite, where somebody told; a bag that was planned here counts its own. */
  @Column({ type: 'integer', nullable: true })
  cores: number | null;
}
