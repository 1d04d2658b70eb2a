/** What the larder says of what was done to a lot, and why it will not do something. */
import { formatTemperature, type KeepingRefusal } from '@zabrik/core';

export const refusals: Readonly<Record<KeepingRefusal, string>> = {
  'already-frozen': 'It is frozen already.',
  'not-frozen': 'It is not frozen.',
  'past-date': 'It is past its date: freezing does not bring it back. Throw it away with the reason.',
  'freezing-takes-a-freezer':
    'To put it in the freezer is to freeze it. Choose a freezer and freeze it, so that its date is kept.',
  'thawing-takes-a-chiller': 'Thaw it in a fridge or the cold room, on a tray.',
  'frozen-stays-frozen': 'It is frozen. Thaw it, so that its date starts to count again.',
  'already-opened': 'It was opened before.',
  'already-there': 'It is so already.',
};

const text = (value: unknown): string => (typeof value === 'string' ? value : '');

/** One event of a lot, in a phrase. */
export function eventWords(
  kind: string,
  after: Readonly<Record<string, unknown>>,
  placeName: (id: string) => string,
): string {
  const place = placeName(text(after['placeId']));
  switch (kind) {
    case 'move':
      return `moved to ${place}`;
    case 'freeze':
      return `frozen, into ${place}`;
    case 'thaw':
      return `thawed, into ${place}`;
    case 'open':
      return 'opened';
    case 'date':
      return `use-by set to ${text(after['useBy'])}`;
    case 'reserve':
      return text(after['reservedFor']) === '' ? 'no longer reserved' : `reserved for ${text(after['reservedFor'])}`;
    case 'hold':
      return text(after['held']) === '' ? 'let go' : 'held back';
    case 'reading':
      return `probe ${formatTemperature(Number(after['centiC']))}`;
    case 'label':
      return `label printed, ${text(after['copies'])}`;
    default:
      return 'put back as it was';
  }
}
