/** What it weighs: gross and box from the scale or typed, box by box where there are several. */
import { formatMass, massFigure, massTyped } from '@zabrik/core';
import { Scale } from 'lucide-react';
import { useScale } from '../../app/live.ts';
import { Button } from '../../kit/Button.tsx';
import { Field } from '../../kit/Field.tsx';
import type { Line } from './useLine.ts';

/** Grams, until someone types a unit of their own. */
export const unitOf = (text: string): string => (/[a-z]/i.test(text) ? '' : 'g');

export function LineWeights({ line }: { readonly line: Line }) {
  const scale = useScale();
  const { typed, register, setValue, error, netMg, boxes, whole } = line;
  const fromScale = (name: 'gross' | 'tare') => (
    <Button
      variant="plain"
      className="h-14 px-3"
      disabled={scale.state !== 'steady' || scale.grossMg <= 0}
      onClick={() => setValue(name, massTyped(scale.grossMg), { shouldValidate: true })}
      aria-label={`Take ${name === 'gross' ? 'gross' : 'box'} from the scale`}
    >
      <Scale size={20} aria-hidden="true" />
      <span className="figure w-16 text-right" aria-hidden="true">
        {scale.state === 'away' ? 'no scale' : massFigure(scale.grossMg)}
      </span>
    </Button>
  );
  const weight = (name: 'gross' | 'tare', label: string) => (
    <Field
      label={label}
      unit={unitOf(typed[name])}
      big
      inputMode="decimal"
      error={error(name)}
      action={fromScale(name)}
      {...register(name)}
    />
  );
  return (
    <>
      <div className="grid gap-5 md:grid-cols-[1fr_1fr_0.62fr]">
        {weight('gross', 'Gross, with box')}
        {weight('tare', 'Box')}
        <div>
          <span className="mb-1 block text-[15px] font-semibold">Net</span>
          <output className="figure flex h-14 items-center text-[32px]" data-testid="net">
            {netMg === undefined ? '–' : formatMass(netMg)}
          </output>
        </div>
      </div>
      <div className="-mt-2 flex flex-wrap items-center gap-2 text-[15px]">
        <Button disabled={netMg === undefined && !whole} onClick={line.addBox}>
          Another box
        </Button>
        {boxes.length > 0 && (
          <>
            <span data-testid="boxes">
              {boxes.length} {boxes.length === 1 ? 'box' : 'boxes'}:{' '}
              {boxes.map((b) => formatMass(b.grossMg - b.tareMg)).join(', ')}
            </span>
            <Button variant="plain" disabled={whole} onClick={line.sumBoxes}>
              Add them up
            </Button>
            <Button onClick={line.dropBox}>Take the last back</Button>
          </>
        )}
      </div>
    </>
  );
}
