/**
 * Runs the simulated scales as one process: the bench scale and the floor scale, ports in ZABRIK_SCALE_PORT and ZABRIK_FLOOR_PORT
 * (0 or nothing takes a free one), said on standard output.
 */
import { startSimulatedScale } from './simulatedScale.ts';

const normal = (): number => Math.sqrt(-2 * Math.log(1 - Math.random())) * Math.cos(2 * Math.PI * Math.random());
const fast = process.env['ZABRIK_SCALE_FAST'] === '1';

const start = (name: string, port: string | undefined, intervalMg: number, maxMg: number) =>
  startSimulatedScale({
    name,
    host: '127.0.0.1',
    port: Number(port ?? 0),
    intervalMg,
    maxMg,
    lagMs: fast ? 20 : 90,
    restMs: fast ? 80 : 400,
    normal,
  });
const scales = await Promise.all([
  start('bench', process.env['ZABRIK_SCALE_PORT'], 1_000, 15_000_000),
  start('floor', process.env['ZABRIK_FLOOR_PORT'], 20_000, 150_000_000),
]);
process.stdout.write(`scale listening bench=127.0.0.1:${scales[0].port},floor=127.0.0.1:${scales[1].port}\n`);
const stop = (): void => void Promise.all(scales.map((scale) => scale.stop())).then(() => process.exit(0));
process.once('SIGTERM', stop);
process.once('SIGINT', stop);
