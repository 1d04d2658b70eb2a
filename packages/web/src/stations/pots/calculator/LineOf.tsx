import {
  CartesianGrid,
  Line,
  LineChart,
  ReferenceDot,
  ReferenceLine,
  ResponsiveContainer,
  XAxis,
  YAxis,
} from 'recharts';
import { ChartFrame } from '../../../kit/ChartFrame.tsx';

interface Props {
  readonly points: readonly { readonly x: number; readonly y: number }[];
  readonly xUnit: string;
  readonly yUnit: string;
  readonly label: string;
  readonly mark?: { readonly x: number; readonly y: number };
  readonly line?: number;
}

/** One figure over another, with the answer marked on it. */
export function LineOf({ points, xUnit, yUnit, label, mark, line }: Props) {
  return (
    <ChartFrame
      label={label}
      columns={[xUnit, yUnit]}
      rows={points.map(({ x, y }) => [String(Math.round(x * 100) / 100), String(Math.round(y * 100) / 100)])}
      height={210}
    >
      <ResponsiveContainer width="100%" height="100%">
        <LineChart data={[...points]} margin={{ top: 14, right: 20, bottom: 4, left: 0 }}>
          <CartesianGrid stroke="#c3cdca" vertical={false} />
          <XAxis
            dataKey="x"
            type="number"
            domain={['dataMin', 'dataMax']}
            unit={` ${xUnit}`}
            stroke="#4a5a57"
            tickFormatter={(v: number) => String(Math.round(v * 10) / 10)}
            minTickGap={30}
          />
          <YAxis
            unit={` ${yUnit}`}
            width={64}
            stroke="#4a5a57"
            tickFormatter={(v: number) => String(Math.round(v * 10) / 10)}
          />
          {line !== undefined && <ReferenceLine y={line} stroke="#a92f24" strokeWidth={2} strokeDasharray="6 5" />}
          <Line dataKey="y" stroke="#14211f" strokeWidth={3} dot={false} isAnimationActive={false} />
          {mark !== undefined && (
            <ReferenceDot x={mark.x} y={mark.y} r={7} fill="#ffc53d" stroke="#14211f" strokeWidth={2} />
          )}
        </LineChart>
      </ResponsiveContainer>
    </ChartFrame>
  );
}
