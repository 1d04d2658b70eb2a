import { createServer, type IncomingMessage, type ServerResponse } from 'node:http';
import { unitsComeFrom } from '@zabrik/core';
import pino, { type DestinationStream, type Logger } from 'pino';
import { ownHosts } from './access/ownHosts.ts';
import { sessions } from './access/session.ts';
import { createApp } from './app.ts';
import type { Config } from './config.ts';
import { connect } from './db/connect.ts';
import { Disk } from './db/disk.ts';
import { goodsComeFrom } from './db/goodsHere.ts';
import { houseNow } from './db/houseScope.ts';
import { migrate } from './db/migrations.ts';
import { poolSize } from './db/poolSize.ts';
import { selectOne } from './db/select.ts';
import { keepThin } from './db/thinAnswers.ts';
import { HousesHere } from './housesHere.ts';
import { Problem, problemDocument } from './http/problem.ts';
import { watchStalls } from './http/stalls.ts';
import { Jobs } from './jobs/jobs.ts';
import { Announcer } from './live/announcer.ts';
import type { Services } from './services.ts';
import { weighRoad } from './stations/bench/weighRoad.ts';
import { makes, reversals } from './stations/index.ts';
import { WebhookSender } from './webhooks/sender.ts';

/** An error without what it was asked with: the parameters of a statement are people's own text, and none of the log's business. */
const bareError = (error: unknown): unknown => {
  if (!(error instanceof Error)) return error;
  const { name: type, message, stack } = error;
  const { parent, code } = error as {
    parent?: { code?: unknown; constraint?: unknown; table?: unknown };
    code?: unknown;
  };
  return { type, message, stack, code: parent?.code ?? code, constraint: parent?.constraint, table: parent?.table };
};

/** The log of a process, JSON lines. PINs, passwords and cookies are taken out wherever they stand. */
export const openLog = (level: string, out?: DestinationStream): Logger =>
  pino(
    {
      level,
      base: null,
      redact: { paths: ['*.pin', '*.password', 'req.headers.cookie'], remove: true },
      serializers: { err: bareError },
    },
    out,
  );

/** Opens everything a server process holds, in order, and gives the way to close it again. */
export async function openServices(config: Config, clock: () => Date = () => new Date()) {
  const log = openLog(config.logLevel);
  const longReads = connect(config.databaseUrl, 2, 60_000);
  const room = await selectOne<{ max: number }>(longReads, `select current_setting('max_connections')::int as max`, []);
  const db = connect(config.databaseUrl, poolSize(room?.max ?? 100, config.processes));
  await migrate(db);
  const announcer = new Announcer(config.databaseUrl, log);
  await announcer.start();
  const houses = new HousesHere(db, announcer, config, (err) =>
    log.warn({ err }, 'a house’s settings could not be read; those it had stay'),
  );
  await houses.start();
  unitsComeFrom(() => houses.unitsOf(houseNow()));
  goodsComeFrom(() => houses.goodsOf(houseNow()));
  const session = sessions(config.databaseUrl, config.sessionSecret);
  const jobs = new Jobs(makes);
  const services: Services = {
    db,
    config,
    clock,
    log,
    longReads,
    disk: new Disk(db, config.leaveFree),
    devicesOf: (houseId) => houses.devicesOf(houseId),
    placeDevices: (houseId) => houses.place(houseId),
    reversals,
    jobs,
    announce: (houseId, topics, ids) => announcer.announce(houseId, topics, ids),
    tell: (houseId, progress) => announcer.tell(houseId, progress),
  };
  const calls = new WebhookSender(services);
  const stalls = watchStalls(log);
  const stopThinning = keepThin(db, clock, (err) => log.warn({ err }, 'old answers could not be forgotten'));
  const app = createApp({
    services,
    session: session.handler,
    announcer,
    longestStallMs: stalls.longestMs,
    isOpen: async (sid) =>
      (await selectOne(db, 'select 1 as open from session where sid = $1 and expire >= now()', [sid])) !== undefined,
  });
  const onShortRoad = weighRoad(services, session.sidOf);
  const isOwn = ownHosts(config.hosts);
  const handle = (request: IncomingMessage, response: ServerResponse): void => {
    if (!isOwn(request)) {
      const document = problemDocument(new Problem('unknown_host'), undefined);
      response.writeHead(document.status, { 'content-type': 'application/problem+json' });
      response.end(JSON.stringify(document));
      return;
    }
    if (!onShortRoad(request, response)) app(request, response);
  };
  return {
    handle,
    server: createServer(handle),
    services,
    /** Takes jobs from now on. */
    startJobs: (): Promise<void> => jobs.start(services),
    /** Makes the calls that are due from now on; `send` makes them at once. */
    calls,
    /** Moves the devices into a house: for tests, which make their houses afterwards. */
    placeDevices: (houseId: string): Promise<void> => houses.place(houseId, true),
    close: async (): Promise<void> => {
      stalls.stop();
      stopThinning();
      await jobs.stop();
      await calls.stop();
      houses.close();
      await announcer.close();
      await session.close();
      await longReads.close();
      await db.close();
    },
  };
}
