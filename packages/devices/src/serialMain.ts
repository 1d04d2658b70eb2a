/**
 * A scale on a serial line, for the kitchen's network: serialMain DEVICE --max 15kg --step 1g [--class III] [--baud 9600] [--port 4001] [--host 0.0.0.0]
 * [--name bench]. Step, capacity and class are those of its plate.
 */
import { parseArgs } from 'node:util';
import { SerialPort } from 'serialport';
import { startSerialBridge } from './serialBridge.ts';
import { readSerialLine } from './serialLine.ts';

const { values, positionals } = parseArgs({
  allowPositionals: true,
  options: {
    max: { type: 'string' },
    step: { type: 'string' },
    class: { type: 'string', default: 'III' },
    baud: { type: 'string', default: '9600' },
    port: { type: 'string', default: '4001' },
    host: { type: 'string', default: '127.0.0.1' },
    name: { type: 'string', default: 'bench' },
  },
});
const die = (words: string): never => {
  process.stderr.write(`zabrik bridge: ${words}\n`);
  process.exit(2);
};
const massOf = (text: string | undefined, of: string): number =>
  readSerialLine(text ?? '')?.massMg ?? die(`--${of} as the plate says, such as ${of === 'max' ? '15kg' : '1g'}`);
const path = positionals[0] ?? die('which line, such as /dev/ttyUSB0');
const accuracyClass =
  (['II', 'III', 'IIII'] as const).find((c) => c === values.class) ?? die('--class II, III or IIII');
const plate = { accuracyClass, intervalMg: massOf(values.step, 'step'), maxMg: massOf(values.max, 'max') };
if (!(plate.intervalMg > 0 && plate.maxMg > plate.intervalMg))
  die('what it holds is more than a step, and both more than nothing');
const [baudRate, port] = [Number(values.baud), Number(values.port)];
if (!Number.isInteger(baudRate) || baudRate <= 0) die('--baud, such as 9600');
if (!Number.isInteger(port) || port < 0 || port > 65_535) die('--port, such as 4001');

const bridge = await startSerialBridge({
  host: values.host,
  port,
  name: values.name,
  plate,
  open: () => new SerialPort({ path, baudRate }),
  told: (words) => void process.stderr.write(`${words}\n`),
}).catch((error: unknown) => die(error instanceof Error ? error.message : String(error)));
process.stdout.write(`${values.name} listening ${values.host}:${bridge.port}\n`);
const stop = (): void => void bridge.stop().then(() => process.exit(0));
process.once('SIGTERM', stop);
process.once('SIGINT', stop);
