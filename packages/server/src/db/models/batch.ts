import type { Batch } from '@zabrik/contract';
import { big, filled, json, key, orNull, table, text, texts, uuid, when, whole } from '../table.ts';

/** One making of a recipe. */
export const BatchTable = table(
  'batch',
  {
    id: key(uuid),
    houseId: uuid,
    recipeId: text(),
    state: text<'planned' | 'on' | 'done' | 'called-off'>(),
    ingredients: json<Batch['ingredients']>(),
    baseMg: big,
    expected: json<Batch['expectedMg']>(),
    plates: orNull(whole),
    limiting: text(),
    outputMg: orNull(big),
    outputLotId: orNull(uuid),
    movementId: orNull(uuid),
    personId: uuid,
    plannedAt: when,
    doneAt: orNull(when),
    ways: filled(json<Batch['ways']>()),
    pieces: orNull(whole),
    short: filled(json<Batch['short']>()),
    vesselId: orNull(text()),
    startedAt: orNull(when),
    foods: filled(json<Batch['foods']>()),
    recipeVersion: text(),
    /** Names of what the pantry gave at no price, because nobody has said one. */
    unpriced: filled(texts),
  },
  { inFile: { order: 'planned_at, id' } },
);
