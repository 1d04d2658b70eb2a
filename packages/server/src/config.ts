import { z } from 'zod';
import type { DeviceAddress } from './devices/askDevice.ts';

const schema = z.object({
  DATABASE_URL: z.string().min(1),
  SESSION_SECRET: z.string().min(32),
  PORT: z.coerce.number<string>().int().min(0).max(65_535).default(4180),
  HOST: z.string().default('127.0.0.1'),
  WEB_DIST: z.string().optional(),
  LOG_LEVEL: z.enum(['silent', 'fatal', 'error', 'warn', 'info', 'debug']).default('info'),
  ZABRIK_SCALE: z
    .string()
    .regex(/^(\w[\w-]*=)?[\w.-]+:\d+(,\w[\w-]*=[\w.-]+:\d+)*$/)
    .optional(),
  ZABRIK_PROBE: z
    .string()
    .regex(/^[\w.-]+:\d+$/)
    .optional(),
  ZABRIK_PRINTER: z
    .string()
    .regex(/^[\w.-]+:\d+$/)
    .optional(),
  ZABRIK_PROCESSES: z.coerce.number<string>().int().min(1).max(100).default(1),
  ZABRIK_DEVICES_HOUSE: z
    .string()
    .regex(/^[\w-]+$/)
    .optional(),
  ZABRIK_LEAVE_FREE_MB: z.coerce.number<string>().int().min(0).max(1_000_000).default(48),
  ZABRIK_LAN: z.string().min(1).optional(),
  ZABRIK_HOSTS: z
    .string()
    .regex(/^[\w.-]+(,[\w.-]+)*$/)
    .optional(),
  ZABRIK_CLOCK_OFF_MS: z.coerce.number<string>().int().default(0),
  ZABRIK_SIMULATED: z.enum(['0', '1']).default('0'),
  ZABRIK_SETUP_CODE: z
    .string()
    .regex(/^[A-Z2-9]{4}-[A-Z2-9]{4}$/)
    .optional(),
  ZABRIK_DEMO_PIN: z
    .string()
    .regex(/^\d{4,6}$/)
    .optional(),
});

export interface Config {
  readonly databaseUrl: string;
  readonly sessionSecret: string;
  readonly port: number;
  readonly host: string;
  readonly webDist: string | undefined;
  readonly logLevel: string;
  /** The scales to connect to, by the name the house gives them: bench=127.0.0.1:7001,floor=127.0.0.1:7002. */
  readonly scales: readonly { readonly id: string; readonly host: string; readonly port: number }[];
  /** The probe thermometer and the label printer, where there are any. */
  readonly probe: DeviceAddress | undefined;
  readonly printer: DeviceAddress | undefined;
  /** How many server processes share the database. */
  readonly processes: number;
  /** The house the devices stand in, where the machine has more than one; else its first. */
  readonly devicesHouse: string | undefined;
  /** Bytes that must stay free on the disk of the records: below, nothing is written. */
  readonly leaveFree: number;
  /** The simulated bench may be driven from the browser. Only in the demo and in tests. */
  readonly simulated: boolean;
  /** How wrong the clock goes, where all is simulated. */
  readonly clockOffMs: number;
  /** The folder of the house's certificate: set when it serves the kitchen's network over HTTPS. */
  readonly lan: string | undefined;
  readonly demoPin: string | undefined;
  /** What the command has printed: who knows it may set up the first house of this machine. */
  readonly setUpCode: string | undefined;
  /** Names a balancer in front is known by, beside those of this machine. */
  readonly hosts: readonly string[];
}

const addressOf = (text: string | undefined): DeviceAddress | undefined => {
  const [host = '', port = ''] = text?.split(':') ?? [];
  return text === undefined ? undefined : { host, port: Number(port) };
};

/** Reads the settings once, at the start. What is wrong is said by name and the process does not start. */
export function readConfig(env: Readonly<Record<string, string | undefined>>): Config {
  const read = schema.safeParse(env);
  if (!read.success) {
    const what = read.error.issues.map((issue) => `${issue.path.join('.')}: ${issue.message}`).join('; ');
    throw new Error(`Settings: ${what}`);
  }
  return {
    databaseUrl: read.data.DATABASE_URL,
    sessionSecret: read.data.SESSION_SECRET,
    port: read.data.PORT,
    host: read.data.HOST,
    webDist: read.data.WEB_DIST,
    logLevel: read.data.LOG_LEVEL,
    scales: (read.data.ZABRIK_SCALE?.split(',') ?? []).map((entry) => {
      const [id, address] = entry.includes('=') ? entry.split('=') : ['bench', entry];
      const [host = '', port = ''] = (address ?? '').split(':');
      return { id: id ?? 'bench', host, port: Number(port) };
    }),
    probe: addressOf(read.data.ZABRIK_PROBE),
    printer: addressOf(read.data.ZABRIK_PRINTER),
    processes: read.data.ZABRIK_PROCESSES,
    devicesHouse: read.data.ZABRIK_DEVICES_HOUSE,
    leaveFree: read.data.ZABRIK_LEAVE_FREE_MB * 1_048_576,
    clockOffMs: read.data.ZABRIK_CLOCK_OFF_MS,
    simulated: read.data.ZABRIK_SIMULATED === '1',
    lan: read.data.ZABRIK_LAN,
    demoPin: read.data.ZABRIK_DEMO_PIN,
    setUpCode: read.data.ZABRIK_SETUP_CODE,
    hosts: read.data.ZABRIK_HOSTS?.split(',') ?? [],
  };
}
