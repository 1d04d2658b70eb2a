/** Starts the server: settings, database, devices, listen. Stops cleanly on SIGTERM and SIGINT. */
import { readConfig } from './config.ts';
import { openKitchen } from './openKitchen.ts';

const config = readConfig(process.env);
const { server, kitchen, close } = await openKitchen(config);
server.once('error', (error) => {
  kitchen.log.fatal({ err: error }, 'cannot listen');
  process.exit(1);
});
server.listen(config.port, config.host, () => {
  const address = server.address();
  const port = address !== null && typeof address === 'object' ? address.port : config.port;
  process.stdout.write(`server listening ${port}\n`);
});

let stopping = false;
const stop = (): void => {
  if (stopping) return;
  stopping = true;
  server.close(() => void close().then(() => process.exit(0)));
  server.closeIdleConnections();
  setTimeout(() => server.closeAllConnections(), 500).unref(); // live streams never end by themselves
};
process.on('SIGTERM', stop);
process.on('SIGINT', stop);
