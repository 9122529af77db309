import { Injectable } from '@nestjs/common';
import { EachPractice } from '../runs/eachPractice.ts';
import { LaboratoriesService } from './laboratories.service.ts';

/** Asks the laboratories of every practice each minute, on one of the servers. */
@Injectable()
export class LabPost {
  constructor(
    private readonly practices: EachPractice,
    private readonly laboratories: LaboratoriesService,
  ) {
    practices.eachMinute(LabPost.name, () => laboratories.ask());
  }

  /** At once, in every practice. */
  ask(): Promise<void> {
    return this.practices.now(LabPost.name, () => this.laboratories.ask());
  }
}
