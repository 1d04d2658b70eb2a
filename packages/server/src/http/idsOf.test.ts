import { v4 as uuidv4, v7 as uuidv7, validate, version } from 'uuid';
import { expect, it } from 'vitest';
import { idsOf } from './idsOf.ts';

it('gives the same ids for the same key, others for another, in the order they were asked for', () => {
  const key = uuidv7();
  const [one, again, other] = [idsOf(key), idsOf(key), idsOf(uuidv7())];
  // a hold travels to more lots than twelve bits count
  const ids = Array.from({ length: 5_000 }, one);
  expect(Array.from({ length: 5_000 }, again)).toEqual(ids);
  expect([...ids].sort()).toEqual(ids);
  expect(new Set([...ids, ...Array.from({ length: 5_000 }, other)]).size).toBe(10_000);
  // judged by the library
  for (const id of ids) expect([validate(id), version(id)]).toEqual([true, 7]);
  expect(ids[0]?.slice(0, 13)).toBe(key.slice(0, 13));
  expect(validate(idsOf(uuidv4())())).toBe(true);
});
