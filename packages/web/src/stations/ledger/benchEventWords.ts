import type { YieldSheet as Sheet } from '@zabrik/contract';
import { formatMass } from '@zabrik/core';
import { clockTime } from '../../app/dates.ts';
import { trayName } from '../../parts/destinations.ts';

/** What happened on the bench beside weighing, in words. */
export const eventWords = (body: Sheet['events'][number]['body'], pieceName: (id: string) => string): string => {
  switch (body.kind) {
    case 'step':
      return `step ${body.step + 1} ${body.mark === 'late' ? 'done late' : body.mark}${body.note === null ? '' : `: ${body.note}`}`;
    case 'pass':
      return `a pass counted at step ${body.step + 1}`;
    case 'pause':
      return 'paused';
    case 'resume':
      return 'went on';
    case 'tray-note':
      return `note to ${trayName(body.destination).toLowerCase()}: ${body.text}`;
    case 'hand-over':
      return 'handed over';
    case 'bring-in':
      return `brought in: ${formatMass(body.massMg)} of ${body.name} to ${pieceName(body.pieceId)}`;
    case 'bring-back':
      return 'what was brought in was taken back';
    case 'timer':
      return `timer set: ${body.label}, until ${clockTime(body.dueAt)}`;
    case 'timer-off':
      return 'timer stopped';
    case 'came-without':
      return body.units === 0
        ? `${pieceName(body.pieceId)}: it was there after all`
        : `came without ${body.units > 1 ? `${body.units} × ` : ''}${pieceName(body.pieceId)}`;
    case 'other-piece':
      return `another piece: ${body.piece.name}`;
  }
};
