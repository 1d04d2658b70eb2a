import { templateById, templatesFor } from '@zabrik/catalogue/portioning';
import {
  fitProfile,
  formatMass,
  MOST_LOINS,
  type PairedRoll,
  type PieceMeasures,
  type PieceProfile,
  pairForRolls,
  planRoll,
  type RollPlan,
  type RollSetup,
  usualLength,
} from '@zabrik/core';
import { useState } from 'react';
import { inputLook } from '../../../parts/Field.tsx';
import { Notice } from '../../../parts/Notice.tsx';
import { BoardFrame, Figures, useSetup } from './BoardFrame.tsx';
import { cm, percentWords } from './cutWords.ts';
import { NumField } from './NumField.tsx';
import type { AtBoard } from './useCutting.ts';
import { useTake } from './useTake.ts';

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

/** Two or more pieces as they lie together, the thin end of one on the thick end of the other. */
function RollDrawing({
  roll,
  profiles,
  plan,
  no,
}: {
  readonly roll: PairedRoll;
  readonly profiles: readonly PieceProfile[];
  readonly plan: RollPlan;
  readonly no: number;
}) {
  const longest = Math.max(...roll.laid.map((l) => profiles[l.piece]?.lengthMm ?? 1));
  const scale = 560 / longest;
  const band = 46;
  const height = band * roll.laid.length;
  const shape = (profile: PieceProfile, turned: boolean, top: number): string => {
    const half = band / 2 - 3;
    const widest = Math.max(...profile.widthMm);
    const start = ((longest - profile.lengthMm) / 2) * scale;
    const places = Array.from({ length: 31 }, (_, i) => Math.round((i * profile.lengthMm) / 30));
    const y = (mm: number): number => ((profile.widthMm[turned ? profile.lengthMm - mm : mm] ?? 0) / widest) * half;
    const upper = places.map((mm) => `${(start + mm * scale).toFixed(1)},${(top + band / 2 - y(mm)).toFixed(1)}`);
    const lower = [...places]
      .reverse()
      .map((mm) => `${(start + mm * scale).toFixed(1)},${(top + band / 2 + y(mm)).toFixed(1)}`);
    return [...upper, ...lower].join(' ');
  };
  const most = Math.max(...roll.areaMm2);
  const parts = roll.areaMm2.map((area, at) => ({ area, at }));
  return (
    <figure className="rounded-plate border border-line bg-white p-3">
      <figcaption className="mb-1 flex flex-wrap items-baseline justify-between gap-x-4">
        <span className="font-head text-lg font-semibold">Roll {no}</span>
        <span className="text-[14px] text-ink-soft">
          {roll.laid.map((l) => `piece ${l.piece + 1}${l.turned ? ', turned' : ''}`).join(' with ')} · uneven by{' '}
          {percentWords(roll.unevenness)}
        </span>
      </figcaption>
      <svg
        viewBox={`-2 -2 564 ${height + 46}`}
        className="w-full"
        role="img"
        aria-label={`Roll ${no}: ${formatMass(Math.round(plan.massMg))}, ${plan.portions} portions`}
      >
        {roll.laid.map(({ piece, turned }, i) => {
          const profile = profiles[piece];
          return profile === undefined ? null : (
            <g key={piece}>
              <polygon
                points={shape(profile, turned, i * band)}
                fill={i % 2 === 0 ? '#bfdcd6' : '#d0e6e1'}
                stroke="var(--color-ink)"
                strokeWidth="1.5"
              />
              <text x="280" y={i * band + band / 2 + 5} textAnchor="middle" className="figure fill-ink text-[14px]">
                {piece + 1}: {formatMass(profile.massMg)} {turned ? '←' : '→'}
              </text>
            </g>
          );
        })}
        <g transform={`translate(0 ${height + 6})`}>
          {parts.map(({ at, area }) => (
            <rect
              key={at}
              x={at * 28}
              y={26 - (area / most) * 24}
              width="27"
              height={(area / most) * 24}
              fill="var(--color-portion)"
              opacity="0.75"
            />
          ))}
          {plan.ties.map((mm) => (
            <line
              key={mm}
              x1={mm * scale}
              x2={mm * scale}
              y1={-height - 4}
              y2="32"
              stroke="var(--color-ink)"
              strokeWidth="1.5"
              strokeDasharray="2 3"
            />
          ))}
        </g>
      </svg>
      <p className="text-[15px]">
        <strong className="figure">{formatMass(Math.round(plan.massMg))}</strong>, {cm(longest)} cm long,{' '}
        {cm(plan.diameterMm)} cm thick.
        {plan.flap !== undefined &&
          ` Flap to ${cm(plan.flap.widthMm)} × ${cm(plan.flap.lengthMm)} cm${plan.flap.enough ? `, ${percentWords(plan.flap.trimShare)} comes off` : ': it does not go round'}.`}
        {plan.sheets !== undefined &&
          ` ${plan.sheets.count} sheets: ${plan.sheets.across} side by side${plan.sheets.roundEach > 1 ? `, ${plan.sheets.roundEach} to go round` : ''}.`}{' '}
        Once round: {cm(plan.wrapLengthMm)} cm. {plan.ties.length} ties, at {plan.ties.map(cm).join(', ')} cm. After its
        rest {plan.portions} portions of {formatMass(Math.round(plan.portionMg / 1_000) * 1_000)}, {cm(plan.portionMm)}{' '}
        cm{plan.portions === 1 ? '' : ' each'}
        {plan.inTolerance ? '' : ', outside the tolerance'}.
      </p>
    </figure>
  );
}

const wraps = [
  { id: 'none', name: 'nothing' },
  { id: 'flap', name: 'its own flap' },
  { id: 'sheet', name: 'sheets (bacon, caul, leaf)' },
] as const;

/** Loins to rolls that rest overnight: which lie together, how thick, how tied, and what they give tomorrow. */
export function RollBoard({ board }: { readonly board: AtBoard }) {
  const { cutting, state, say } = board;
  const { setup, change, settle } = useSetup(board, 'roll', usual(board));
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
  const profiles = Array.from({ length: n }, (_, i) => fitProfile(template, measuresOf(i + 1)));
  const rolls = pairForRolls(profiles, setup.perRoll);
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
  const record = (massMg: number): string => {
    settle();
    const isRoll = line === 'roll';
    const name = isRoll ? 'roll' : 'ends';
    say(
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
  const taking = useTake(record);
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
                say(
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
      {rolls.length === 0 && (
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
        <label className="block text-[15px] font-semibold">
          Wrapped in
          <select
            className={`${inputLook} mt-1 h-11`}
            value={wrap.kind}
            onChange={(event) => {
              const kind = event.target.value;
              change({
                wrap:
                  kind === 'flap'
                    ? { kind, widthMm: 180, lengthMm: 220 }
                    : kind === 'sheet'
                      ? { kind, widthMm: 40, lengthMm: 250, thicknessMm: 2 }
                      : { kind: 'none' },
              });
            }}
          >
            {wraps.map((w) => (
              <option key={w.id} value={w.id}>
                {w.name}
              </option>
            ))}
          </select>
        </label>
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
            void say({ kind: 'piece', no, measures: { ...m, ...part } }, `piece ${no}`);
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
