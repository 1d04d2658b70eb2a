import { templateById, templatesFor } from '@zabrik/catalogue/portioning';
import {
  fitProfile,
  formatMass,
  MOST_LOINS,
  type PieceMeasures,
  planRoll,
  type RollSetup,
  usualLength,
} from '@zabrik/core';
import { useState } from 'react';
import { useHouse } from '../../../app/queries.ts';
import { Notice } from '../../../kit/Notice.tsx';
import { NumField } from '../../../kit/NumField.tsx';
import { named, Select } from '../../../kit/Select.tsx';
import { BoardFrame, Figures, useSetup } from './BoardFrame.tsx';
import { RollDrawing } from './RollDrawing.tsx';
import type { AtBoard } from './useCutting.ts';
import { useRolls } from './usePlanner.ts';
import { leftOn, useTake } from './useTake.ts';

function usual(board: AtBoard): RollSetup {
  const category = board.cutting.category;
  const templates = templatesFor(category);
  const loin = templates.find((t) => t.acrossIsThickness && t.id !== 'barrel') ?? templates[0];
  return {
    kind: 'roll',
    templateId: loin?.id ?? 'loin',
    perRoll: 2,
    coreMg: 0,
    wrap: { kind: 'none' },
    overlapShare: 0.15,
    tieSpacingMm: 25,
    rest: { minHours: 6, maxHours: 24 },
    dripShare: 0.01,
    targetMg: 140_000,
    toleranceShare: 0.06,
  };
}

const wraps = [
  { id: 'none', name: 'nothing' },
  { id: 'flap', name: 'its own flap' },
  { id: 'sheet', name: 'sheets (bacon, caul, leaf)' },
] as const;

/** Loins to rolls that rest overnight: which lie together, how thick, how tied, and what they give tomorrow. */
export function RollBoard({ board }: { readonly board: AtBoard }) {
  const { cutting, state, record } = board;
  const { setup, change, settle } = useSetup(board, 'roll', usual(board));
  // of the size the house has said, where it has
  const sheet = useHouse().data?.equipment.find((e) => e.kind === 'sheet' && e.longMm !== null && e.wideMm !== null);
  const [line, setLine] = useState('roll');
  const template = templateById.get(setup.templateId) ?? templatesFor(null)[0];
  if (template === undefined) throw new Error('the catalogue has no forms of pieces');
  const n = Math.min(cutting.pieces, MOST_LOINS);
  const known = [...state.pieces.values()].reduce((sum, m) => sum + m.massMg, 0);
  const guess = Math.max(
    5_000,
    Math.round((cutting.startMg - known) / Math.max(1, cutting.pieces - state.pieces.size)),
  );
  const measuresOf = (no: number): PieceMeasures =>
    state.pieces.get(no) ?? { massMg: guess, lengthMm: Math.round(usualLength(template, guess)) };
  const pieces = Array.from({ length: n }, (_, i) => measuresOf(i + 1));
  const profiles = pieces.map((m) => fitProfile(template, m));
  const { answer, late } = useRolls({ template, pieces, perRoll: setup.perRoll });
  // an answer to fewer pieces than lie here now is an old one
  const rolls = (answer ?? []).filter((roll) => roll.laid.every((l) => l.piece < n));
  const plans = rolls.map((roll) =>
    planRoll({
      ...setup,
      massMg: roll.massMg,
      lengthMm: Math.max(...roll.laid.map((l) => profiles[l.piece]?.lengthMm ?? 1)),
      density: template.density,
    }),
  );
  const made = state.weights.filter((w) => w.line === 'roll').length;
  const nextPlan = plans[made];
  const unmeasured = Array.from({ length: n }, (_, i) => i + 1).find((no) => !state.pieces.has(no));
  const recordWeight = (massMg: number): string => {
    settle();
    const isRoll = line === 'roll';
    const name = isRoll ? 'roll' : 'ends';
    record(
      {
        kind: 'weigh',
        piece: made + 1,
        line,
        name,
        destination: isRoll ? 'larder' : 'filling',
        massMg,
        count: 1,
        predictedMg: isRoll && nextPlan !== undefined ? Math.round(nextPlan.massMg) : null,
        fromMm: null,
        toMm: null,
        replaces: null,
      },
      `${name}, ${formatMass(massMg)}`,
    );
    return isRoll
      ? `Roll ${made + 1}: ${formatMass(massMg)}. Rest it ${setup.rest.minHours} to ${setup.rest.maxHours} hours, chilled.`
      : `Ends: ${formatMass(massMg)}.`;
  };
  const taking = useTake(recordWeight, () => leftOn(board));
  const { wrap } = setup;
  return (
    <BoardFrame
      board={board}
      taking={taking}
      made="rolls"
      says={
        unmeasured === undefined
          ? 'Lay them head to tail as drawn, wrap, tie, and weigh each roll.'
          : `Lay piece ${unmeasured} on the pan and touch “The pan is piece ${unmeasured}”, or leave the guess.`
      }
      wantedMg={line === 'roll' ? nextPlan?.massMg : undefined}
      big={line === 'roll' ? `Weigh roll ${made + 1}` : 'Weigh the ends'}
      lines={[
        { id: 'roll', name: 'roll' },
        { id: 'end', name: 'ends' },
      ]}
      line={line}
      onLine={setLine}
      panTo={
        unmeasured === undefined
          ? undefined
          : {
              label: `The pan is piece ${unmeasured}`,
              put: (massMg) =>
                record(
                  {
                    kind: 'piece',
                    no: unmeasured,
                    measures: { massMg, lengthMm: Math.round(usualLength(template, massMg)) },
                  },
                  `piece ${unmeasured}, ${formatMass(massMg)}`,
                ),
            }
      }
    >
      {cutting.pieces > MOST_LOINS && (
        <div className="mb-3">
          <Notice tone="attention">
            {cutting.pieces} pieces lie here; {MOST_LOINS} are paired at a time. Roll these, finish, and put the rest
            back.
          </Notice>
        </div>
      )}
      {rolls.length === 0 && !late && (
        <Notice tone="attention">
          One roll of {setup.perRoll} wants as many pieces; here is {cutting.pieces === 1 ? 'one' : cutting.pieces}.
        </Notice>
      )}
      <div className="grid gap-3 xl:grid-cols-2">
        {rolls.map((roll, i) => {
          const plan = plans[i];
          return plan === undefined ? null : (
            <RollDrawing
              key={roll.laid.map((l) => l.piece).join()}
              roll={roll}
              profiles={profiles}
              plan={plan}
              no={i + 1}
            />
          );
        })}
      </div>
      <div className="my-4">
        <Figures
          of={[
            [String(plans.reduce((sum, p) => sum + p.portions, 0)), 'portions after the rest'],
            [formatMass(Math.round(plans.reduce((sum, p) => sum + p.restedMg, 0) / 1_000) * 1_000), 'rested'],
            [`${setup.rest.minHours} to ${setup.rest.maxHours} h`, 'chilled, so that it cuts clean'],
          ]}
        />
      </div>
      <div className="grid grid-cols-4 gap-3 max-md:grid-cols-2">
        <NumField
          label="Pieces a roll"
          min={1}
          max={4}
          decimals={0}
          value={setup.perRoll}
          onValue={(v) => change({ perRoll: Math.round(v) })}
        />
        <NumField
          label="Laid inside"
          unit="g"
          max={20_000}
          decimals={0}
          value={setup.coreMg / 1_000}
          hint="inner fillets, a filling"
          onValue={(g) => change({ coreMg: Math.round(g * 1_000) })}
        />
        <NumField
          label="Tie every"
          unit="cm"
          min={0.5}
          max={30}
          value={setup.tieSpacingMm / 10}
          onValue={(v) => change({ tieSpacingMm: v * 10 })}
        />
        <NumField
          label="Portion"
          unit="g"
          min={5}
          max={5_000}
          decimals={0}
          value={setup.targetMg / 1_000}
          onValue={(g) => change({ targetMg: Math.round(g * 1_000) })}
        />
        <NumField
          label="Rests at least"
          unit="h"
          max={72}
          value={setup.rest.minHours}
          onValue={(minHours) => change({ rest: { ...setup.rest, minHours } })}
        />
        <NumField
          label="and at most"
          unit="h"
          max={168}
          value={setup.rest.maxHours}
          onValue={(maxHours) => change({ rest: { ...setup.rest, maxHours } })}
        />
        <NumField
          label="Drips"
          unit="%"
          max={30}
          value={setup.dripShare * 100}
          onValue={(p) => change({ dripShare: p / 100 })}
        />
        <Select
          label="Wrapped in"
          value={wrap.kind}
          onValue={(value) => {
            const kind = value;
            change({
              wrap:
                kind === 'flap'
                  ? { kind, widthMm: 180, lengthMm: 220 }
                  : kind === 'sheet'
                    ? { kind, widthMm: sheet?.wideMm ?? 40, lengthMm: sheet?.longMm ?? 250, thicknessMm: 2 }
                    : { kind: 'none' },
            });
          }}
          options={named(wraps)}
        />
        {wrap.kind !== 'none' && (
          <>
            <NumField
              label={wrap.kind === 'flap' ? 'Flap wide' : 'Sheet wide'}
              unit="mm"
              min={1}
              max={1_000}
              decimals={0}
              value={wrap.widthMm}
              onValue={(widthMm) => change({ wrap: { ...wrap, widthMm } })}
            />
            <NumField
              label={wrap.kind === 'flap' ? 'Flap long' : 'Sheet long'}
              unit="mm"
              min={1}
              max={1_000}
              decimals={0}
              value={wrap.lengthMm}
              onValue={(lengthMm) => change({ wrap: { ...wrap, lengthMm } })}
            />
            <NumField
              label="Lies double"
              unit="%"
              max={100}
              decimals={0}
              value={setup.overlapShare * 100}
              onValue={(p) => change({ overlapShare: p / 100 })}
            />
          </>
        )}
      </div>
      <h2 className="mt-5 mb-2 text-lg font-bold">The pieces</h2>
      <ol className="grid grid-cols-2 gap-x-6 gap-y-2 max-md:grid-cols-1">
        {profiles.map((_, i) => {
          const no = i + 1;
          const m = measuresOf(no);
          const put = (part: Partial<PieceMeasures>): void =>
            void record({ kind: 'piece', no, measures: { ...m, ...part } }, `piece ${no}`);
          return (
            <li key={`piece ${no}`} className="grid grid-cols-2 gap-3">
              <NumField
                late
                label={`Piece ${no}${state.pieces.has(no) ? '' : ', guessed'}`}
                unit="g"
                min={5}
                max={60_000}
                decimals={0}
                value={m.massMg / 1_000}
                onValue={(g) => put({ massMg: Math.round(g * 1_000) })}
              />
              <NumField
                late
                label="long"
                unit="cm"
                min={1}
                max={300}
                value={m.lengthMm / 10}
                onValue={(v) => put({ lengthMm: Math.round(v * 10) })}
              />
            </li>
          );
        })}
      </ol>
    </BoardFrame>
  );
}
