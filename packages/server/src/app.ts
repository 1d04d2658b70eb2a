import { join } from 'node:path';
import { cutPlanJsonSchema } from '@zabrik/contract';
import { earlyReads } from '@zabrik/contract/early';
import { allEndpoints, openApiDocument } from '@zabrik/contract/openapi';
import compression from 'compression';
import express, { type ErrorRequestHandler, type Express } from 'express';
import staticGzip from 'express-static-gzip';
import helmet from 'helmet';
import { absolutePath as swaggerFiles } from 'swagger-ui-dist';
import { sameOrigin } from './access/sameOrigin.ts';
import type { sessions } from './access/session.ts';
import { byToken } from './access/tokens.ts';
import { olderApp } from './http/olderApp.ts';
import { asProblem, Problem, problemDocument } from './http/problem.ts';
import { requestId, requestLog } from './http/requestLog.ts';
import type { Announcer } from './live/announcer.ts';
import { stream } from './live/stream.ts';
import type { Services } from './services.ts';
import { stations } from './stations/index.ts';

export interface Parts {
  readonly services: Services;
  readonly session: ReturnType<typeof sessions>['handler'];
  readonly announcer: Announcer;
  /** Whether a session still stands. */
  readonly isOpen: (sessionId: string) => Promise<boolean>;
  /** The longest time that one piece of work kept all others waiting. */
  readonly longestStallMs: () => number;
}

const YEAR = '365d';

const docsPage = `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>Zabrik API</title>
<link rel="stylesheet" href="/api/v1/docs/files/swagger-ui.css"></head><body><div id="api"></div>
<script src="/api/v1/docs/files/swagger-ui-bundle.js"></script><script src="/api/v1/docs/start.js"></script></body></html>`;
const docsStart = `SwaggerUIBundle({ url: '/api/v1/openapi.json', dom_id: '#api', validatorUrl: null });`;

/** Puts the server together: security, log, API, live stream, the web client's files, and one place that words every refusal. */
export function createApp({ services, session, announcer, isOpen, longestStallMs }: Parts): Express {
  const app = express();
  app.disable('x-powered-by');
  app.set('etag', false); // answers of the API are never kept; files have their own
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'"],
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:'],
          fontSrc: ["'self'"],
          connectSrc: ["'self'"],
          workerSrc: ["'self'"],
          manifestSrc: ["'self'"],
          objectSrc: ["'none'"],
          baseUri: ["'none'"],
          formAction: ["'self'"],
          frameAncestors: ["'none'"],
        },
      },
      strictTransportSecurity: false,
    }),
  );
  app.get('/healthz', (_request, response) => void response.json({ up: true, longestStallMs: longestStallMs() }));
  app.get('/readyz', async (_request, response) => {
    try {
      await services.db.query('select 1 from movement limit 1');
    } catch {
      response.status(503).json({ ready: false, why: 'database_away' });
      return;
    }
    const full = await services.disk.isFull();
    response.status(full ? 503 : 200).json(full ? { ready: false, why: 'disk_full' } : { ready: true });
  });
  app.use(requestLog(services.log));
  const compress = compression();
  // over a kitchen's own network the time to squeeze an answer hard is more than it saves
  const compressAnswer = compression({ level: 1 });
  app.use((request, response, next) => {
    // answers to commands are small, and the live stream must not wait in a buffer
    if (request.method !== 'GET' || request.path === '/api/v1/live') next();
    else (request.path.startsWith('/api/') ? compressAnswer : compress)(request, response, next);
  });
  const router = express.Router();
  router.use(byToken(services, express.Router().use(sameOrigin, session)));
  // a photograph or a part of a price list is large; everything else is a hundred kilobytes at most
  const large = new Map(
    allEndpoints.flatMap((e) => (e.takesBytes === undefined ? [] : [[e, express.json({ limit: e.takesBytes })]])),
  );
  for (const [e, read] of large) router[e.method](e.path, read);
  router.use(express.json({ limit: '100kb' }), olderApp);
  router.use((_request, response, next) => {
    response.setHeader('cache-control', 'no-store');
    next();
  });
  for (const { mount } of stations) mount(services, router);
  router.get('/live', stream(announcer, services.devicesOf, isOpen));
  router.get('/openapi.json', (_request, response) => void response.json(openApiDocument));
  const planSchema = cutPlanJsonSchema();
  router.get('/schemas/cut-plan.json', (_request, response) => void response.json(planSchema));
  router.get('/docs', (_request, response) => void response.type('html').send(docsPage));
  router.get('/docs/start.js', (_request, response) => void response.type('js').send(docsStart));
  router.use('/docs/files', express.static(swaggerFiles(), { index: false }));
  router.use(() => {
    throw new Problem('not_found');
  });
  app.use('/api/v1', router);

  const { webDist } = services.config;
  if (webDist !== undefined) {
    const root = join(process.cwd(), webDist);
    // packed when they were built, as hard as it goes: the first screen does not wait for the server to do it again each time
    const files = staticGzip(join(root, 'assets'), {
      enableBrotli: true,
      orderPreference: ['br', 'gz'],
      index: false,
      serveStatic: { immutable: true, maxAge: YEAR },
    });
    app.use('/assets', files);
    app.use(
      express.static(root, { index: false, setHeaders: (response) => response.setHeader('cache-control', 'no-cache') }),
    );
    app.get('/{*path}', (request, response) => {
      response.setHeader('cache-control', 'no-cache');
      // who comes with a session is about to ask for these: the browser begins while the app is still on its way
      if (request.headers.cookie?.includes('zabrik=') === true && request.path !== '/sign-in')
        response.setHeader(
          'link',
          earlyReads(request.path).map((path) => `<${path}>; rel=preload; as=fetch; crossorigin=anonymous`),
        );
      response.sendFile(join(root, 'index.html'));
    });
  }

  const onError: ErrorRequestHandler = (error, _request, response, next) => {
    const problem = asProblem(error);
    if (problem.code === 'broken')
      services.log.error({ err: problem.cause ?? error, id: requestId(response) }, 'unexpected');
    if (response.headersSent) return next(error);
    const document = problemDocument(problem, requestId(response));
    response.status(document.status).type('application/problem+json').json(document);
  };
  app.use(onError);
  return app;
}
