import { setTimeout as pause } from 'node:timers/promises';
import { HealthAnswer } from '@glenfold/contract';
import { type BeforeApplicationShutdown, Controller, Get } from '@nestjs/common';
import { ApiOkResponse, ApiTags } from '@nestjs/swagger';
import { Door } from './door.ts';
import { For } from './gate.ts';
import { Problem } from './problem.ts';

/** ms that the database has to answer, before a proxy is told to ask another server. */
const ANSWERS_WITHIN = 2_000;

/** What proxies and whoever watches over servers ask; nothing of it is secret. */
@ApiTags('health')
@Controller()
export class HealthController implements BeforeApplicationShutdown {
  #closing = false;

  constructor(private readonly door: Door) {}

  beforeApplicationShutdown(): void {
    this.#closing = true;
  }

  /** Whether this server answers, whatever its database does: who restarts servers asks this. */
  @Get('health')
  @For('anyone')
  @ApiOkResponse({ type: HealthAnswer })
  health(): HealthAnswer {
    return { name: 'Glenfold', status: 'up' };
  }

  /** Whether this server can serve people, its database included: who shares requests out asks this. */
  @Get('ready')
  @For('anyone')
  @ApiOkResponse({ type: HealthAnswer })
  async ready(): Promise<HealthAnswer> {
    if (this.#closing) throw new Problem(503, 'Closing', 'This server is being stopped. Ask another one.', [], 1);
    const asked = this.door
      .open((manager) => manager.query('SELECT 1'))
      .then(
        () => true,
        () => false,
      );
    if (!(await Promise.race([asked, pause(ANSWERS_WITHIN, false, { ref: false })])))
      throw new Problem(503, 'The database is away', 'The database does not answer this server.', [], 1);
    return { name: 'Glenfold', status: 'ready' };
  }
}
