import { useCatalogue } from '../../app/queries.ts';
import { Button } from '../../kit/Button.tsx';
import { Toggle } from '../../kit/Toggle.tsx';
import { oneTouches, type PotLot } from './offers.ts';
import type { Scaling } from './useScaling.ts';

/** So many choices stand there; who has more suppliers than that searches the larder. */
const MOST_TOUCHES = 12;

/** One animal's, one supplier's, one day's lots in one touch, or none. */
export function OnlyThese({ s, lots }: { readonly s: Scaling; readonly lots: readonly PotLot[] }) {
  const { data: catalogue } = useCatalogue();
  const nameOf = (id: string): string => catalogue?.species.find((x) => x.id === id)?.name ?? id;
  const touches = oneTouches(s.recipe, lots, nameOf).slice(0, MOST_TOUCHES);
  if (touches.length === 0) return null;
  const isOn = (lotIds: ReadonlySet<string>): boolean =>
    s.chosen.length === lotIds.size && s.chosen.every((l) => lotIds.has(l.id));
  return (
    <fieldset className="mb-2 flex flex-wrap gap-1.5 border-0 p-0" aria-label="Only these">
      {touches.map(({ name, lotIds }) => (
        <Toggle key={name} on={isOn(lotIds)} onPress={() => s.only(lotIds)}>
          {name}
        </Toggle>
      ))}
      {s.chosen.length > 0 && (
        <Button className="h-11 px-3" onClick={() => s.only(new Set())}>
          none
        </Button>
      )}
    </fieldset>
  );
}
