import { formatMoney, formatPerMass } from '@zabrik/core';
import { CartesianGrid, Line, LineChart, ResponsiveContainer, Tooltip, XAxis, YAxis } from 'recharts';
import { dayName } from '../../app/dates.ts';
import { ChartFrame } from '../../kit/ChartFrame.tsx';

interface Props {
  readonly points: readonly { readonly day: string; readonly minorPerKg: number }[];
  readonly currency: string;
}

/** What an item cost from list to list: each price holds until the next. */
export default function PriceChart({ points, currency }: Props) {
  const last = points.at(-1);
  return (
    <ChartFrame
      label={`What a kilogram cost, ${points.length} ${points.length === 1 ? 'list' : 'lists'}`}
      sentence={
        last === undefined
          ? undefined
          : `${formatMoney(last.minorPerKg, currency)} a kilogram since ${dayName(last.day)}.`
      }
      columns={['Since', 'A kilogram']}
      rows={[...points].reverse().map((p) => [dayName(p.day), formatMoney(p.minorPerKg, currency)])}
      height={192}
    >
      <ResponsiveContainer width="100%" height="100%">
        <LineChart data={[...points]} margin={{ top: 12, right: 12, bottom: 0, left: 0 }}>
          <CartesianGrid stroke="var(--color-line)" vertical={false} />
          <XAxis dataKey="day" tickFormatter={dayName} fontSize={12} stroke="var(--color-ink-soft)" />
          <YAxis
            tickFormatter={(v: number) => formatMoney(v, currency)}
            width={64}
            fontSize={12}
            stroke="var(--color-ink-soft)"
            domain={['auto', 'auto']}
          />
          <Tooltip
            formatter={(v) => [formatPerMass(Number(v), currency), '']}
            labelFormatter={(d) => dayName(String(d))}
          />
          <Line
            type="stepAfter"
            dataKey="minorPerKg"
            stroke="var(--color-ink)"
            strokeWidth={2}
            dot={{ r: 3 }}
            isAnimationActive={false}
          />
        </LineChart>
      </ResponsiveContainer>
    </ChartFrame>
  );
}
