import { usualSizes } from '@zabrik/catalogue/portioning';
import { aMass, formatMass, type PieceTemplate, type PortionSize, type PortionsSetup, zones } from '@zabrik/core';
import { Plus, Trash2 } from 'lucide-react';
import { useHouse } from '../../../app/queries.ts';
import { Button } from '../../../kit/Button.tsx';
import { Field } from '../../../kit/Field.tsx';
import { AmountField } from '../../../kit/MoneyField.tsx';
import { NumField } from '../../../kit/NumField.tsx';
import { Toggle } from '../../../kit/Toggle.tsx';
import { Animals } from './Animals.tsx';

interface Props {
  readonly setup: PortionsSetup;
  readonly category: string | null;
  readonly template: PieceTemplate;
  readonly pieces: number;
  readonly pieceMg: number;
  readonly onChange: (setup: PortionsSetup) => void;
}

const zoneNames = { head: 'thick end', centre: 'middle', tail: 'thin end' } as const;

/** The usual size of that name in grams, as a size that can be wanted. */
export const sizeFrom = (usual: ReturnType<typeof usualSizes>[number]): PortionSize => ({
  id: usual.id,
  name: usual.name,
  targetMg: Math.round(usual.grams * 1_000),
  toleranceShare: usual.toleranceShare,
  valueMinor: usual.valueMinor,
  from: [...usual.from],
});

function OneSize({
  size,
  template,
  only,
  onChange,
  onRemove,
}: {
  readonly size: PortionSize;
  readonly template: PieceTemplate;
  readonly only: boolean;
  readonly onChange: (size: PortionSize) => void;
  readonly onRemove: () => void;
}) {
  const { data: house } = useHouse();
  const { acrossIsThickness } = template;
  const from = size.from ?? [];
  const bound = acrossIsThickness ? size.span : size.body;
  const setBound = (change: Partial<{ min: number; max: number }>): void => {
    const next = { min: bound?.min ?? 0, max: bound?.max ?? 200, ...change };
    const value = next.min <= 0 && next.max >= 200 ? null : next;
    onChange(acrossIsThickness ? { ...size, span: value } : { ...size, body: value });
  };
  return (
    <fieldset className="rounded-plate border border-line bg-white p-2.5" aria-label={size.name}>
      <div className="mb-2 flex items-center gap-2">
        <Field
          aria-label="Name of the size"
          className="font-head font-semibold"
          value={size.name}
          maxLength={60}
          onChange={(event) => {
            if (event.target.value.trim() !== '') onChange({ ...size, name: event.target.value });
          }}
        />
        <Button aria-label={`Without ${size.name}`} className="size-11 px-0" disabled={only} onClick={onRemove}>
          <Trash2 size={18} aria-hidden="true" />
        </Button>
      </div>
      <div className="grid grid-cols-2 gap-2">
        <NumField
          label="Weighs"
          unit="g"
          min={5}
          max={5_000}
          decimals={0}
          value={size.targetMg / 1_000}
          onValue={(g) => onChange({ ...size, targetMg: Math.round(g * 1_000) })}
        />
        <NumField
          label="Within"
          unit="%"
          min={0}
          max={50}
          value={size.toleranceShare * 100}
          onValue={(p) => onChange({ ...size, toleranceShare: p / 100 })}
        />
        <AmountField
          label="Worth"
          currency={house?.currency}
          max={1_000_000}
          minor={size.valueMinor}
          onMinor={(valueMinor) => onChange({ ...size, valueMinor })}
        />
        <NumField
          label="At most"
          hint="empty: any number"
          min={0}
          max={200}
          decimals={0}
          value={size.most ?? null}
          onNone={() => onChange({ ...size, most: null })}
          onValue={(n) => onChange({ ...size, most: Math.round(n) })}
        />
        <NumField
          label="Thickness from"
          unit="mm"
          max={200}
          decimals={0}
          value={bound?.min ?? 0}
          onValue={(min) => setBound({ min })}
        />
        <NumField
          label="to"
          unit="mm"
          max={200}
          decimals={0}
          value={bound?.max ?? 200}
          onValue={(max) => setBound({ max })}
        />
      </div>
      {template.alike !== true && (
        <fieldset className="border-0 p-0 mt-2 flex gap-1.5" aria-label="Where it may come from">
          {zones.map((zone) => {
            const on = from.length === 0 || from.includes(zone);
            return (
              <Toggle
                key={zone}
                on={on}
                className="flex-1"
                onPress={() => {
                  const now = from.length === 0 ? [...zones] : [...from];
                  const next = now.includes(zone) ? now.filter((z) => z !== zone) : [...now, zone];
                  onChange({ ...size, from: next.length === 0 || next.length === zones.length ? [] : next });
                }}
              >
                {zoneNames[zone]}
              </Toggle>
            );
          })}
        </fieldset>
      )}
    </fieldset>
  );
}

/** The sizes wanted of a piece: what each weighs, is worth, and where it may come from. */
export function SizesTab({ setup, category, template, pieces, pieceMg, onChange }: Props) {
  const { data: house } = useHouse();
  const { sizes } = setup;
  const unused = usualSizes(category).filter((u) => !sizes.some((s) => s.id === u.id));
  const fresh = (): PortionSize => {
    let n = sizes.length + 1;
    while (sizes.some((s) => s.id === `size-${n}`)) n += 1;
    return { id: `size-${n}`, name: `size ${n}`, targetMg: 120_000, toleranceShare: 0.05, valueMinor: 500, from: [] };
  };
  return (
    <div className="grid gap-2.5 p-2.5">
      {sizes.map((size, i) => (
        <OneSize
          key={size.id}
          size={size}
          template={template}
          only={sizes.length === 1}
          onChange={(next) => onChange({ ...setup, sizes: sizes.map((s, k) => (k === i ? next : s)) })}
          onRemove={() => onChange({ ...setup, sizes: sizes.filter((_, k) => k !== i) })}
        />
      ))}
      <div className="flex flex-wrap gap-2">
        {unused.map((u) => (
          <Button
            key={u.id}
            className="min-h-12"
            onClick={() => onChange({ ...setup, sizes: [...sizes, sizeFrom(u)] })}
          >
            <Plus size={16} aria-hidden="true" /> {u.name}, {formatMass(u.grams * 1_000)}
          </Button>
        ))}
        {sizes.length < 8 && (
          <Button className="min-h-12" onClick={() => onChange({ ...setup, sizes: [...sizes, fresh()] })}>
            <Plus size={16} aria-hidden="true" /> another
          </Button>
        )}
      </div>
      <AmountField
        label="What is left is worth"
        currency={house?.currency}
        per={aMass()}
        max={100_000}
        minor={setup.endMinorPerKg}
        onMinor={(endMinorPerKg) => onChange({ ...setup, endMinorPerKg })}
      />
      <Animals setup={setup} template={template} pieces={pieces} pieceMg={pieceMg} />
    </div>
  );
}
