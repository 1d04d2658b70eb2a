import { useSearchParams } from 'react-router';
import { useHouse } from '../../../app/queries.ts';
import { Loading } from '../../../kit/Notice.tsx';
import { Toggle } from '../../../kit/Toggle.tsx';
import { PotsHead } from '../PotsHead.tsx';
import { CoreTime, PanMix } from './Heats.tsx';
import { Evaporation, Reduction } from './Reductions.tsx';
import { AtRest, Boil, Brine } from './Salts.tsx';
import { Strength } from './Strengths.tsx';
import { Stuffing } from './Stuffing.tsx';

const sums = [
  { id: 'reduction', name: 'Reduction' },
  { id: 'evaporation', name: 'Evaporation' },
  { id: 'brine', name: 'Brine' },
  { id: 'rest', name: 'Salt at rest' },
  { id: 'boil', name: 'Crustacean boil' },
  { id: 'pan', name: 'Hot pan' },
  { id: 'core', name: 'Core temperature' },
  { id: 'strength', name: 'Strength of a stock' },
  { id: 'stuffing', name: 'Stuffing' },
] as const;

/** Sums of the stove, each usable by itself. */
export default function Calculator() {
  const { data: house, isPending } = useHouse();
  const [params, setParams] = useSearchParams();
  if (isPending) return <Loading />;
  const on = sums.find((s) => s.id === params.get('sum'))?.id ?? 'reduction';
  return (
    <div className="flex flex-1 flex-col">
      <PotsHead />
      <div className="grid flex-1 content-start lg:grid-cols-[220px_1fr] lg:content-stretch">
        <nav className="border-r border-line bg-sheet-soft p-3" aria-label="Sums">
          <ul className="grid gap-1.5 max-lg:grid-cols-3">
            {sums.map((s) => (
              <li key={s.id}>
                <Toggle
                  on={s.id === on}
                  className="min-h-12 w-full text-left"
                  onPress={() => setParams({ sum: s.id }, { replace: true })}
                >
                  {s.name}
                </Toggle>
              </li>
            ))}
          </ul>
        </nav>
        <div className="min-w-0 p-5">
          {on === 'reduction' && <Reduction house={house} />}
          {on === 'evaporation' && <Evaporation house={house} />}
          {on === 'brine' && <Brine />}
          {on === 'rest' && <AtRest />}
          {on === 'boil' && <Boil />}
          {on === 'pan' && <PanMix />}
          {on === 'core' && <CoreTime />}
          {on === 'strength' && <Strength />}
          {on === 'stuffing' && <Stuffing />}
        </div>
      </div>
    </div>
  );
}
