import type { Permission, RoundsTask, Step, StepState } from '@glenfold/contract';

/** How far a step is on one site. */
export type State = Pick<StepState, 'words' | 'state'>;

/** A task with the record that it is about, by which its place in the list is found again. */
export interface FoundTask extends Omit<RoundsTask, 'step'> {
  readonly id: string;
}

/** The last task of a page: the next one begins behind it. */
export type Behind = Pick<FoundTask, 'siteName' | 'id'>;

/** Tasks of one kind, on all sites. */
export interface TaskKind {
  /** Its name in the address of a page. */
  readonly name: string;
  /** The smaller, the sooner: one kind is told whole before the next. */
  readonly pressing: number;
  /** Who is to do it. */
  readonly may: Permission;
  /** By name of site and id, in one statement. */
  readonly page: (behind: Behind | undefined, limit: number) => Promise<FoundTask[]>;
}

/** Numbers of one site that a step's state is told from. */
export type Facts<K extends string = string> = Readonly<Record<K, number>>;

/** What a step tells of itself to whoever looks across sites. Written beside the step, and known by `StepReporters`. */
export interface StepReporter<K extends string = string> {
  readonly step: Step;
  /**
   * Statement that gives `"siteId"` and the numbers of the step, a row a site: of the practice `$1`, for the sites `$2`,
   * at the moment `$3`. Those of all steps are asked as one.
   */
  readonly numbers: string;
  /** What the statement of this step and of others rests on, by name: asked once for all that name it. */
  readonly shared?: Readonly<Record<string, string>>;
  readonly state: (facts: Facts<K>) => State;
  readonly tasks: readonly TaskKind[];
}
