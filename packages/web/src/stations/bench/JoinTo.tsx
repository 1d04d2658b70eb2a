/** What is joined to a piece and weighed with it: bacon round a roll, crust on a barrel. Of a lot, or bought in and kept in no lot. */
import { useQuery } from '@tanstack/react-query';
import type { Lot } from '@zabrik/contract';
import { allergenWords, carryAllergens, formatMass, shortName } from '@zabrik/core';
import { useDeferredValue } from 'react';
import { call } from '../../app/api.ts';
import { api } from '../../app/endpoints.ts';
import { useKeptDocument } from '../../app/keptForm.ts';
import { useScaleAtRest } from '../../app/live.ts';
import { Button } from '../../kit/Button.tsx';
import { Field } from '../../kit/Field.tsx';
import { weightIn } from '../../kit/readers.ts';
import { Toggle } from '../../kit/Toggle.tsx';
import { AllergensSaid } from '../../parts/AllergensSaid.tsx';
import type { BenchFlow } from './useBench.ts';
import type { BenchState } from './useBreakdown.ts';

interface Props {
  readonly flow: BenchFlow;
  readonly state: BenchState;
}

/** So many of what is found are shown; more letters find fewer. */
const SHOWN = 5;

interface Typed {
  readonly text: string;
  readonly lot: Lot | null;
  readonly mass: string;
  /** What the pan showed when it was asked: the words may be rounded. */
  readonly panMg: number | null;
  /** null: nobody has said. */
  readonly allergens: readonly string[] | null;
  /** Of none of the lots that were found. */
  readonly boughtIn: boolean;
}
const blank: Typed = { text: '', lot: null, mass: '', panMg: null, allergens: null, boughtIn: false };
const nameOf = ({ lot, text }: Typed): string => (lot?.name ?? text).trim();

/** The first thing that is wrong. */
function faultsOf(said: Typed): readonly string[] {
  const { lot, allergens, boughtIn } = said;
  const name = nameOf(said);
  const massMg = said.panMg ?? weightIn(said.mass);
  if (name === '') return ['Say what is joined to it.'];
  if (massMg === undefined) return [`Say how much ${name} it is: 40 g, 1.5 oz.`];
  if (lot !== null && massMg > lot.freeMg) return [`Lot ${lot.code} has ${formatMass(lot.freeMg)} left.`];
  if (lot === null && !boughtIn) return [`Say which of these lots ${name} is of, or that it is bought in.`];
  if (lot === null && allergens === null) return [`Say the allergens of ${name}, or that it has none.`];
  return [];
}

/** Lots of this name or code that something can be taken of. */
function useFound(state: BenchState, text: string) {
  const search = useDeferredValue(text.trim());
  const { data } = useQuery({
    queryKey: ['lots', 'joined', search],
    queryFn: () => call(api.larder.list, { query: { search, limit: 40 } }),
    enabled: search.length > 1,
    placeholderData: (before) => before,
  });
  const here = new Set([...state.breakdown.inputs, ...state.brought].map((l) => l.lotId));
  return search.length > 1
    ? (data?.lots ?? []).filter((l) => l.freeMg > 0 && l.held === null && l.state !== 'frozen' && !here.has(l.id))
    : [];
}

/** Says what is joined to the piece in hand, and takes it back. */
export function JoinTo({ flow, state }: Props) {
  const reading = useScaleAtRest();
  const { piece } = flow;
  const form = useKeptDocument<Typed>(`join-to/${state.breakdown.id}/${piece.id}`, blank, faultsOf);
  const { put, clear } = form;
  const { text, lot, mass, allergens, boughtIn } = form.doc;
  const found = useFound(state, text);
  const name = nameOf(form.doc);
  const asksAllergens = lot === null && name !== '' && (found.length === 0 || boughtIn);
  const onPan = reading.state === 'steady' && reading.netMg > 0;
  const sayWrong = ([first = '']: readonly string[]): void => flow.setSays(first);
  const join = (): void => {
    // bought in where no lot is called so: then its allergens are asked for
    put({ boughtIn: boughtIn || asksAllergens });
    form.send((said) => {
      const massMg = said.panMg ?? weightIn(said.mass) ?? 0;
      void state.happen(
        {
          kind: 'bring-in',
          pieceId: piece.id,
          name: name.slice(0, 60),
          massMg,
          lotId: said.lot?.id ?? null,
          allergens: said.lot === null ? [...(said.allergens ?? [])] : [],
        },
        `${formatMass(massMg)} of ${name} to ${shortName(piece.name)}`,
      );
      flow.setSays(`${formatMass(massMg)} of ${name} joined to ${shortName(piece.name)}: weigh them together.`);
      clear();
    }, sayWrong);
  };
  return (
    <section aria-label="Joined to a piece" className="grid gap-2">
      <h2 className="text-[15px] font-semibold">Join something to {shortName(piece.name)}</h2>
      {state.brought.map((b) => {
        const to = state.stage.pieces.find((p) => p.id === b.pieceId);
        return (
          <p
            key={b.id}
            className="flex items-center justify-between gap-2 border-l-4 border-line-strong pl-2 text-[15px]"
          >
            <span className="min-w-0 leading-tight">
              <span className="figure">{formatMass(b.massMg)}</span> of {b.name} to {shortName(to?.name ?? b.pieceId)}
              {b.allergens.length > 0 && `, ${allergenWords(b.allergens).join(', ')}`}
            </span>
            <Button
              onClick={() => {
                void state.happen({ kind: 'bring-back', eventId: b.id }, `${b.name} taken back`);
                flow.setSays(`${b.name} is taken back.`);
              }}
            >
              Take it back
            </Button>
          </p>
        );
      })}
      <Field
        label="What is joined, by name or lot"
        placeholder="streaky bacon"
        maxLength={60}
        value={lot === null ? text : `${lot.code} ${lot.name}`}
        onChange={(event) => {
          put({ lot: null, text: event.target.value });
        }}
      />
      {lot === null && found.length > 0 && (
        <div className="grid gap-1">
          {found.slice(0, SHOWN).map((l) => (
            <Toggle key={l.id} on={false} className="text-left leading-tight" onPress={() => put({ lot: l })}>
              <span className="block truncate">{l.name}</span>
              <span className="block text-[13px] font-normal">
                {l.code}, {formatMass(l.freeMg)} there
              </span>
            </Toggle>
          ))}
          {found.length > SHOWN && (
            <p className="text-[13px] text-ink-soft">{found.length - SHOWN} more: say more of it.</p>
          )}
        </div>
      )}
      <div className="grid grid-cols-[minmax(0,1fr)_auto] items-end gap-2">
        <Field
          label="How much"
          placeholder="40 g"
          value={mass}
          onChange={(event) => {
            put({ panMg: null, mass: event.target.value });
          }}
        />
        <Button
          className="h-12"
          disabled={!onPan}
          onClick={() => {
            put({ panMg: reading.netMg, mass: formatMass(reading.netMg) });
          }}
        >
          From the pan
        </Button>
      </div>
      {lot === null && name !== '' && found.length > 0 && !boughtIn && (
        <Button onClick={() => put({ boughtIn: true })}>None of these: bought in</Button>
      )}
      {asksAllergens && (
        <div className="text-[14px]">
          <p className="text-ink-soft">Of no lot: bought in. Its allergens:</p>
          <AllergensSaid
            name={name}
            has={allergens ?? []}
            unsaid={allergens === null}
            onSay={(said) => put({ allergens: carryAllergens(said) })}
          />
        </div>
      )}
      <Button onClick={join}>Join it</Button>
    </section>
  );
}
