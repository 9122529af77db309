import { Column, CreateDateColumn, Entity, PrimaryGeneratedColumn, VersionColumn } from 'typeorm';

/** The business that owns everything. */
@Entity('practice')
export class Practice {
  @PrimaryGeneratedColumn('uuid')
  id: string;

  @Column({ type: 'text' })
  name: string;

  /** Filled with the made-up scenario. */
  @Column({ type: 'boolean', default: false })
  demo: boolean;

  @CreateDateColumn({ type: 'timestamptz' })
  createdAt: Date;

  @VersionColumn({ default: 1 })
  version: number;
}
