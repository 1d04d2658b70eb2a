import type { RequestHandler } from 'express';
import type { Devices } from '../devices/devices.ts';
import { signedIn } from '../http/mount.ts';
import { Problem } from '../http/problem.ts';
import type { Announcer } from './announcer.ts';

/** How often a silent line says that it still stands: a tablet that hears nothing for a few of these takes its scale for away. */
const BEAT_MS = 3_000;

/** Bytes that may wait for one screen. */
const MOST_UNREAD = 256 * 1_024;

const inWords = (event: string, data: object): string => `event: ${event}\ndata: ${JSON.stringify(data)}\n\n`;
const BEAT = inWords('beat', {});
/** What is said to many screens is worded once. */
const said = new WeakMap<object, string>();
const worded = (event: string, data: object): string => {
  const words = said.get(data) ?? inWords(event, data);
  said.set(data, words);
  return words;
};

/** GET /api/v1/live: server-sent events `changed`, `progress`, `resync`, `scale` and `beat`, for the house of whoever is signed in, as long as they are. */
export const stream =
  (
    announcer: Announcer,
    devicesOf: (houseId: string) => Devices,
    isOpen: (sessionId: string) => Promise<boolean>,
  ): RequestHandler =>
  (request, response) => {
    const actor = signedIn(request);
    // it ends with its session, and a token has none: programs are called
    if (request.token !== undefined) throw new Problem('not_for_programs');
    response.writeHead(200, {
      'content-type': 'text/event-stream; charset=utf-8',
      'cache-control': 'no-store',
      'x-accel-buffering': 'no',
    });
    const write = (words: string): void => {
      // a screen that has stopped reading is let go: it comes back by itself and reads everything again
      if (response.writableLength > MOST_UNREAD) response.destroy();
      if (response.destroyed) return;
      response.write(words);
    };
    write(inWords('resync', {}));
    const forget = [announcer.subscribe(actor.houseId, ({ event, data }) => write(worded(event, data)))];
    const devices = devicesOf(actor.houseId);
    for (const scale of devices.scales.values()) write(worded('scale', scale.latest));
    forget.push(devices.subscribe((reading) => write(worded('scale', reading))));
    const { sessionID } = request;
    const beat = setInterval(() => {
      // a line ends with its session; while nobody can say, it stands
      isOpen(sessionID).then(
        (open) => (open ? write(BEAT) : response.end()),
        () => write(BEAT),
      );
    }, BEAT_MS);
    response.on('close', () => {
      clearInterval(beat);
      for (const undo of forget) undo();
    });
  };
