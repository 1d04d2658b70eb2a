/**
 * Runs the simulated devices as one process: the bench scale and the floor scale, the probe and the label printer, ports in
 * ZABRIK_SCALE_PORT, ZABRIK_FLOOR_PORT, ZABRIK_PROBE_PORT and ZABRIK_PRINTER_PORT (0 or nothing takes a free one), said on standard output.
 */
import { startSimulatedPrinter } from './simulatedPrinter.ts';
import { startSimulatedProbe } from './simulatedProbe.ts';
import { startSimulatedScale } from './simulatedScale.ts';

const normal = (): number => Math.sqrt(-2 * Math.log(1 - Math.random())) * Math.cos(2 * Math.PI * Math.random());
const fast = process.env['ZABRIK_SCALE_FAST'] === '1';
const host = '127.0.0.1';
const portIn = (name: string): number => Number(process.env[name] ?? 0);

const start = (name: string, port: number, intervalMg: number, maxMg: number) =>
  startSimulatedScale({
    name,
    host,
    port,
    intervalMg,
    maxMg,
    lagMs: fast ? 20 : 90,
    restMs: fast ? 80 : 400,
    normal,
  });
const [bench, floor, probe, printer] = await Promise.all([
  start('bench', portIn('ZABRIK_SCALE_PORT'), 1_000, 15_000_000),
  start('floor', portIn('ZABRIK_FLOOR_PORT'), 20_000, 150_000_000),
  startSimulatedProbe({ host, port: portIn('ZABRIK_PROBE_PORT'), lagMs: fast ? 60 : 1_800, normal }),
  startSimulatedPrinter({ host, port: portIn('ZABRIK_PRINTER_PORT') }),
]);
process.stdout.write(`probe listening ${host}:${probe.port}\nprinter listening ${host}:${printer.port}\n`);
// the last line is what a starter waits for
process.stdout.write(`scale listening bench=${host}:${bench.port},floor=${host}:${floor.port}\n`);
const stop = (): void =>
  void Promise.all([bench, floor, probe, printer].map((device) => device.stop())).then(() => process.exit(0));
process.once('SIGTERM', stop);
process.once('SIGINT', stop);
