import type { ListedRecipe } from '@zabrik/contract';
import {
  allergenWords,
  believeYield,
  formatCount,
  formatDegrees,
  formatDegreesRange,
  formatMass,
  madeBy,
  type Recipe,
  type RecipeStep,
  waysOf,
} from '@zabrik/core';
import { dayName } from '../../app/dates.ts';
import { useCatalogue } from '../../app/queries.ts';
import { StepPhoto } from '../../parts/StepPhoto.tsx';
import { spreadWords } from '../../parts/spreadWords.ts';
import { vesselWords } from './vesselWords.ts';

/** One step in words: what to do, how long, how hot, what to look for. */
export function StepWords({ step }: { readonly step: RecipeStep }) {
  return (
    <>
      {step.text}
      {step.minutes !== undefined && <span className="figure"> {spreadWords(step.minutes)}</span>}
      {step.tempC !== undefined && (
        <span className="figure">, {formatDegreesRange(step.tempC.low, step.tempC.high)}</span>
      )}
      {step.bySize?.map((row) => (
        <span key={row.upToG} className="block text-[14px] text-ink-soft">
          up to {formatMass(row.upToG * 1_000)} each: {spreadWords(row.minutes)}
        </span>
      ))}
      {step.photo !== undefined && <StepPhoto photo={step.photo} of={step.text} className="mt-1" />}
      {step.watch !== undefined && <span className="block text-[14px] text-ink-soft">Look: {step.watch}</span>}
    </>
  );
}

/** A recipe as a cook reads it: what goes in and what does not, the schools, the steps, how long it keeps, what this house got out of it. */
export function HowMade({ listed, ways }: { readonly listed: ListedRecipe; readonly ways: readonly string[] }) {
  const { data: catalogue } = useCatalogue();
  const recipe = listed.recipe as Recipe;
  const label = (id: string): string =>
    catalogue?.categories.find((c) => c.id === id)?.label ?? id.replaceAll('-', ' ');
  const standing = waysOf(recipe, ways).map((w) => w.id);
  const steps = recipe.steps.filter((s) => s.ways === undefined || s.ways.some((w) => standing.includes(w)));
  const edible = (id: string): boolean => (catalogue?.categories.find((c) => c.id === id)?.useWithinHours ?? 1) > 0;
  const own = recipe.refuses.filter((r) => edible(r.category));
  const mine = madeBy(listed.batches, standing);
  const belief = believeYield(
    recipe.output,
    mine.map((b) => b.ratio),
  );
  const unit = recipe.output.measure === 'litres' ? 'l' : 'kg';
  return (
    <div className="grid gap-6 xl:grid-cols-[1.2fr_1fr]">
      <section aria-label="Steps">
        {recipe.photo !== undefined && <StepPhoto photo={recipe.photo} of={recipe.title} className="mb-3" />}
        <h3 className="mb-2 text-lg font-bold">Steps</h3>
        <ol className="grid gap-2">
          {steps.map((step, i) => (
            <li key={step.text} className="grid grid-cols-[28px_1fr] gap-2">
              <span className="figure text-ink-soft">{i + 1}</span>
              <span>
                <StepWords step={step} />
              </span>
            </li>
          ))}
        </ol>
        {recipe.questions.length > 0 && (
          <>
            <h3 className="mt-5 mb-2 text-lg font-bold">Where cooks disagree</h3>
            {recipe.questions.map((q) => (
              <dl key={q.id} className="mb-2">
                <dt className="font-semibold">{q.question}</dt>
                {q.ways.map((w) => (
                  <dd key={w.id} className="border-l-4 border-line pl-3">
                    <strong>{w.name}:</strong> {w.gives}
                  </dd>
                ))}
              </dl>
            ))}
          </>
        )}
        <h3 className="mt-5 mb-2 text-lg font-bold">What it gives here</h3>
        <p>
          <span className="figure text-2xl">
            {formatCount(belief.mean, 2)} {unit}
          </span>{' '}
          a kilo of {recipe.baseName}, eight times in ten {formatCount(belief.low, 2)} to {formatCount(belief.high, 2)}.{' '}
          <span className="text-ink-soft">
            {mine.length === 0
              ? `No batch made this way yet: the handbook’s ${recipe.output.low} to ${recipe.output.high}.`
              : `${mine.length} own ${mine.length === 1 ? 'batch' : 'batches'} behind it; the handbook says ${recipe.output.low} to ${recipe.output.high}.`}
          </span>
        </p>
        {mine.length > 0 && (
          <ul className="mt-2 flex flex-wrap gap-x-4 gap-y-1 text-[14px] text-ink-soft" aria-label="Own batches">
            {mine.slice(0, 12).map((b) => (
              <li key={b.batchId} className="figure font-normal">
                {dayName(b.at)}: {formatCount(b.ratio, 2)}
              </li>
            ))}
          </ul>
        )}
      </section>
      <section aria-label="What goes in">
        <h3 className="mb-1 text-lg font-bold">Goes in</h3>
        <p>
          {[
            ...recipe.accepts.map(label),
            ...recipe.acceptsUses.map(label),
            ...(recipe.acceptsGoods ?? []).map(
              (id) => catalogue?.goods.find((g) => g.id === id)?.name.toLowerCase() ?? id,
            ),
          ].join(', ') || 'bought-in ingredients only'}
          .
        </p>
        <h3 className="mt-4 mb-1 text-lg font-bold">Never</h3>
        <ul className="grid gap-0.5">
          {own.map((r) => (
            <li key={r.category}>
              <strong className="text-alarm">{label(r.category)}</strong>: {r.reason.toLowerCase()}
            </li>
          ))}
          {recipe.caps.map((c) => (
            <li key={c.category}>{c.reason}.</li>
          ))}
          <li className="text-ink-soft">
            And what goes in nothing:{' '}
            {recipe.refuses
              .filter((r) => !own.includes(r))
              .map((r) => label(r.category))
              .join('; ')}
            .
          </li>
        </ul>
        <h3 className="mt-4 mb-1 text-lg font-bold">To one of {recipe.baseName}</h3>
        <table className="w-full">
          <tbody>
            {recipe.ingredients.map((i) => (
              <tr key={i.id} className="border-b border-line">
                <th scope="row" className="py-1 text-left font-normal">
                  {i.name}
                  {i.allergens.length > 0 && (
                    <span className="text-[14px] text-ink-soft"> ({allergenWords(i.allergens).join(', ')})</span>
                  )}
                </th>
                <td className="figure py-1 text-right">{i.perBase}</td>
                <td className="py-1 pl-3 text-right text-ink-soft">
                  {i.low} to {i.high}
                </td>
              </tr>
            ))}
          </tbody>
        </table>
        <p className="mt-3">
          {recipe.vessel === 'none' ? 'No vessel' : `In ${vesselWords[recipe.vessel]}`}
          {recipe.heatC !== undefined && `, kept at ${formatDegreesRange(recipe.heatC.low, recipe.heatC.high)}`}.
          {recipe.splitsAboveC !== undefined && ` Splits above ${formatDegrees(recipe.splitsAboveC)}.`}
        </p>
        <p>
          Allergens:{' '}
          {allergenWords([...recipe.allergens, ...recipe.ingredients.flatMap((i) => i.allergens)]).join(', ') ||
            'none of its own'}
          , and those of what goes in.
        </p>
        {recipe.marks.length > 0 && (
          <p className="mt-3">
            Taken to{' '}
            {recipe.marks
              .map((m) => `${m.name} at ${m.factor} of its volume${m.note === undefined ? '' : `, ${m.note}`}`)
              .join('; ')}
            .
          </p>
        )}
        <h3 className="mt-4 mb-1 text-lg font-bold">Keeps</h3>
        <ul>
          {recipe.keeps.map((k) => (
            <li key={`${k.state}${k.jurisdiction}${k.days}`}>
              {k.state}:{' '}
              <span className="figure">{k.days < 1 ? `${Math.round(k.days * 24)} h` : `${k.days} days`}</span>
              {k.maxC !== null && ` at ${formatDegrees(k.maxC)} or colder`}
              <span className="text-[14px] text-ink-soft"> · {k.jurisdiction}</span>
            </li>
          ))}
        </ul>
        <ul className="mt-3 grid gap-1 text-[15px]">
          {recipe.cautions.map((c) => (
            <li key={c} className="border-l-4 border-alarm bg-alarm-soft px-2.5 py-1">
              {c}
            </li>
          ))}
        </ul>
        <p className="mt-3 text-[14px] text-ink-soft">
          Ratio: {recipe.source}. {recipe.provenance.replaceAll('-', ' ')}. Days are of practice; the house’s limits
          come on top, and your local code decides.
        </p>
      </section>
    </div>
  );
}
