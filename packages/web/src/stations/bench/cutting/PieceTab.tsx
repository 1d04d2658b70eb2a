import { templatesFor } from '@zabrik/catalogue/portioning';
import type { PieceMeasures, PieceTemplate, PortionsSetup } from '@zabrik/core';
import { Button } from '../../../kit/Button.tsx';
import { NumField } from '../../../kit/NumField.tsx';
import { named, Select } from '../../../kit/Select.tsx';
import { trayName } from '../../../parts/destinations.ts';

const endTrays = ['filling', 'staff', 'portion', 'larder', 'stock', 'waste'] as const;

interface Props {
  readonly no: number;
  readonly pieces: number;
  readonly measures: PieceMeasures;
  readonly template: PieceTemplate;
  readonly setup: PortionsSetup;
  readonly category: string | null;
  /** The pan's figure, when it can be the piece. */
  readonly panMg: number | undefined;
  readonly learnt: string;
  readonly onMeasure: (measures: PieceMeasures) => void;
  readonly onSetup: (setup: PortionsSetup) => void;
}

/** What the piece measures, which form it is taken for, and how the knife goes through it. */
export function PieceTab(props: Props) {
  const { no, pieces, measures, template, setup, category, panMg, learnt, onMeasure, onSetup } = props;
  const at = (points: PieceMeasures['widths'], i: 0 | 1): number | null =>
    points?.find((p) => p.at === template.measureAt[i])?.mm ?? null;
  const put = (points: PieceMeasures['widths'], i: 0 | 1, mm: number | null): PieceMeasures['widths'] => [
    ...(points ?? []).filter((p) => p.at !== template.measureAt[i]),
    ...(mm === null ? [] : [{ at: template.measureAt[i], mm }]),
  ];
  const where = template.measureAt.map((share) => (measures.lengthMm * share) / 10);
  return (
    <div className="grid gap-3 p-3">
      <h3 className="font-head text-lg font-bold">
        Piece {no} of {pieces}
      </h3>
      <div className="grid grid-cols-2 gap-2">
        <NumField
          late
          label="Weighs"
          unit="g"
          min={5}
          max={60_000}
          decimals={0}
          value={measures.massMg / 1_000}
          onValue={(g) => onMeasure({ ...measures, massMg: Math.round(g * 1_000) })}
        />
        <Button
          className="mt-6 h-11 px-2"
          disabled={panMg === undefined}
          onClick={() => panMg !== undefined && onMeasure({ ...measures, massMg: panMg })}
        >
          From the pan
        </Button>
        <NumField
          late
          label="Long"
          unit="cm"
          min={1}
          max={300}
          value={measures.lengthMm / 10}
          onValue={(v) => onMeasure({ ...measures, lengthMm: Math.round(v * 10) })}
        />
        <span />
        {([0, 1] as const).map((i) => (
          <NumField
            late
            key={`w${i}`}
            label={`Wide at ${where[i]?.toFixed(0)} cm`}
            unit="cm"
            max={80}
            value={(at(measures.widths, i) ?? 0) === 0 ? null : (at(measures.widths, i) ?? 0) / 10}
            onNone={() => onMeasure({ ...measures, widths: put(measures.widths, i, null) })}
            onValue={(v) => onMeasure({ ...measures, widths: put(measures.widths, i, v === 0 ? null : v * 10) })}
          />
        ))}
        {([0, 1] as const).map((i) => (
          <NumField
            late
            key={`t${i}`}
            label={`Thick at ${where[i]?.toFixed(0)} cm`}
            unit="mm"
            max={400}
            decimals={0}
            value={at(measures.thicknesses, i)}
            onNone={() => onMeasure({ ...measures, thicknesses: put(measures.thicknesses, i, null) })}
            onValue={(v) => onMeasure({ ...measures, thicknesses: put(measures.thicknesses, i, v === 0 ? null : v) })}
          />
        ))}
      </div>
      <p className="text-[13px] text-ink-soft">
        Length and weight are enough. Each width or thickness makes the marks surer. {learnt}
      </p>
      <Select
        label="Form"
        value={setup.templateId}
        onValue={(value) => onSetup({ ...setup, templateId: value })}
        options={named(templatesFor(category))}
      />
      <div className="grid grid-cols-2 gap-2">
        <NumField
          label="Knife slants"
          unit="°"
          max={75}
          decimals={0}
          value={setup.angleDeg}
          onValue={(angleDeg) => onSetup({ ...setup, angleDeg })}
        />
        <NumField
          label="Saw takes"
          unit="mm"
          max={20}
          value={setup.kerfMm}
          onValue={(kerfMm) => onSetup({ ...setup, kerfMm })}
        />
        <NumField
          label="Square off thick end"
          unit="mm"
          max={300}
          decimals={0}
          value={setup.squareMm[0]}
          onValue={(v) => onSetup({ ...setup, squareMm: [v, setup.squareMm[1]] })}
        />
        <NumField
          label="Square off thin end"
          unit="mm"
          max={300}
          decimals={0}
          value={setup.squareMm[1]}
          onValue={(v) => onSetup({ ...setup, squareMm: [setup.squareMm[0], v] })}
        />
        <NumField
          label="Stays on the knife"
          unit="g"
          max={50}
          value={setup.clingMg / 1_000}
          onValue={(g) => onSetup({ ...setup, clingMg: Math.round(g * 1_000) })}
        />
        <Select
          label="Ends go to"
          value={setup.endTo}
          onValue={(value) => onSetup({ ...setup, endTo: value })}
          options={endTrays.map((t) => ({ value: t, name: trayName(t).toLowerCase() }))}
        />
      </div>
    </div>
  );
}
