import { type CoolingSteps, formatCount, formatDegrees, formatMass } from '@zabrik/core';
import { longWords, type Method } from './coolingMethods.ts';

/** Ways of cooling side by side, each with its minutes against the limit; choosing one shows its curve. */
export function CoolingMethods({
  methods,
  limit,
  on,
  onPick,
}: {
  readonly methods: readonly Method[];
  readonly limit: CoolingSteps | undefined;
  readonly on: string | undefined;
  readonly onPick: (id: string) => void;
}) {
  return (
    <div className="overflow-x-auto">
      <table className="w-full min-w-[520px]">
        <thead>
          <tr className="border-b-2 border-line text-left text-[14px] text-ink-soft">
            <th className="py-1 font-semibold">How</th>
            <th className="py-1 text-right font-semibold">deep</th>
            {limit?.value.steps.map((s) => (
              <th key={s.to_C} className="py-1 pl-3 text-right font-semibold">
                to {formatDegrees(s.to_C)}
              </th>
            ))}
            <th className="py-1 pl-3 font-semibold">foretold</th>
          </tr>
        </thead>
        <tbody>
          {methods.map((m) => {
            const within = m.progress?.verdict === 'within';
            return (
              <tr key={m.id} className={`border-b border-line ${m.id === on ? 'bg-calm-soft' : ''}`}>
                <th scope="row" className="p-0 text-left font-normal">
                  <button
                    type="button"
                    aria-pressed={m.id === on}
                    className="min-h-12 w-full px-2 text-left leading-tight hover:underline"
                    onClick={() => onPick(m.id)}
                  >
                    <span className="block font-semibold">{m.medium}</span>
                    <span className="block text-[13px] text-ink-soft">
                      {m.count > 1 ? `${m.count} × ` : ''}
                      {m.vesselName}
                      {m.iceKg !== undefined && `, ${formatMass(Math.round(m.iceKg) * 1e6)} of ice`}
                    </span>
                  </button>
                </th>
                <td className="figure text-right">{formatCount(m.depthMm / 10, 1)} cm</td>
                {m.minutes.map((minutes, i) => {
                  const step = limit?.value.steps[i];
                  const over = minutes === undefined || (step !== undefined && minutes > step.within_min);
                  return (
                    <td key={step?.to_C} className={`figure pl-3 text-right ${over ? 'text-alarm' : ''}`}>
                      {longWords(minutes)}
                    </td>
                  );
                })}
                <td className={`pl-3 font-semibold ${within ? 'text-calm' : 'text-alarm'}`}>
                  {m.progress === undefined ? '' : within ? 'within' : 'outside'}
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
    </div>
  );
}
