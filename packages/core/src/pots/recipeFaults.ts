import { sizesFault } from '../timing/minutesBySize.ts';
import type { Recipe } from './recipe.ts';

export interface RecipeFault {
  /** Where it is, as a path in the recipe: "ingredients.2.low". */
  readonly path: string;
  readonly message: string;
}

const twice = (names: readonly string[]): string[] => [...new Set(names.filter((n, i) => names.indexOf(n) !== i))];

/**
 * Everything that keeps a recipe from being made, in words: what a schema cannot see.
 *
 * Shapes  known: kinds of pieces, and those that go in nothing; the house's recipes. Result: empty when it is sound, else every fault in the
 *         order of the recipe.
 */
export function recipeFaults(
  recipe: Recipe,
  known: {
    readonly categories: ReadonlySet<string>;
    readonly never: ReadonlySet<string>;
    readonly recipes: ReadonlySet<string>;
    readonly goods: ReadonlySet<string>;
  },
): RecipeFault[] {
  const faults: RecipeFault[] = [];
  const say = (path: string, message: string): void => void faults.push({ path, message });
  const kinds = (path: string, ids: readonly string[]): void => {
    for (const id of ids) {
      if (!known.categories.has(id)) say(path, `There is no kind of piece ${id}.`);
      else if (known.never.has(id)) say(path, `${id.replaceAll('-', ' ')} goes in nothing.`);
    }
  };
  const batches = (path: string, ids: readonly string[]): void => {
    for (const id of ids) {
      if (id === recipe.id) say(path, 'It cannot be made of itself.');
      else if (!known.recipes.has(id)) say(path, `There is no recipe ${id}.`);
    }
  };
  const goods = (path: string, ids: readonly string[] = []): void => {
    for (const id of ids) if (!known.goods.has(id)) say(path, `There are no goods ${id}.`);
  };
  if (recipe.title.trim() === '') say('title', 'A recipe has a name.');
  if (recipe.baseName.trim() === '') say('baseName', 'Say what it is built on: bones, trim, fish.');
  if (recipe.accepts.length === 0 && recipe.acceptsUses.length === 0 && (recipe.acceptsGoods ?? []).length === 0)
    say('accepts', 'Nothing goes in yet: say which pieces or batches it is built on.');
  kinds('accepts', recipe.accepts);
  batches('acceptsUses', recipe.acceptsUses);
  goods('acceptsGoods', recipe.acceptsGoods);
  for (const [i, refusal] of recipe.refuses.entries()) {
    if (recipe.accepts.includes(refusal.category))
      say(`refuses.${i}`, `${refusal.category.replaceAll('-', ' ')} goes in and is refused.`);
    if (refusal.reason.trim() === '') say(`refuses.${i}`, 'What is refused has a reason.');
  }
  for (const [i, cap] of recipe.caps.entries()) {
    if (!recipe.accepts.includes(cap.category))
      say(`caps.${i}`, `${cap.category.replaceAll('-', ' ')} is held to a share, but does not go in.`);
    if (cap.reason.trim() === '') say(`caps.${i}`, 'A share that is held to has a reason.');
  }
  for (const id of twice(recipe.ingredients.map((x) => x.id))) say('ingredients', `Two ingredients are called ${id}.`);
  const ingredients = new Set(recipe.ingredients.map((x) => x.id));
  for (const [i, x] of recipe.ingredients.entries()) {
    const at = `ingredients.${i}`;
    if (x.name.trim() === '') say(`${at}.name`, 'An ingredient has a name.');
    if (x.low > x.perBase || x.perBase > x.high)
      say(`${at}.low`, `${x.name}: from, usual, to: each no less than the one before.`);
    if (x.unsaid === true) say(`${at}.allergens`, `Nobody has said which allergens ${x.name} has.`);
    kinds(`${at}.accepts`, x.accepts ?? []);
    batches(`${at}.acceptsUses`, x.acceptsUses ?? []);
    goods(`${at}.acceptsGoods`, x.acceptsGoods);
  }
  const wayIds = recipe.questions.flatMap((q) => q.ways.map((w) => w.id));
  for (const id of twice([...recipe.questions.map((q) => q.id)])) say('questions', `Two questions are called ${id}.`);
  for (const id of twice(wayIds)) say('questions', `Two ways are called ${id}.`);
  for (const [i, q] of recipe.questions.entries()) {
    if (q.question.trim() === '') say(`questions.${i}`, 'A question has words.');
    if (q.ways.length < 2) say(`questions.${i}`, 'Where cooks disagree there are two ways at least.');
    for (const [w, way] of q.ways.entries()) {
      if (way.name.trim() === '') say(`questions.${i}.ways.${w}`, 'A way has a name.');
      for (const id of Object.keys(way.perBase ?? {}))
        if (!ingredients.has(id)) say(`questions.${i}.ways.${w}`, `${way.name} changes ${id}, which is no ingredient.`);
    }
  }
  const { low, mean, high } = recipe.output;
  if (recipe.output.name.trim() === '') say('output.name', 'What comes out has a name.');
  if (low > mean || mean > high) say('output', 'What it gives: from, usually, to: each no less than the one before.');
  for (const [i, p] of (recipe.byProducts ?? []).entries()) {
    if (p.name.trim() === '') say(`byProducts.${i}`, 'What comes out beside it has a name.');
    if (p.category !== undefined && !known.categories.has(p.category))
      say(`byProducts.${i}`, `There is no kind of piece ${p.category}.`);
  }
  for (const [i, m] of recipe.marks.entries()) if (m.name.trim() === '') say(`marks.${i}`, 'A mark has a name.');
  for (const [i, step] of recipe.steps.entries()) {
    if (step.text.trim() === '') say(`steps.${i}`, `Step ${i + 1} says nothing.`);
    if (
      step.minutes !== undefined &&
      (step.minutes.low > step.minutes.typical || step.minutes.typical > step.minutes.high)
    )
      say(`steps.${i}`, `Step ${i + 1}: minutes from, usual, to: each no less than the one before.`);
    const sizes = sizesFault(step);
    if (sizes !== undefined) say(`steps.${i}`, `Step ${i + 1}: ${sizes}.`);
    if (step.tempC !== undefined && step.tempC.low > step.tempC.high)
      say(`steps.${i}`, `Step ${i + 1}: degrees from and to the wrong way round.`);
    for (const id of step.ways ?? [])
      if (!wayIds.includes(id)) say(`steps.${i}`, `Step ${i + 1} is of a way that is not here any more.`);
  }
  return faults;
}
