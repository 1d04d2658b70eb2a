/** What came: the line of the order, the animal or the goods, how it came, the code on its box and its temperature. */
import type { Order } from '@zabrik/contract';
import { type CameAs, figureTyped, formatMass } from '@zabrik/core';
import type { Catalogue } from '../../app/queries.ts';
import { Choice } from '../../kit/Choice.tsx';
import { Field } from '../../kit/Field.tsx';
import { Toggle } from '../../kit/Toggle.tsx';
import { Caution } from '../../parts/Caution.tsx';
import { ProbeReading } from '../../parts/ProbeReading.tsx';
import { AnimalPicker } from './AnimalPicker.tsx';
import { cameUsually } from './deliveryForm.ts';
import { ScanBox } from './ScanBox.tsx';
import type { Line } from './useLine.ts';

const cameNames: readonly { readonly value: CameAs; readonly name: string }[] = [
  { value: 'fresh', name: 'fresh' },
  { value: 'live', name: 'live' },
  { value: 'frozen', name: 'frozen' },
  { value: 'vacuum-packed', name: 'vacuum-packed' },
];

export const Ordered = ({ line, order }: { readonly line: Line; readonly order: Order }) => (
  <fieldset className="min-w-0 border-0 p-0">
    <legend className="mb-1 text-[15px] font-semibold">Expected of {order.supplierName}</legend>
    <div className="flex flex-wrap gap-2">
      {order.lines.map((l) => (
        <Toggle
          key={l.position}
          on={line.position === l.position}
          size="bench"
          className={`text-left leading-tight ${l.cameMg >= l.massMg * 0.9 ? 'border-line bg-sheet text-ink-soft' : ''}`}
          onPress={() => line.chooseOrdered(l, order.supplierId)}
        >
          <span className="block font-semibold">{l.name}</span>
          <span className="text-[14px]">
            {formatMass(l.massMg)}
            {l.cameMg > 0 && `, ${formatMass(l.cameMg)} came`}
          </span>
        </Toggle>
      ))}
    </div>
  </fieldset>
);

export function LineWhat({ line, catalogue }: { readonly line: Line; readonly catalogue: Catalogue }) {
  const { typed, species, raised, register, setValue, error } = line;
  return (
    <div className="grid grid-cols-2 gap-x-5 gap-y-4">
      <div>
        <AnimalPicker
          species={catalogue.species}
          goods={catalogue.goods}
          chosen={typed.goods === '' ? typed.species : typed.goods}
          error={error('species')}
          onChoose={line.choose}
        />
        {error('species') !== undefined && <p className="mt-1 text-[14px] text-alarm">{error('species')}</p>}
        {species !== undefined && (
          <Choice
            legend="How it came"
            error={error('form')}
            className="mt-3"
            options={species.forms.filter((f) => f.purchase).map((f) => ({ value: f.id, name: f.name }))}
            {...register('form', {
              onChange: (event: { target: { value: string } }) => {
                // a lobster is alive, its cooked tail is not
                if (typed.came === 'live' || typed.came === 'fresh')
                  setValue('came', cameUsually(species, event.target.value));
              },
            })}
          />
        )}
        {raised !== null && (
          <fieldset className="mt-2 min-w-0 border-0 p-0">
            <legend className="sr-only">Wild or raised</legend>
            <div className="flex flex-wrap gap-2">
              {(['wild', 'farmed'] as const).map((how) => (
                <Toggle key={how} on={raised === how} shape="pill" onPress={() => setValue('raised', how)}>
                  {how === 'wild' ? 'wild, shot' : 'farmed'}
                </Toggle>
              ))}
            </div>
          </fieldset>
        )}
        {(species !== undefined || typed.goods !== '') && (
          <Choice
            legend="Fresh, live, frozen or packed"
            quiet
            round
            className="mt-2"
            options={cameNames}
            {...register('came')}
          />
        )}
      </div>
      <div>
        <ScanBox onRead={line.fill} />
        <div className="mt-3">
          <Caution
            id={line.papers === 'game' ? 'game.source' : line.classId === 'live-shellfish' ? 'molluscs' : 'receiving'}
          />
        </div>
        <div className="mt-3 grid items-end gap-3 sm:grid-cols-[120px_minmax(0,1fr)]">
          <Field
            label="Temperature"
            unit="°C"
            inputMode="decimal"
            error={error('temperature')}
            {...register('temperature')}
          />
          <ProbeReading
            onTake={(centiC) => setValue('temperature', figureTyped('°C', centiC / 100, 1), { shouldValidate: true })}
          />
        </div>
      </div>
    </div>
  );
}
