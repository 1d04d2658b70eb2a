/** Keeps kitchens with the same demo running for the browser tests, one at each port, until it is told to stop: tsx serve.ts PORT... */
import { KitchenProcess } from './kitchenProcess.ts';

const [first = 0, ...others] = process.argv.slice(2).map(Number);
const kitchen = new KitchenProcess({
  cluster: 'pg-e2e',
  fsync: 'off',
  port: first,
  kitchens: 1 + others.length,
  breakdowns: Number(process.env['ZABRIK_DEMO_BREAKDOWNS'] ?? 24),
});
kitchen.makeData();
const copies = others.map((port, i) => kitchen.copy(port, `zabrik_${i + 2}`));
for (const k of [kitchen, ...copies]) await k.open();
const stop = async (): Promise<void> => {
  await Promise.all(copies.map((copy) => copy.close()));
  await kitchen.stop();
  process.exit(0);
};
process.once('SIGTERM', () => void stop());
process.once('SIGINT', () => void stop());
setInterval(() => undefined, 60_000);
