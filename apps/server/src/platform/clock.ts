import { Injectable } from '@nestjs/common';

/** The one clock of the server: nothing else asks the machine for the time. Which day that is, is a matter of the place. */
@Injectable()
export class Clock {
  now(): Date {
    return new Date();
  }
}
