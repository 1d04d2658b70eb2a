export interface PartOfAnimals {
  /** The breakdown that the animals were first put on the bench with. */
  readonly root: string;
  /** The stage that made it, and which working-through of that. */
  readonly stage: string;
  readonly breakdown: string;
  /** How many animals this much of it is of: half of the fillets of two fish are one fish's. */
  readonly animals: number;
}

const most = (of: ReadonlyMap<string, PartOfAnimals>, key: string, part: PartOfAnimals): PartOfAnimals => {
  const before = of.get(key);
  return before !== undefined && before.animals >= part.animals ? before : part;
};

/**
 * How many animals pieces stand for that are worked on together. Pieces of one breakdown are of the same animals; what two breakdowns of one
 * stage made is of different ones; what two stages of one animal made is of the same again (the flaps of a rabbit, and its loins).
 *
 * Shapes  result: a number of animals, not rounded; 0 of nothing.
 *
 * @example flaps of one rabbit from stage 1, loins and fillets of the same from stage 2 -> 1
 */
export function animalsIn(parts: readonly PartOfAnimals[]): number {
  const breakdowns = new Map<string, PartOfAnimals>();
  for (const part of parts) breakdowns.set(part.breakdown, most(breakdowns, part.breakdown, part));
  const stages = new Map<string, PartOfAnimals>();
  for (const part of breakdowns.values()) {
    const key = `${part.root}/${part.stage}`;
    stages.set(key, { ...part, animals: part.animals + (stages.get(key)?.animals ?? 0) });
  }
  const roots = new Map<string, PartOfAnimals>();
  for (const part of stages.values()) roots.set(part.root, most(roots, part.root, part));
  return [...roots.values()].reduce((sum, part) => sum + part.animals, 0);
}
