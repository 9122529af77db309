import { randomBytes } from 'node:crypto';
import { existsSync, readFileSync } from 'node:fs';
import type { ServerResponse } from 'node:http';
import { join } from 'node:path';
import type { NestExpressApplication } from '@nestjs/platform-express';
import type { NextFunction, Request, RequestHandler, Response } from 'express';
import helmet from 'helmet';
import { type Installation, isSecure } from './installation.ts';

/** Stands in the built page where each answer gets a nonce of its own. */
const PLACE = '__NONCE__';

const nonceOf = (response: ServerResponse): string => (response as Response).locals.nonce as string;

/** What the pages use of a device: its camera for labels and photos, its place on the walk. */
const PERMISSIONS = [
  ...['camera=(self)', 'geolocation=(self)', 'accelerometer=()', 'autoplay=()', 'bluetooth=()', 'browsing-topics=()'],
  ...['display-capture=()', 'gyroscope=()', 'hid=()', 'magnetometer=()', 'microphone=()', 'midi=()', 'payment=()'],
  ...['serial=()', 'usb=()', 'xr-spatial-tracking=()'],
].join(', ');

const LOOPBACK = /^(localhost|127(\.\d{1,3}){3}|\[::1\])$/i;

/**
 * Only by the names that are ours: a page elsewhere whose name was turned to this machine is answered nothing.
 * Behind a proxy the name is that of GLENFOLD_URL.
 */
export function knownHosts({ address }: Installation): RequestHandler {
  const own = new URL(address).host;
  return ({ headers: { host = '' } }, response, next) => {
    const [name = ''] = /^(\[[^\]]*\]|[^:]*)/.exec(host) ?? [];
    if (host === own || LOOPBACK.test(name)) {
      next();
      return;
    }
    response
      .status(421)
      .type('text')
      .send(`This address is not one of Glenfold’s. Open ${address}; if people should come by this name, set GLENFOLD_URL to it.`);
  };
} // prettier-ignore

/** Headers that allow the browser our own files and nothing else: no foreign or inline script, style or frame. */
export function securityHeaders(installation: Installation): RequestHandler {
  const secure = isSecure(installation);
  const headers = helmet({
    strictTransportSecurity: secure,
    referrerPolicy: { policy: 'no-referrer' },
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        'default-src': ["'self'"],
        'script-src': ["'self'"],
        'style-src': ["'self'", (_request, response) => `'nonce-${nonceOf(response)}'`],
        'font-src': ["'self'"],
        'img-src': [
          "'self'",
          'data:',
          'blob:',
          ...(installation.tiles ? [new URL(installation.tiles.address).origin] : []),
        ],
        'worker-src': ["'self'"],
        'connect-src': ["'self'"],
        'object-src': ["'none'"],
        'base-uri': ["'none'"],
        'form-action': ["'self'"],
        'frame-ancestors': ["'none'"],
        'script-src-attr': ["'none'"],
        ...(secure ? { 'upgrade-insecure-requests': [] } : {}),
      },
    },
  });
  return (request, response, next) => {
    response.locals.nonce = randomBytes(18).toString('base64');
    response.setHeader('permissions-policy', PERMISSIONS);
    headers(request, response, next);
  };
}

/** The built web application; addresses it routes by itself all get its page. */
export function webPages(app: NestExpressApplication, folder: string): void {
  const file = join(folder, 'index.html');
  if (!existsSync(file)) return;
  const page = readFileSync(file, 'utf8');
  app.use((request: Request, response: Response, next: NextFunction) => {
    const isFile = request.path.startsWith('/api') || /\.\w+$/.test(request.path);
    if (!['GET', 'HEAD'].includes(request.method) || isFile) {
      next();
      return;
    }
    response
      .type('html')
      .set('cache-control', 'no-store')
      .send(page.replaceAll(PLACE, nonceOf(response)));
  });
  const assets = join(folder, 'assets');
  app.useStaticAssets(folder, {
    index: false,
    // Their names carry what is in them, so what was fetched once stays good; all else is asked after each time.
    setHeaders: (response: ServerResponse, path: string) =>
      response.setHeader('cache-control', path.startsWith(assets) ? 'public, max-age=31536000, immutable' : 'no-cache'),
  });
}
