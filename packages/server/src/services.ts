import type { Progress, Role, Topic } from '@zabrik/contract';
import type { Logger } from 'pino';
import type { Sequelize, Transaction } from 'sequelize';
import type { Config } from './config.ts';
import type { Disk } from './db/disk.ts';
import type { Devices } from './devices/devices.ts';
import type { Jobs } from './jobs/jobs.ts';
import type { Reversals } from './massledger/reverse.ts';

/** Who is asking: put in the session at sign-in, read by every handler. */
export interface Actor {
  readonly personId: string;
  readonly name: string;
  readonly role: Role;
  readonly houseId: string;
}

/** What the server is made of. The clock comes from outside so that a test can move it. */
export interface Services {
  readonly db: Sequelize;
  readonly config: Config;
  readonly clock: () => Date;
  readonly log: Logger;
  /** A pool of its own for what reads a whole house: it waits for its turn, and the work of the benches never waits for it. */
  readonly longReads: Sequelize;
  readonly disk: Disk;
  /** The devices that stand in a house. */
  readonly devicesOf: (houseId: string) => Devices;
  /** A house that was just set up has devices from now on: the start command's, where those stood in none. */
  readonly placeDevices: (houseId: string) => Promise<void>;
  /** What stations put back when an entry of theirs is taken back. */
  readonly reversals: Reversals;
  /** What takes longer than one waits for. */
  readonly jobs: Pick<Jobs, 'nudge'>;
  /** Tells every open screen of a house what to read again. Call it after the commit. */
  readonly announce: (houseId: string, topics: readonly Topic[], ids?: readonly string[]) => void;
  /** Tells them how far a command is that takes a while. */
  readonly tell: (houseId: string, progress: Progress) => void;
}

/** A command inside its transaction. */
export interface InCommand {
  readonly actor: Actor;
  /** The actor's. */
  readonly houseId: string;
  readonly commandId: string;
  readonly at: Date;
  /** Ids for what it makes: the same ones whenever it is said again. */
  readonly newId: () => string;
  readonly transaction: Transaction;
}
