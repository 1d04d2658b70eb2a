/** What the invoice says, held against the scale; whose it is, and what its papers say. */
import { taxWords } from '@zabrik/core';
import { moneyOf, useHouse, useMay } from '../../app/queries.ts';
import { DateField } from '../../kit/DateField.tsx';
import { Field } from '../../kit/Field.tsx';
import { MoneyField } from '../../kit/MoneyField.tsx';
import { Notice } from '../../kit/Notice.tsx';
import { Popover } from '../../kit/Popover.tsx';
import { named, Select } from '../../kit/Select.tsx';
import { differenceOf } from './deliveryForm.ts';
import { unitOf } from './LineWeights.tsx';
import { NewSupplier } from './NewSupplier.tsx';
import { Papers } from './Papers.tsx';
import type { Line } from './useLine.ts';
import type { Supplier } from './useSuppliers.ts';
import { differenceWords } from './words.ts';

interface Props {
  readonly line: Line;
  readonly suppliers: readonly Supplier[];
  /** The delivery has its supplier already. */
  readonly fixed: boolean;
}

export function LineInvoice({ line, suppliers, fixed }: Props) {
  const { data: house } = useHouse();
  const mayAdd = useMay('receive.addSupplier');
  const { typed, register, error } = line;
  const difference = differenceOf(typed, house);
  return (
    <>
      <div className="grid gap-5 md:grid-cols-[1fr_1fr_1.24fr]">
        <Field
          label="Invoice weight"
          unit={unitOf(typed.invoice)}
          big
          inputMode="decimal"
          error={error('invoice')}
          {...register('invoice')}
        />
        <MoneyField
          label="Invoice price, in all"
          currency={house?.currency}
          hint={house?.tax == null ? undefined : taxWords(house.tax)}
          big
          error={error('price')}
          {...register('price')}
        />
        <div className="self-end pb-1" role="status" data-testid="difference">
          {difference !== undefined && (
            <Notice tone={difference.differenceMg < 0 && !difference.within ? 'attention' : 'calm'}>
              <span className="figure">
                {differenceWords(difference.differenceMg, difference.differenceMinor, moneyOf(house))}
              </span>
              {difference.differenceMg !== 0 && difference.within && ', which the scales may differ'}
              {difference.differenceMg < 0 && !difference.within && ' Tell the driver before he leaves.'}
            </Notice>
          )}
        </div>
      </div>
      <div className="grid grid-cols-4 gap-x-4 gap-y-3">
        <div>
          <Select
            label="Supplier"
            error={error('supplierId')}
            {...register('supplierId')}
            disabled={fixed}
            none="who brought it"
            options={named(suppliers)}
          />
          {mayAdd && !fixed && (
            <Popover
              label="A new supplier"
              trigger={
                <button type="button" className="min-h-9 text-[14px] underline">
                  Someone new
                </button>
              }
            >
              <NewSupplier onAdded={(id) => line.setSupplier(id)} />
            </Popover>
          )}
        </div>
        <Field label="Invoice number" error={error('invoiceNumber')} {...register('invoiceNumber')} />
        <Field label="How many" inputMode="numeric" error={error('animals')} {...register('animals')} />
        <Field label="Origin" error={error('origin')} {...register('origin')} />
        <DateField
          label="Landed or killed on"
          day={typed.landedOn}
          error={error('landedOn')}
          {...register('landedOn')}
        />
        <DateField
          label="Use by"
          day={typed.useBy}
          error={error('useBy')}
          hint="Empty: the usual life"
          {...register('useBy')}
        />
        <Field label="Note" className="col-span-2" error={error('note')} {...register('note')} />
      </div>
      <Papers kind={line.papers} register={register} error={error} />
    </>
  );
}
