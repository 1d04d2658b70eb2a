/** Runs the simulated bench scale as its own process: `node scaleMain.js`, port in ZABRIK_SCALE_PORT, said on standard output. */
import { startSimulatedScale } from './simulatedScale.ts';

const normal = (): number => Math.sqrt(-2 * Math.log(1 - Math.random())) * Math.cos(2 * Math.PI * Math.random());
const fast = process.env['ZABRIK_SCALE_FAST'] === '1';

const scale = await startSimulatedScale({
  host: '127.0.0.1',
  port: Number(process.env['ZABRIK_SCALE_PORT'] ?? 0),
  intervalMg: 1_000,
  maxMg: 15_000_000,
  lagMs: fast ? 20 : 90,
  restMs: fast ? 80 : 400,
  normal,
});
process.stdout.write(`scale listening ${scale.port}\n`);
const stop = (): void => void scale.stop().then(() => process.exit(0));
process.once('SIGTERM', stop);
process.once('SIGINT', stop);
