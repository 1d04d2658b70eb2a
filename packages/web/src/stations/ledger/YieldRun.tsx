import type { YieldSheet } from '@zabrik/contract';
import { formatShare, individualsChart } from '@zabrik/core';
import {
  CartesianGrid,
  Line,
  LineChart,
  ReferenceArea,
  ReferenceLine,
  ResponsiveContainer,
  Tooltip,
  XAxis,
  YAxis,
} from 'recharts';
import { dayName } from '../../app/dates.ts';
import { ChartFrame } from '../../kit/ChartFrame.tsx';

/** The main cut over the house's earlier breakdowns of this kind, with the limits of an individuals chart. */
export default function YieldRun({
  history,
  current,
}: {
  readonly history: YieldSheet['history'];
  readonly current: string;
}) {
  const chart = individualsChart(history.map((h) => h.mainShare));
  const points = history.map((h, i) => ({ ...h, i, percent: h.mainShare * 100 }));
  const values = points.map((p) => p.percent);
  const low = 5 * Math.floor(Math.min(...values, (chart?.lower ?? 1) * 100) / 5);
  const high = 5 * Math.ceil(Math.max(...values, (chart?.upper ?? 0) * 100) / 5);
  const ticks = Array.from({ length: (high - low) / 5 + 1 }, (_, i) => low + 5 * i);
  return (
    <ChartFrame
      label={`Main cut of the last ${history.length}, from ${formatShare(Math.min(...values) / 100)} to ${formatShare(Math.max(...values) / 100)}`}
      sentence={
        chart === undefined
          ? undefined
          : `Middle ${formatShare(chart.centre)}, natural limits ${formatShare(chart.lower)} to ${formatShare(chart.upper)} (individuals chart, 3 moving ranges / 1.128).`
      }
      columns={['Day', 'By', 'Supplier', 'Main cut']}
      rows={[...points].reverse().map((h) => [dayName(h.at), h.by, h.supplierName ?? '', formatShare(h.mainShare)])}
      height={208}
    >
      <ResponsiveContainer width="100%" height="100%">
        <LineChart data={points} margin={{ top: 8, right: 12, bottom: 4, left: 0 }}>
          <CartesianGrid stroke="var(--color-line)" vertical={false} />
          <XAxis
            dataKey="i"
            tickFormatter={(i: number) => (points[i] === undefined ? '' : dayName(points[i].at).replace(/^\w+ /, ''))}
            minTickGap={48}
            stroke="var(--color-ink-soft)"
            fontSize={13}
          />
          <YAxis
            domain={[low, high]}
            ticks={ticks}
            unit=" %"
            width={52}
            stroke="var(--color-ink-soft)"
            fontSize={13}
            allowDecimals={false}
          />
          {chart !== undefined && (
            <>
              <ReferenceArea
                y1={chart.lower * 100}
                y2={chart.upper * 100}
                fill="var(--color-portion)"
                fillOpacity={0.08}
              />
              <ReferenceLine y={chart.centre * 100} stroke="var(--color-portion)" strokeDasharray="6 4" />
            </>
          )}
          <Tooltip
            isAnimationActive={false}
            labelFormatter={(i) => {
              const point = points[Number(i)];
              return point === undefined ? '' : `${dayName(point.at)}, ${point.by}, ${point.supplierName ?? ''}`;
            }}
            formatter={(value) => [`${Number(value).toFixed(1)} %`, 'main cut']}
          />
          <Line
            dataKey="percent"
            stroke="var(--color-ink)"
            strokeWidth={1.5}
            isAnimationActive={false}
            dot={({ cx, cy, payload, key }) => {
              const now = (payload as { id?: string } | undefined)?.id === current;
              return (
                <circle
                  key={key}
                  cx={cx}
                  cy={cy}
                  r={now ? 7 : 3.2}
                  fill={now ? 'var(--color-attention)' : 'var(--color-ink)'}
                  stroke="var(--color-ink)"
                  strokeWidth={now ? 2 : 0}
                />
              );
            }}
          />
        </LineChart>
      </ResponsiveContainer>
    </ChartFrame>
  );
}
