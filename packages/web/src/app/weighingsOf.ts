import type { WeighBody, Weighing } from '@zabrik/contract';

/** What a command to the scale writes: one weighing, or two that go together. Its key is the first one's id. */
export function weighingsOf(key: string, body: WeighBody, by: string): readonly Weighing[] {
  const { at } = body;
  const gone = {
    pieceId: null,
    destination: null,
    massMg: null,
    source: null,
    count: 1,
    animal: null,
    scale: null,
    by,
    at,
  };
  if (body.kind === 'undo') return [{ ...gone, id: key, replaces: body.replaces }];
  const { pieceId, destination, massMg, source, count = 1, animal = null, scale = null, replaces, also } = body;
  const first = { id: key, pieceId, destination, massMg, source, count, animal, scale, replaces, by, at };
  if (also == null) return [first];
  return [
    first,
    also.kind === 'undo'
      ? { ...gone, id: also.id, replaces: also.replaces }
      : {
          ...first,
          id: also.id,
          destination: also.destination,
          massMg: also.massMg,
          count: also.count,
          replaces: null,
        },
  ];
}
