import type { ListedPlate } from '@zabrik/contract';
import { allergenWords, formatMass } from '@zabrik/core';
import { Button } from '../../../kit/Button.tsx';
import { BeforePan } from '../../../parts/BeforePan.tsx';

interface Props {
  readonly listed: ListedPlate;
  readonly money: (minor: number) => string;
  /** Undefined for who may not change it, and while it is written. */
  readonly onChange?: (() => void) | undefined;
}

const amount = ({ count, grams }: ListedPlate['plate']['components'][number]): string =>
  count === null ? formatMass(grams * 1_000) : `${count} × ${formatMass(grams * 1_000)}`;

/** A plate: how many lie ready, each component as long as the plates it is enough for, the scarcest marked, and what one costs. */
export function PlateCard({ listed, money, onChange }: Props) {
  const { plate, figures, allergens, unknownAllergens } = listed;
  const longest = Math.max(1, ...figures.components.map((c) => c.covers));
  return (
    <article
      className={`grid gap-3 rounded-plate border-[1.5px] bg-white p-4 ${listed.retired ? 'border-dashed border-line-strong text-ink-soft' : 'border-line-strong'}`}
      aria-label={plate.title}
    >
      <header className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
        <h2 className="text-xl font-bold">{plate.title}</h2>
        {listed.retired ? (
          <span>not served any more</span>
        ) : (
          <>
            <span className="figure text-3xl" data-testid="covers">
              {figures.covers} {figures.covers === 1 ? 'plate' : 'plates'}
            </span>
            <span className="text-ink-soft">
              lie ready{figures.limiting.length > 0 && `; no more for want of ${figures.limiting.join(', ')}`}
            </span>
          </>
        )}
        {onChange !== undefined && (
          <Button className="ml-auto" onClick={onChange}>
            Change
          </Button>
        )}
      </header>
      <table className="w-full">
        <thead className="sr-only">
          <tr>
            <th scope="col">component</th>
            <th scope="col">on a plate</th>
            <th scope="col">enough for</th>
            <th scope="col">costs a plate</th>
          </tr>
        </thead>
        <tbody>
          {plate.components.map((c, i) => {
            const mine = figures.components[i];
            const scarce = figures.limiting.includes(c.name);
            return (
              <tr key={`${c.name}${JSON.stringify(c.of)}`} className="border-t border-line">
                <th scope="row" className="w-[26%] py-1.5 pr-3 text-left font-semibold">
                  {c.name}
                </th>
                <td className="figure w-28 pr-3 text-right font-normal">{amount(c)}</td>
                <td className="py-1.5 pr-3">
                  <span className="flex items-center gap-2">
                    <span className="relative h-5 flex-1 rounded-sm bg-ground" aria-hidden="true">
                      <span
                        className={`absolute inset-y-0 left-0 rounded-sm ${scarce ? 'border-2 border-ink bg-attention' : 'bg-portion'}`}
                        style={{ width: `${((mine?.covers ?? 0) / longest) * 100}%` }}
                      />
                    </span>
                    <span className="figure w-14 text-right">{mine?.covers ?? 0}</span>
                  </span>
                  {(mine?.otherSize ?? 0) > 0 && (
                    <span className="block text-[13px] text-ink-soft">
                      {mine?.otherSize} of another size {mine?.otherSize === 1 ? 'is' : 'are'} not counted
                    </span>
                  )}
                </td>
                <td className="figure w-24 text-right">
                  {mine?.perCoverMinor === null || mine === undefined ? (
                    <span className="font-normal text-ink-soft">not known</span>
                  ) : (
                    money(mine.perCoverMinor)
                  )}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      <BeforePan
        of={plate.components.flatMap((c) =>
          c.of.kind === 'pieces' ? [{ category: c.of.category, name: c.name }] : [],
        )}
      />
      <p className="flex flex-wrap gap-x-4 text-[15px]">
        <span data-testid="plate-cost">
          {figures.unknownCost.length > 0 && 'At least '}
          <strong className="figure">{money(figures.costMinor)}</strong> a plate
          {figures.unknownCost.length > 0 && `: nothing lies there to say what ${figures.unknownCost.join(', ')} costs`}
        </span>
        <span className="text-ink-soft">
          {allergens.length > 0
            ? `Has ${allergenWords(allergens).join(', ')}.`
            : unknownAllergens.length === 0 && 'None of the named allergens.'}
          {unknownAllergens.length > 0 && (
            <strong className="text-alarm"> What else {unknownAllergens.join(', ')} may have is not known yet.</strong>
          )}
        </span>
      </p>
    </article>
  );
}
