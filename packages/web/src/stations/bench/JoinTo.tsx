/** What is joined to a piece and weighed with it: bacon round a roll, crust on a barrel. Of a lot, or bought in and kept in no lot. */
import { useQuery } from '@tanstack/react-query';
import type { Lot } from '@zabrik/contract';
import { allergenWords, carryAllergens, formatMass, parseMass, shortName } from '@zabrik/core';
import { useDeferredValue, useState } from 'react';
import { call } from '../../app/api.ts';
import { api } from '../../app/endpoints.ts';
import { useScaleAtRest } from '../../app/live.ts';
import { Button } from '../../kit/Button.tsx';
import { Field } from '../../kit/Field.tsx';
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

const massOf = (text: string): number | undefined => {
  try {
    const mg = parseMass(text);
    return mg > 0 ? mg : undefined;
  } catch {
    return undefined;
  }
};

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
    ? (data?.lots ?? []).filter((l) => l.massMg > 0 && l.held === null && l.state !== 'frozen' && !here.has(l.id))
    : [];
}

/** Says what is joined to the piece in hand, and takes it back. */
export function JoinTo({ flow, state }: Props) {
  const reading = useScaleAtRest();
  const [text, setText] = useState('');
  const [lot, setLot] = useState<Lot>();
  const [mass, setMass] = useState('');
  /** What the pan showed when it was asked: the words may be rounded. */
  const [panMg, setPanMg] = useState<number>();
  const [allergens, setAllergens] = useState<readonly string[]>();
  const found = useFound(state, text);
  /** Of none of the lots that were found. */
  const [boughtIn, setBoughtIn] = useState(false);
  const { piece } = flow;
  const name = (lot?.name ?? text).trim();
  const asksAllergens = lot === undefined && name !== '' && (found.length === 0 || boughtIn);
  const onPan = reading.state === 'steady' && reading.netMg > 0;
  const clear = (): void => {
    setText('');
    setLot(undefined);
    setMass('');
    setPanMg(undefined);
    setAllergens(undefined);
    setBoughtIn(false);
  };
  const wrong = (massMg: number | undefined): string | undefined => {
    if (name === '') return 'Say what is joined to it.';
    if (massMg === undefined) return `Say how much ${name} it is: 40 g, 1.5 oz.`;
    if (lot !== undefined && massMg > lot.massMg) return `Lot ${lot.code} has ${formatMass(lot.massMg)} left.`;
    if (lot === undefined && !asksAllergens) return `Say which of these lots ${name} is of, or that it is bought in.`;
    if (lot === undefined && allergens === undefined) return `Say the allergens of ${name}, or that it has none.`;
    return undefined;
  };
  const join = (): void => {
    const massMg = panMg ?? massOf(mass);
    const words = wrong(massMg);
    if (words !== undefined || massMg === undefined) {
      flow.setSays(words ?? '');
      return;
    }
    void state.happen(
      {
        kind: 'bring-in',
        pieceId: piece.id,
        name: name.slice(0, 60),
        massMg,
        lotId: lot?.id ?? null,
        allergens: lot === undefined ? [...(allergens ?? [])] : [],
      },
      `${formatMass(massMg)} of ${name} to ${shortName(piece.name)}`,
    );
    flow.setSays(`${formatMass(massMg)} of ${name} joined to ${shortName(piece.name)}: weigh them together.`);
    clear();
  };
  return (
    <section aria-label="Joined to a piece" className="grid gap-2">
      <h3 className="text-[15px] font-semibold">Join something to {shortName(piece.name)}</h3>
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
        value={lot === undefined ? text : `${lot.code} ${lot.name}`}
        onChange={(event) => {
          setLot(undefined);
          setText(event.target.value);
        }}
      />
      {lot === undefined && found.length > 0 && (
        <div className="grid gap-1">
          {found.slice(0, SHOWN).map((l) => (
            <Toggle key={l.id} on={false} className="text-left leading-tight" onPress={() => setLot(l)}>
              <span className="block truncate">{l.name}</span>
              <span className="block text-[13px] font-normal">
                {l.code}, {formatMass(l.massMg)} there
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
            setPanMg(undefined);
            setMass(event.target.value);
          }}
        />
        <Button
          className="h-12"
          disabled={!onPan}
          onClick={() => {
            setPanMg(reading.netMg);
            setMass(formatMass(reading.netMg));
          }}
        >
          From the pan
        </Button>
      </div>
      {lot === undefined && name !== '' && found.length > 0 && !boughtIn && (
        <Button onClick={() => setBoughtIn(true)}>None of these: bought in</Button>
      )}
      {asksAllergens && (
        <div className="text-[14px]">
          <p className="text-ink-soft">Of no lot: bought in. Its allergens:</p>
          <AllergensSaid
            name={name}
            has={allergens ?? []}
            unsaid={allergens === undefined}
            onSay={(said) => setAllergens(carryAllergens(said))}
          />
        </div>
      )}
      <Button onClick={join}>Join it</Button>
    </section>
  );
}
