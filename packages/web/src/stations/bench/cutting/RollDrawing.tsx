import { formatMass, type PairedRoll, type PieceProfile, type RollPlan } from '@zabrik/core';
import { cm, percentWords } from './cutWords.ts';

/** Two or more pieces as they lie together, the thin end of one on the thick end of the other. */
export function RollDrawing({
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
