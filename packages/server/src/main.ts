/** Starts the server: settings, database, devices, listen. Stops cleanly on SIGTERM and SIGINT. */
import type { Server } from 'node:http';
import { readConfig } from './config.ts';
import { serveLan } from './lan/serveLan.ts';
import { openServices } from './openServices.ts';

const config = readConfig(process.env);
// a kitchen whose clock is wrong, for the tests of what it does then
const offMs = config.simulated ? config.clockOffMs : 0;
const { server, handle, services, startJobs, calls, close } = await openServices(
  config,
  () => new Date(Date.now() + offMs),
);
const servers: Server[] = [server];
server.once('error', (error) => {
  services.log.fatal({ err: error }, 'cannot listen');
  process.exit(1);
});
server.listen(config.port, config.host, () => {
  const address = server.address();
  const port = address !== null && typeof address === 'object' ? address.port : config.port;
  process.stdout.write(`server listening ${port}\n`);
  calls.start();
  startJobs().catch((err: unknown) => services.log.error({ err }, 'jobs cannot be taken; everything else goes on'));
  // the network comes beside loopback, not instead of it: what runs on this machine keeps its address
  if (config.lan !== undefined)
    serveLan(config.lan, port + 1, handle, services.log).then(
      ({ servers: opened, says }) => {
        servers.push(...opened);
        process.stdout.write(says);
      },
      (error: unknown) => {
        services.log.fatal({ err: error }, 'cannot serve the network');
        process.exit(1);
      },
    );
});

let stopping = false;
const stop = (): void => {
  if (stopping) return;
  stopping = true;
  const closed = servers.map((s) => new Promise<void>((done) => s.close(() => done())));
  void Promise.all(closed)
    .then(() => close())
    .then(() => process.exit(0));
  for (const s of servers) s.closeIdleConnections();
  setTimeout(() => {
    for (const s of servers) s.closeAllConnections(); // live streams never end by themselves
  }, 500).unref();
};
process.on('SIGTERM', stop);
process.on('SIGINT', stop);
