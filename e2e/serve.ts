/** Keeps a kitchen running for the browser tests until it is told to stop: tsx serve.ts PORT CLUSTER */
import { KitchenProcess } from './kitchenProcess.ts';

const kitchen = new KitchenProcess({
  cluster: process.argv[3] ?? 'pg-e2e',
  fsync: 'off',
  port: Number(process.argv[2] ?? 0),
  breakdowns: Number(process.env['ZABRIK_DEMO_BREAKDOWNS'] ?? 24),
});
await kitchen.start();
const stop = (): void => void kitchen.stop().then(() => process.exit(0));
process.once('SIGTERM', stop);
process.once('SIGINT', stop);
setInterval(() => undefined, 60_000);
