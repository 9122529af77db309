import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import type { NextFunction, Request, Response } from 'express';
import helmet from 'helmet';
import { AppModule } from './app.module.ts';
import { FirstRun, demoFolder } from './demo/firstRun.ts';
import { describeApi } from './platform/openapi.ts';
import { ProblemFilter } from './platform/problem.ts';
import { contractPipe } from './platform/validation.ts';

export interface AppOptions {
  /** The repository's folder, which holds demo/ and the built web application. */
  readonly root: string;
  /** Start without the demo scenario. */
  readonly empty: boolean;
  readonly quiet?: boolean;
}

/** The whole application, ready to listen: API under /api, the web application elsewhere. */
export async function createApp({ root, empty, quiet = false }: AppOptions): Promise<NestExpressApplication> {
  const app = await NestFactory.create<NestExpressApplication>(AppModule, {
    logger: quiet ? ['error'] : ['error', 'warn'],
    bodyParser: false,
    abortOnError: false,
  });
  app.useBodyParser('json', { limit: '3mb' });
  app.setGlobalPrefix('api');
  app.useGlobalPipes(contractPipe);
  app.useGlobalFilters(new ProblemFilter());
  app.use(
    helmet({
      strictTransportSecurity: false,
      contentSecurityPolicy: {
        directives: {
          'upgrade-insecure-requests': null,
          'style-src': ["'self'", "'unsafe-inline'"],
          'font-src': ["'self'"],
          'img-src': ["'self'", 'data:', 'blob:'],
        },
      },
    }),
  );
  app.enableShutdownHooks();

  const web = join(root, 'apps/web/dist');
  app.useStaticAssets(web);
  app.use((request: Request, response: Response, next: NextFunction) => {
    const page = request.method === 'GET' && !request.path.startsWith('/api') && existsSync(join(web, 'index.html'));
    if (page) response.sendFile(join(web, 'index.html'));
    else next();
  });

  const description = describeApi(app);
  app.use('/api/openapi.json', (_request: Request, response: Response) => void response.json(description));
  await app.init();
  await app.get(FirstRun).fill(demoFolder(root), empty);
  return app;
}
