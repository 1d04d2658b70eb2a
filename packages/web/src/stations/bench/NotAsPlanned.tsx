/** What lies there is not always the plan's: what it came without, and what came off that the plan does not know. */
import { type Destination, shortName } from '@zabrik/core';
import { v7 as uuidv7 } from 'uuid';
import { useKeptDocument } from '../../app/keptForm.ts';
import { useCatalogue } from '../../app/queries.ts';
import { Button } from '../../kit/Button.tsx';
import { Field } from '../../kit/Field.tsx';
import { named, Select } from '../../kit/Select.tsx';
import { trayName, trays } from '../../parts/destinations.ts';
import { wantedOf } from './benchOrder.ts';
import type { BenchFlow } from './useBench.ts';
import type { BenchState } from './useBreakdown.ts';

interface Props {
  readonly flow: BenchFlow;
  readonly state: BenchState;
}

/** Kinds of piece of the same animals as the plan's own stand first; each kind by its name. */
function useKinds(state: BenchState) {
  const { data } = useCatalogue();
  const groups = new Set(
    state.planned.pieces.map((p) => data?.categories.find((c) => c.id === p.category)?.group ?? ''),
  );
  const all = (data?.categories ?? []).filter((c) => c.usual !== null);
  return [...all.filter((c) => groups.has(c.group)), ...all.filter((c) => !groups.has(c.group))];
}

interface Another {
  readonly name: string;
  readonly category: string;
  /** null: the usual one of its kind. */
  readonly tray: Destination | null;
}
const another: Another = { name: '', category: '', tray: null };
const faultsOf = ({ name }: Another): readonly string[] =>
  name.trim() === '' ? ['Another piece has a name: say what it is.'] : [];

function AnotherPiece({ flow, state }: Props) {
  const kinds = useKinds(state);
  const form = useKeptDocument<Another>(`another-piece/${state.breakdown.id}`, another, faultsOf);
  const { name, category, tray } = form.doc;
  const kind = kinds.find((k) => k.id === category) ?? kinds[0];
  if (kind === undefined) return null;
  const open = trays.filter((t) => !kind.refused.some((r) => r.destination === t.id));
  const to = open.find((t) => t.id === tray)?.id ?? kind.usual ?? 'waste';
  const add = (): void =>
    form.send(
      (written) => {
        const said = written.name.trim();
        const id = `other-${uuidv7().slice(-12)}`;
        void state.happen(
          { kind: 'other-piece', piece: { id, name: said, category: kind.id, destination: to } },
          `another piece, ${said}`,
        );
        flow.pick(id);
        flow.setSays(`${said}, to ${trayName(to).toLowerCase()}: weigh it.`);
        form.clear();
      },
      ([first = '']) => flow.setSays(first),
    );
  return (
    <div className="grid gap-2">
      <Field
        label="Another piece"
        placeholder="second roe sac"
        maxLength={60}
        value={name}
        onChange={(event) => form.put({ name: event.target.value })}
        onKeyDown={(event) => {
          if (event.key === 'Enter') add();
        }}
      />
      <div className="grid grid-cols-[minmax(0,1fr)_104px] gap-2">
        <Select
          aria-label="What kind of piece it is"
          className="h-12"
          value={kind.id}
          onValue={(id) => form.put({ category: id, tray: null })}
          options={kinds.map((k) => ({ value: k.id, name: k.label }))}
        />
        <Select
          aria-label="Its tray"
          className="h-12"
          value={to}
          onValue={(id) => form.put({ tray: id })}
          options={named(open)}
        />
      </div>
      <Button onClick={add}>Add the piece</Button>
    </div>
  );
}

/** The piece that is next can be said not to be there, one of it or all; what was said can be taken back. */
export function NotAsPlanned({ flow, state }: Props) {
  const { found, planned, breakdown } = state;
  const { animals } = breakdown;
  const piece = planned.pieces.find((p) => p.id === flow.piece.id);
  const taken = piece === undefined ? 0 : (flow.taken.get(piece.id) ?? 0);
  const away = piece === undefined ? 0 : (found.cameWithout[piece.id] ?? 0);
  const left = piece === undefined ? 0 : piece.count * animals - taken - away;
  const say = (pieceId: string, units: number, words: string): void => {
    void state.happen({ kind: 'came-without', pieceId, units }, words);
    flow.setSays(`${words}.`);
  };
  return (
    <section aria-label="Not as the plan has it" className="grid gap-2">
      <h2 className="text-[15px] font-semibold">Not as the plan has it</h2>
      {piece !== undefined && left > 0 && state.stage.pieces.length > 1 && (
        <div className="flex flex-wrap gap-2">
          <Button size="bench" onClick={() => say(piece.id, away + left, `It came without ${shortName(piece.name)}`)}>
            Came without {shortName(piece.name)}
          </Button>
          {left > 1 && piece.accumulates !== true && breakdown.way !== 'by-animal' && (
            <Button size="bench" onClick={() => say(piece.id, away + 1, `One less of ${shortName(piece.name)}`)}>
              One of {wantedOf(piece, animals) - away} less
            </Button>
          )}
        </div>
      )}
      {Object.entries(found.cameWithout).map(([id, units]) => {
        const gone = planned.pieces.find((p) => p.id === id);
        return (
          gone !== undefined && (
            <p
              key={id}
              className="flex items-center justify-between gap-2 border-l-4 border-attention pl-2 text-[15px]"
            >
              <span>
                came without {gone.count * animals > 1 && `${units} of ${gone.count * animals} `}
                {shortName(gone.name)}
              </span>
              <Button onClick={() => say(id, 0, `${shortName(gone.name)} was there after all`)}>It is here</Button>
            </p>
          )
        );
      })}
      <AnotherPiece flow={flow} state={state} />
    </section>
  );
}
