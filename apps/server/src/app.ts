import { join } from 'node:path';
import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import compression from 'compression';
import cookieParser from 'cookie-parser';
import { Logger } from 'nestjs-pino';
import { AppModule } from './app.module.ts';
import { FirstRun } from './demo/firstRun.ts';
import { RunsWorker } from './runs/runsWorker.ts';
import { SessionService } from './people/session.service.ts';
import { bodies, whoAsks } from './platform/bodies.ts';
import { appConnection, oneStartAtATime, prepareDatabase } from './database.ts';
import { logAt, requestLog } from './platform/log.ts';
import { DescriptionController, describeApi, readDescribed } from './platform/openapi.ts';
import { ProblemFilter } from './platform/problem.ts';
import { type Installation, isSecure } from './platform/installation.ts';
import { Threads } from './platform/threads.ts';
import { ContractPipe } from './platform/validation.ts';
import { knownHosts, securityHeaders, webPages } from './platform/webPages.ts';

export interface AppOptions {
  /** The repository's folder, which holds demo/ and the built web application. */
  readonly root: string;
  /** As the server enters it: its own role changes into those of the application. */
  readonly databaseUrl: string;
  /** As the owner of its tables, for migrations, where that is another one. */
  readonly ownerUrl?: string | undefined;
  /** Start without the demo scenario. */
  readonly empty: boolean;
  /** Address that people open. */
  readonly address: string;
  readonly smtp?: string | undefined;
  readonly mailFrom?: string | undefined;
  readonly tiles?: Installation['tiles'];
  readonly quiet?: boolean;
  /** The least that is written down: `error`, `warn` (unless told otherwise), `info` or `debug`. */
  readonly log?: string | undefined;
  /** By itself, as in tests: nothing happens unasked each minute, and heavy work has no threads, which need a build. */
  readonly plain?: boolean;
}

/** ms that a request may take to come in. */
const MOST_RECEIVED = 3_600_000;

/** Folder of photos and laboratories’ files: beside the private database unless told otherwise. */
function filesOf(root: string): string {
  const { GLENFOLD_FILES, GLENFOLD_HOME = join(root, '.glenfold') } = process.env;
  return GLENFOLD_FILES ?? join(GLENFOLD_HOME, 'files');
}

/**
 * The whole application, ready to listen: API under /api, the web application elsewhere. Of several that start at
 * once, one after the other brings the tables up to date and loads the demo.
 */
export const createApp = (options: AppOptions): Promise<NestExpressApplication> =>
  oneStartAtATime(options.ownerUrl ?? options.databaseUrl, () => start(options));

async function start(options: AppOptions): Promise<NestExpressApplication> {
  const { root, databaseUrl, empty, address, smtp, mailFrom = 'glenfold@localhost', tiles, quiet = false } = options;
  const found = await prepareDatabase(options.ownerUrl ?? databaseUrl);
  const loadDemo = found.practices === 0 && !empty;
  // Only the made-up practice is ever offered with one click; a real one in this database rules it out.
  const installation = {
    address,
    smtp,
    mailFrom,
    files: filesOf(root),
    tiles,
    clock: !options.plain,
    threads: !options.plain,
    demo: !empty && (loadDemo || found.demo),
  };
  const logger = logAt(quiet ? 'error' : (options.log ?? 'warn'));
  const app = await NestFactory.create<NestExpressApplication>(AppModule.with(installation, databaseUrl, logger), {
    bufferLogs: true,
    bodyParser: false,
    abortOnError: false,
  });
  app.useLogger(app.get(Logger));
  // Behind a proxy that speaks https, the visitor's address is in its header.
  if (isSecure(installation)) app.set('trust proxy', 'loopback');
  app.use(requestLog(logger));
  app.use(knownHosts(installation));
  app.use(securityHeaders(installation));
  app.use(compression());
  app.use(cookieParser());
  const sessions = app.get(SessionService);
  app.use(whoAsks((token) => sessions.access(token)));
  app.setGlobalPrefix('api');
  const description = describeApi(app, readDescribed(join(root, 'apps/server/dist/described.json')));
  app.get(DescriptionController).description = description;
  app.use(bodies(description));
  app.useGlobalPipes(new ContractPipe(app.get(Threads)));
  app.useGlobalFilters(new ProblemFilter());
  app.enableShutdownHooks();
  webPages(app, join(root, 'apps/web/dist'));

  await app.init();
  // An export of many photos comes slowly over a thin line; what a stranger sends is small, and is cut off before.
  app.getHttpServer().requestTimeout = MOST_RECEIVED;
  await app.get(RunsWorker).open(appConnection(databaseUrl));
  if (loadDemo) await app.get(FirstRun).loadDemo(join(root, 'demo'));
  return app;
}
