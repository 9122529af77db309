import { Injectable } from '@nestjs/common';

/** The one clock of the server. Days are those of the place it runs in, until sites have a time zone of their own. */
@Injectable()
export class Clock {
  now(): Date {
    return new Date();
  }

  /** `2026-10-14` */
  day(at: Date = this.now()): string {
    return dayOf(at);
  }
}

/** The day of a moment in the place where the server runs, `2026-10-14`. */
export function dayOf(at: Date): string {
  const two = (part: number): string => String(part).padStart(2, '0');
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}`;
}
