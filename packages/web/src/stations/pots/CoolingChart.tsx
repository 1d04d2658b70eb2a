import { type CoolingSteps, formatDegrees, formatTemperature } from '@zabrik/core';
import {
  Area,
  CartesianGrid,
  ComposedChart,
  Line,
  ReferenceDot,
  ReferenceLine,
  ResponsiveContainer,
  XAxis,
  YAxis,
} from 'recharts';
import { ChartFrame } from '../../kit/ChartFrame.tsx';

export interface Curve {
  readonly name: string;
  /** °C, a point a minute. */
  readonly C: readonly number[];
  readonly dashed?: boolean;
}

interface Props {
  readonly curves: readonly Curve[];
  /** Between these two the forecast lies eight times in ten. */
  readonly band?: readonly [readonly number[], readonly number[]];
  readonly readings?: readonly { readonly minute: number; readonly C: number }[];
  readonly limit: CoolingSteps | undefined;
  /** Minute at which the limit's clock starts. */
  readonly clockFrom: number | undefined;
  readonly label: string;
  readonly height?: number;
}

const hours = (minute: number): string => (minute % 60 === 0 ? `${minute / 60} h` : `${minute} min`);

/** Temperature over time against the steps of the limit that was selected: what is expected, what the probe read, what is foretold. */
export function CoolingChart({ curves, band, readings = [], limit, clockFrom, label, height = 260 }: Props) {
  const deadline = (limit?.value.steps.at(-1)?.within_min ?? 240) + (clockFrom ?? 0);
  const end = Math.ceil(Math.max(deadline * 1.15, (readings.at(-1)?.minute ?? 0) * 1.1, 60) / 30) * 30;
  const every = end > 300 ? 5 : 2;
  const at = (C: readonly number[] | undefined, minute: number): number | undefined => C?.[minute] ?? undefined;
  const data = Array.from({ length: Math.floor(end / every) + 1 }, (_, i) => {
    const minute = i * every;
    const low = at(band?.[0], minute);
    const high = at(band?.[1], minute);
    return {
      minute,
      ...Object.fromEntries(curves.map((c, n) => [`c${n}`, at(c.C, minute)])),
      ...(low === undefined || high === undefined ? {} : { band: [low, high] }),
    };
  });
  const looks = ['#14211f', '#8b9a96'];
  const degrees = (C: number | undefined): string => (C === undefined ? '' : formatTemperature(Math.round(C * 100)));
  // every half hour, and whenever somebody read it
  const minutes = [
    ...new Set([
      ...Array.from({ length: Math.floor(end / 30) + 1 }, (_, i) => i * 30),
      ...readings.map((r) => Math.round(r.minute)),
    ]),
  ].sort((a, b) => a - b);
  const readColumn = readings.length > 0 ? ['read'] : [];
  const rows = minutes.map((minute) => [
    hours(minute),
    ...curves.map((c) => degrees(at(c.C, minute))),
    ...readColumn.map(() => degrees(readings.find((r) => Math.round(r.minute) === minute)?.C)),
  ]);
  return (
    <ChartFrame
      label={label}
      columns={['After', ...curves.map((c) => c.name), ...readColumn]}
      rows={rows}
      height={height}
    >
      <ResponsiveContainer width="100%" height="100%">
        <ComposedChart data={data} margin={{ top: 12, right: 16, bottom: 4, left: 0 }}>
          <CartesianGrid stroke="#c3cdca" vertical={false} />
          <XAxis
            dataKey="minute"
            type="number"
            domain={[0, end]}
            ticks={Array.from({ length: Math.floor(end / 60) + 1 }, (_, i) => i * 60)}
            tickFormatter={hours}
            stroke="#4a5a57"
          />
          <YAxis
            unit=" °"
            width={48}
            domain={[
              (low: number) => Math.floor(Math.min(low, 0) / 10) * 10,
              (high: number) => Math.ceil(high / 10) * 10,
            ]}
            stroke="#4a5a57"
          />
          {band !== undefined && <Area dataKey="band" fill="#b9d0cc" stroke="none" isAnimationActive={false} />}
          {curves.map((c, n) => (
            <Line
              key={c.name}
              dataKey={`c${n}`}
              name={c.name}
              stroke={looks[n] ?? '#14211f'}
              strokeWidth={n === 0 ? 3 : 2}
              {...(c.dashed === true ? { strokeDasharray: '6 5' } : {})}
              dot={false}
              isAnimationActive={false}
            />
          ))}
          {limit?.value.steps.map((s) => (
            <ReferenceLine
              key={s.to_C}
              segment={[
                { x: clockFrom ?? 0, y: s.to_C },
                { x: (clockFrom ?? 0) + s.within_min, y: s.to_C },
              ]}
              stroke="#a92f24"
              strokeWidth={2}
            />
          ))}
          {limit?.value.steps.map((s) => (
            <ReferenceDot
              key={`d${s.to_C}`}
              x={(clockFrom ?? 0) + s.within_min}
              y={s.to_C}
              r={7}
              fill="#fbeceb"
              stroke="#a92f24"
              strokeWidth={2}
              label={{ value: formatDegrees(s.to_C), position: 'top', fill: '#a92f24', fontSize: 14, fontWeight: 700 }}
            />
          ))}
          {readings.map((r) => (
            <ReferenceDot key={r.minute} x={r.minute} y={r.C} r={6} fill="#ffc53d" stroke="#14211f" strokeWidth={2} />
          ))}
        </ComposedChart>
      </ResponsiveContainer>
    </ChartFrame>
  );
}
