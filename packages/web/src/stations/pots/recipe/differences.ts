/** What one version of a recipe says otherwise than another, in words. */
import { formatDegreesRange, formatMass, perBaseWords, type Recipe, type RecipeStep } from '@zabrik/core';

export interface Difference {
  readonly what: string;
  /** Empty where it was not there. */
  readonly was: string;
  readonly is: string;
}

const listed = (ids: readonly string[]): string => ids.map((id) => id.replaceAll('-', ' ')).join(', ');
const stepWords = (step: RecipeStep | undefined): string =>
  step === undefined
    ? ''
    : `${step.text}${step.minutes === undefined ? '' : ` ${step.minutes.typical} min`}${step.tempC === undefined ? '' : `, ${formatDegreesRange(step.tempC.low, step.tempC.high)}`}${(step.bySize ?? []).map((r) => `, up to ${formatMass(r.upToG * 1_000)} ${r.minutes.typical} min`).join('')}${step.photo === undefined ? '' : ', with a photograph'}`;

/**
 * Shapes  result: one line for each field that differs, in the order of the recipe; none where both say the same.
 */
export function differences(before: Recipe, now: Recipe): Difference[] {
  const lines: Difference[] = [];
  const say = (what: string, was: string, is: string): void => {
    if (was !== is) lines.push({ what, was, is });
  };
  say('name', before.title, now.title);
  say('kind', before.kind, now.kind);
  say('built on', before.baseName, now.baseName);
  for (const [what, field] of [
    ['goes in', 'accepts'],
    ['batches that go in', 'acceptsUses'],
  ] as const) {
    const gone = before[field].filter((id) => !now[field].includes(id));
    const come = now[field].filter((id) => !before[field].includes(id));
    if (gone.length + come.length > 0) lines.push({ what, was: listed(gone), is: listed(come) });
  }
  const goods = (of: readonly string[] | undefined, but: readonly string[] | undefined): string =>
    listed((of ?? []).filter((id) => but?.includes(id) !== true));
  say('goods that go in', goods(before.acceptsGoods, now.acceptsGoods), goods(now.acceptsGoods, before.acceptsGoods));
  say('taken', before.takes, now.takes);
  const names = [...new Set([...before.ingredients, ...now.ingredients].map((i) => i.id))];
  for (const id of names) {
    const [was, is] = [before, now].map((r) => r.ingredients.find((i) => i.id === id));
    const words = (i: typeof was): string =>
      i === undefined ? '' : `${perBaseWords(i.perBase)} (${perBaseWords(i.low)} to ${perBaseWords(i.high)})`;
    say(is?.name ?? was?.name ?? id, words(was), words(is));
    say(`allergens of ${is?.name ?? was?.name ?? id}`, listed(was?.allergens ?? []), listed(is?.allergens ?? []));
  }
  say(
    'where cooks disagree',
    before.questions.map((q) => `${q.question} ${q.ways.map((w) => w.name).join(' / ')}`).join('; '),
    now.questions.map((q) => `${q.question} ${q.ways.map((w) => w.name).join(' / ')}`).join('; '),
  );
  for (let i = 0; i < Math.max(before.steps.length, now.steps.length); i += 1)
    say(`step ${i + 1}`, stepWords(before.steps[i]), stepWords(now.steps[i]));
  const gives = ({ output: o }: Recipe): string =>
    `${o.mean} ${o.measure === 'litres' ? 'l' : 'kg'} (${o.low} to ${o.high})`;
  say('gives', gives(before), gives(now));
  say(
    'keeps',
    before.keeps.map((k) => `${k.as} ${k.days} d`).join(', '),
    now.keeps.map((k) => `${k.as} ${k.days} d`).join(', '),
  );
  return lines;
}
