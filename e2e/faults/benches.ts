/** Benches without a screen: each says a command under its key until it is acknowledged, as a tablet's outbox does. */
import { randomUUID } from 'node:crypto';
import { setTimeout as wait } from 'node:timers/promises';
import { type KitchenProcess, PATIENT_MS, type Session, signInOver } from '../kitchenProcess.ts';

const NAMES = ['Ines Calloway', 'Jory Pellam', 'Tobin Arkwell', 'Maren Ostle'] as const;
/** How long until the next try. */
const AGAIN_MS = 60;

interface Said {
  readonly personId: string;
  readonly kind: 'weighing' | 'movement';
}

export class Benches {
  readonly #kitchen: KitchenProcess;
  readonly acknowledged = new Map<string, Said>();
  /** Said, and not acknowledged yet. */
  readonly open = new Map<string, Said>();
  /** How long each acknowledged command took that was not refused first. */
  readonly tookMs: Record<Said['kind'], number[]> = { weighing: [], movement: [] };
  repeats = 0;
  /** Of refusals that were waited out: how often each was said. */
  readonly refusals = new Map<string, number>();
  #going = false;
  #hands: Promise<void>[] = [];

  constructor(kitchen: KitchenProcess) {
    this.#kitchen = kitchen;
  }

  /** Weighs on a breakdown of its own each, and serves a gram off a lot now and then, until `stop`. */
  async start(pauseMs = 0): Promise<void> {
    this.#going = true;
    const seats = await Promise.all(
      NAMES.map(async (name) => {
        const session = await signInOver(this.#kitchen.base, name);
        const { person } = (await session.get('/api/v1/session')) as { person: { id: string } };
        return { session, personId: person.id, path: await weighPathOf(session), lotId: await newLot(session) };
      }),
    );
    this.#hands = seats.map(async (seat) => {
      for (let i = 0; this.#going; i += 1) {
        if (i % 12 === 11)
          await this.#say(seat.session, seat.personId, 'movement', `/api/v1/lots/${seat.lotId}/take-out`, {
            massMg: 1_000,
            to: 'served',
            reason: null,
            note: null,
          });
        else
          await this.#say(seat.session, seat.personId, 'weighing', seat.path, {
            kind: 'take',
            pieceId: 'frame',
            destination: 'stock',
            massMg: 1_000,
            source: 'scale',
            replaces: null,
            at: new Date().toISOString(),
          });
        if (pauseMs > 0) await wait(pauseMs);
      }
    });
  }

  /** Lets each finish what it has begun. */
  async stop(): Promise<void> {
    this.#going = false;
    await Promise.all(this.#hands);
  }

  async #say(session: Session, personId: string, kind: Said['kind'], path: string, body: unknown): Promise<void> {
    const key = randomUUID();
    this.open.set(key, { personId, kind });
    for (;;) {
      const began = performance.now();
      try {
        const reply = await session.post(path, body, key);
        const answer = (await reply.json()) as { code?: string };
        if (reply.ok) {
          this.tookMs[kind].push(Math.round(performance.now() - began));
          this.acknowledged.set(key, { personId, kind });
          this.open.delete(key);
          return;
        }
        const code = answer.code ?? String(reply.status);
        this.refusals.set(code, (this.refusals.get(code) ?? 0) + 1);
        if (reply.status < 500) throw new RangeError(`${path} refused with ${reply.status}: ${JSON.stringify(answer)}`);
      } catch (error) {
        if (error instanceof RangeError) throw error;
      }
      this.repeats += 1;
      await wait(AGAIN_MS);
    }
  }

  /** Holds what was acknowledged against what stands in the database. Only after `stop`. */
  recount(): { readonly lost: number; readonly doubled: number; readonly otherName: number } {
    const rows = (sql: string): string[][] =>
      this.#kitchen
        .db('psql', '-At', '-F', ' ', '-c', sql)
        .trim()
        .split('\n')
        .filter((line) => line !== '')
        .map((line) => line.split(' '));
    const stored = [
      ...rows(`select id, person_id from weighing where piece_id = 'frame' and mass_mg = 1000`),
      ...rows(`select command_id, person_id from movement where kind = 'take-out' and command_id is not null`),
    ];
    const byKey = new Map<string, string[]>();
    for (const [key = '', person = ''] of stored) byKey.set(key, [...(byKey.get(key) ?? []), person]);
    let lost = 0;
    let doubled = 0;
    let otherName = 0;
    for (const [key, { personId }] of this.acknowledged) {
      const people = byKey.get(key) ?? [];
      if (people.length === 0) lost += 1;
      if (people.length > 1) doubled += people.length - 1;
      if (people.some((p) => p !== personId)) otherName += 1;
    }
    return { lost, doubled, otherName };
  }
}

/** A hake taken in for somebody. */
async function newLot(session: Session): Promise<string> {
  const { suppliers } = (await session.get('/api/v1/suppliers')) as { suppliers: { id: string }[] };
  const reply = await session.post(
    '/api/v1/deliveries',
    {
      species: 'hake',
      form: 'gutted',
      animals: 1,
      supplierId: suppliers[0]?.id,
      origin: null,
      grossMg: 3_000_000_000,
      tareMg: 0,
      invoiceMg: 3_000_000_000,
      paidMinor: 3_000,
      temperatureCentiC: 100,
      landedOn: null,
      useBy: null,
      note: null,
    },
    randomUUID(),
    PATIENT_MS,
  );
  const line = (await reply.json()) as { lotId: string | null };
  if (line.lotId === null || line.lotId === undefined) throw new Error(`no lot: ${JSON.stringify(line)}`);
  return line.lotId;
}

/** Where the weights of a new breakdown go. */
export async function weighPathOf(session: Session): Promise<string> {
  const reply = await session.post(
    '/api/v1/breakdowns',
    { lotId: await newLot(session), planId: 'round-fish-two-fillets', animals: 1, massMg: null },
    randomUUID(),
    PATIENT_MS,
  );
  const breakdown = (await reply.json()) as { id?: string };
  if (breakdown.id === undefined) throw new Error(`no breakdown: ${JSON.stringify(breakdown)}`);
  return `/api/v1/breakdowns/${breakdown.id}/weighings`;
}
