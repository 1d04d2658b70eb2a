/** Scales, probe and printer of the house: whether they answer, and how a scale was checked. */
import { createConnection } from 'node:net';
import type { Answer, Asked, api } from '@zabrik/contract';
import { parsePlate, parseReading } from '@zabrik/devices';
import { readHouse } from '../../db/house.ts';
import { HouseTable } from '../../db/models/house.ts';
import { ScaleCheckTable } from '../../db/models/scaleCheck.ts';
import { rowsOf } from '../../db/rows.ts';
import { select } from '../../db/select.ts';
import { answersAsPrinter, readProbe } from '../../devices/askDevice.ts';
import { addressOf } from '../../devices/devices.ts';
import { Problem } from '../../http/problem.ts';
import type { Actor, InCommand, Services } from '../../services.ts';

const PATIENCE_MS = 2_500;
const MOST_CHARACTERS = 16_384;
/** Checks shown of each scale. */
const SHOWN = 10;

type Tried = Answer<typeof api.house.tryDevice>;

/** Listens to a scale until it has said its plate and a reading, for a few seconds at most. */
function tryScale(address: string): Promise<Tried> {
  const { host, port } = addressOf(address);
  return new Promise((resolve) => {
    const socket = createConnection(port, host).setEncoding('utf8');
    let said = '';
    const heard = (): Tried => {
      const lines = said.split('\n').slice(0, -1);
      const plate = lines.map(parsePlate).findLast((p) => p !== undefined);
      const reading = lines.map(parseReading).findLast((r) => r !== undefined);
      return {
        answers: reading !== undefined,
        plate: plate ?? null,
        netMg: reading?.netMg ?? null,
        centiC: null,
      };
    };
    const end = (): void => {
      clearTimeout(late);
      socket.destroy();
      resolve(heard());
    };
    const late = setTimeout(end, PATIENCE_MS);
    socket.on('connect', () => socket.write('plate\nread\n'));
    socket.on('data', (text) => {
      said += String(text);
      const { plate, answers } = heard();
      if ((plate !== null && answers) || said.length > MOST_CHARACTERS) end();
    });
    socket.on('error', end);
    socket.on('close', end);
  });
}

export async function tryDevice({ kind, address }: Asked<typeof api.house.tryDevice>['body']): Promise<Tried> {
  if (kind === 'scale') return tryScale(address);
  const nothing = { plate: null, netMg: null, centiC: null };
  if (kind === 'printer') return { ...nothing, answers: await answersAsPrinter(addressOf(address)) };
  const { state, centiC } = await readProbe(addressOf(address));
  return { ...nothing, answers: state !== 'away', centiC };
}

export async function readDevices(services: Services, actor: Actor): Promise<Answer<typeof api.house.devices>> {
  const house = await readHouse(services.db, actor);
  const devices = services.devicesOf(actor.houseId);
  type Check = Omit<Answer<typeof api.house.checkScale>, 'at'> & { readonly at: Date };
  const checks = await select<Check>(
    services.db,
    `select * from (
       select c.id, c.at, p.name as by, c.scale, c.scale_name as "scaleName", c.accuracy_class as "accuracyClass",
         c.interval_mg::float8 as "intervalMg", c.points, row_number() over (partition by c.scale order by c.at desc, c.id desc) as nth
       from scale_check c join person p on p.id = c.person_id where c.house_id = $1) c
     where nth <= $2 order by at desc, id desc`,
    [actor.houseId, SHOWN],
  );
  const texts = (a: { readonly host: string; readonly port: number } | undefined): string | null =>
    a === undefined ? null : `${a.host}:${a.port}`;
  return {
    scales: house.settings.scales.map(({ id }) => {
      const bridge = devices.scales.get(id);
      return {
        id,
        connected: bridge !== undefined && bridge.latest.state !== 'away',
        address: texts(bridge),
        checks: checks
          .filter((c) => c.scale === id)
          .map(({ at, by, scale, scaleName, accuracyClass, intervalMg, points, id: checkId }) => ({
            id: checkId,
            at: at.toISOString(),
            by,
            scale,
            scaleName,
            accuracyClass,
            intervalMg,
            points,
          })),
      };
    }),
    probe: texts(devices.probe),
    printer: texts(devices.printer),
  };
}

/** Writes down what a scale showed of test weights. Errors  `not_found` for a scale the house does not have; `invalid` beyond what it can hold. */
export async function checkScale(
  services: Services,
  command: InCommand,
  { body: { scale: wanted, points } }: Asked<typeof api.house.checkScale>,
): Promise<Answer<typeof api.house.checkScale>> {
  const house = await rowsOf(services.db, HouseTable, command).one({});
  const scale = house?.settings.scales.find((s) => s.id === wanted);
  if (scale === undefined) throw new Problem('not_found');
  const over = points.findIndex((p) => p.loadMg > scale.maxMg);
  if (over >= 0)
    throw new Problem('invalid', 'The scale does not hold that much.', [
      { path: `points.${over}.loadMg`, message: 'more than it holds' },
    ]);
  const { name: scaleName, accuracyClass, intervalMg } = scale;
  const check = { id: command.newId(), at: command.at, scale: wanted, scaleName, accuracyClass, intervalMg, points };
  await rowsOf(services.db, ScaleCheckTable, command).add({ ...check, personId: command.actor.personId });
  return { ...check, at: command.at.toISOString(), by: command.actor.name };
}
