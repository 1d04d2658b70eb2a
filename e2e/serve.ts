/** Keeps kitchens running for the browser tests until it is told to stop, one at each port, all with the same demo: tsx serve.ts PORT... A port with `empty` behind it, 4181:empty, is a machine with no kitchen on it yet. */
import { KitchenProcess, SET_UP_CODE } from './kitchenProcess.ts';

const asked = process.argv.slice(2).map((arg) => {
  const [port, how] = arg.split(':');
  return { port: Number(port), empty: how === 'empty' };
});
const kitchen = new KitchenProcess({
  cluster: 'pg-e2e',
  fsync: 'off',
  port: 0,
  kitchens: asked.length,
  breakdowns: Number(process.env['ZABRIK_DEMO_BREAKDOWNS'] ?? 24),
});
if (asked.some(({ empty }) => !empty)) kitchen.makeData();
else kitchen.makeCluster();
const kitchens = asked.map(({ port, empty }, i) =>
  empty ? kitchen.empty(port, `zabrik_${i + 1}`, SET_UP_CODE) : kitchen.copy(port, `zabrik_${i + 1}`),
);
for (const k of kitchens) await k.open();
const stop = async (): Promise<void> => {
  await Promise.all(kitchens.map((copy) => copy.close()));
  await kitchen.stop();
  process.exit(0);
};
process.once('SIGTERM', () => void stop());
process.once('SIGINT', () => void stop());
setInterval(() => undefined, 60_000);
