import { PracticeAnswer } from '@glenfold/contract';
import { Controller, Get, Injectable, Module, type NestMiddleware } from '@nestjs/common';
import { ApiOkResponse, ApiTags } from '@nestjs/swagger';
import type { NextFunction, Request, Response } from 'express';
import { DataSource } from 'typeorm';
import { PracticeContext } from '../platform/practiceContext.ts';
import { Practice } from './practice.entity.ts';

@Injectable()
export class PracticeService {
  constructor(
    private readonly dataSource: DataSource,
    private readonly context: PracticeContext,
  ) {}

  /** The single practice of this installation, while there are no accounts yet. */
  async only(): Promise<Practice | null> {
    const [practice] = await this.dataSource.getRepository(Practice).find({ order: { createdAt: 'ASC' }, take: 1 });
    return practice ?? null;
  }

  current(): Promise<Practice> {
    return this.dataSource.getRepository(Practice).findOneByOrFail({ id: this.context.practiceId });
  }

  create(name: string, demo: boolean): Promise<Practice> {
    return this.dataSource.getRepository(Practice).save({ name, demo });
  }
}

/** Sets the practice that a request works for. Accounts will replace the single practice here and nowhere else. */
@Injectable()
export class PracticeMiddleware implements NestMiddleware {
  constructor(
    private readonly practices: PracticeService,
    private readonly context: PracticeContext,
  ) {}

  async use(_request: Request, _response: Response, next: NextFunction): Promise<void> {
    const practice = await this.practices.only();
    if (!practice) throw new Error('There is no practice yet: the start-up creates one.');
    this.context.run(practice.id, next);
  }
}

@ApiTags('people')
@Controller('practice')
class PracticeController {
  constructor(private readonly practices: PracticeService) {}

  @Get()
  @ApiOkResponse({ type: PracticeAnswer })
  async read(): Promise<PracticeAnswer> {
    const { name, demo } = await this.practices.current();
    return { name, demo };
  }
}

@Module({ controllers: [PracticeController], providers: [PracticeService], exports: [PracticeService] })
export class PeopleModule {}
