import { trays } from '../../parts/destinations.ts';
import { Tray } from '../../parts/Tray.tsx';
import type { BenchFlow } from './useBench.ts';
import type { BenchState } from './useBreakdown.ts';

interface Props {
  readonly flow: BenchFlow;
  readonly state: BenchState;
  readonly may: boolean;
}

/** The eight trays, each with what lies in it and what this piece has to do with it. */
export function Trays({ flow, state, may }: Props) {
  const { breakdown, counted } = state;
  const { piece, right } = flow;
  return (
    <section
      className="grid grid-cols-2 grid-rows-[repeat(4,minmax(96px,1fr))] gap-3 overflow-y-auto border-line p-3 max-lg:col-span-full max-lg:border-t md:max-lg:grid-cols-4 md:max-lg:grid-rows-[repeat(2,minmax(104px,1fr))] lg:border-l"
      aria-label="Trays"
    >
      {trays.map(({ id, name, key }) => {
        const inTray = counted.filter((w) => w.destination === id);
        const mass = inTray.reduce((sum, w) => sum + w.massMg, 0);
        const refusal = flow.refusalOf(id);
        const here = flow.suggested === id;
        const usual = piece.destination === id || piece.alternatives.includes(id);
        const note = flow.steps.trayNotes.get(id);
        return (
          <Tray
            key={id}
            id={id}
            name={name}
            hotkey={key}
            massMg={mass}
            fill={mass / (breakdown.startMg * 0.7)}
            state={
              refusal !== undefined
                ? 'refused'
                : here
                  ? !flow.trayChosen && right === undefined
                    ? 'suggested'
                    : 'chosen'
                  : 'possible'
            }
            note={
              refusal ??
              note ??
              (here
                ? 'this piece goes here'
                : inTray.length > 0
                  ? `${inTray.length} ${inTray.length === 1 ? 'weight' : 'weights'}`
                  : usual
                    ? 'can go here'
                    : 'not usual')
            }
            disabled={!may}
            onChoose={() => flow.toTray(id)}
          />
        );
      })}
    </section>
  );
}
