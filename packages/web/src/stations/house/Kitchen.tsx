/** The kitchen itself: its name, what its work costs, what it still has to say. */

import { useQuery } from '@tanstack/react-query';
import type { House } from '@zabrik/contract';
import {
  amountText,
  type CostingSchool,
  clocks,
  costingSchools,
  dateOrders,
  decimalSigns,
  massSystems,
  massTyped,
  parseMass,
  readDecimal,
  temperatureScales,
  type Units,
  volumeSystems,
} from '@zabrik/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { z } from 'zod';
import { call } from '../../app/api.ts';
import { useCommand } from '../../app/command.ts';
import { api } from '../../app/endpoints.ts';
import { useKeptForm } from '../../app/keptForm.ts';
import { useFlow, useHouse, useMay } from '../../app/queries.ts';
import { Button } from '../../kit/Button.tsx';
import { Choice } from '../../kit/Choice.tsx';
import { Dialog } from '../../kit/Dialog.tsx';
import { Field } from '../../kit/Field.tsx';
import { aPriceOrNothing, read } from '../../kit/fieldReaders.ts';
import { MoneyField } from '../../kit/MoneyField.tsx';
import { Failed, Loading, Notice } from '../../kit/Notice.tsx';
import { optionsOf, Select } from '../../kit/Select.tsx';
import { RecoveryCode } from '../../parts/RecoveryCode.tsx';
import { StillHere } from '../../parts/StillHere.tsx';
import { ForChefs, HouseHead } from './HouseHead.tsx';
import { SaveFoot } from './SaveFoot.tsx';
import { stillToSay } from './stillToSay.ts';
import { type SaveHouse, useSaveHouse } from './useSaveHouse.ts';

const schools: Readonly<Record<CostingSchool, string>> = {
  weight: 'By weight: a kilo of bones costs what a kilo of fillet costs',
  'by-product-credit': 'By-product credit: bones and trim cost what they are worth, the portions the rest',
};

const massNames: Readonly<Record<Units['mass'], string>> = {
  metric: 'grams and kilograms',
  imperial: 'ounces and pounds',
};
const temperatureNames: Readonly<Record<Units['temperature'], string>> = { C: '°C', F: '°F' };
const volumeNames: Readonly<Record<Units['volume'], string>> = {
  litres: 'litres',
  us: 'US quarts and gallons',
  imperial: 'imperial quarts and gallons',
};
const clockNames: Readonly<Record<Units['clock'], string>> = { '24': '14:30', '12': '2:30 pm' };
const dateNames: Readonly<Record<Units['dates'], string>> = {
  'day-first': 'Tue 24 Nov',
  'month-first': 'Tue, Nov 24',
};
const decimalNames: Readonly<Record<Units['decimal'], string>> = { point: '1,250.5', comma: '1 250,5' };

const percent = z
  .string()
  .transform(read(readDecimal, 'A percentage, such as 1'))
  .refine((p) => p >= 0 && p <= 50, '0 to 50 %');

const kitchenForm = (currency: string) =>
  z
    .object({
      name: z.string().trim().min(1, 'A name').max(120),
      school: z.enum(costingSchools),
      labour: aPriceOrNothing(currency),
      energy: aPriceOrNothing(currency),
      taxed: z.enum(['', 'without', 'with']),
      taxName: z.string().trim().max(20, 'At most 20 letters'),
      share: percent,
      mass: z.string().transform(read((text) => parseMass(text), 'A weight, such as 10')),
      units: z.object({
        mass: z.enum(massSystems),
        temperature: z.enum(temperatureScales),
        volume: z.enum(volumeSystems),
        clock: z.enum(clocks),
        dates: z.enum(dateOrders),
        decimal: z.enum(decimalSigns),
      }),
    })
    .refine((said) => said.taxed === '' || said.taxName !== '', {
      path: ['taxName'],
      message: 'What it is called, such as VAT',
    });

const typedOf = (house: House) => {
  const amount = (minor: number | null): string => (minor === null ? '' : amountText(minor, house.currency));
  return {
    name: house.name,
    school: house.school,
    labour: amount(house.labourMinorPerHour),
    energy: amount(house.energyMinorPerKwh),
    taxed: house.tax?.prices ?? ('' as const),
    taxName: house.tax?.name ?? '',
    share: String(house.tolerance.share * 100),
    mass: massTyped(house.tolerance.massMg),
    units: { ...house.units },
  };
};

function KitchenForm({ house, saving }: { readonly house: House; readonly saving: SaveHouse }) {
  const form = useKeptForm('kitchen', kitchenForm(house.currency), typedOf(house));
  const { register, handleSubmit, formState, typed, setValue } = form;
  const may = useMay('house.saveSettings');
  const { errors } = formState;
  return (
    <form
      aria-label="Kitchen"
      className="grid gap-4"
      onSubmit={(event) =>
        void handleSubmit((said) =>
          saving.save(
            {
              name: said.name,
              school: said.school,
              labourMinorPerHour: said.labour,
              energyMinorPerKwh: said.energy,
              tax: said.taxed === '' ? null : { name: said.taxName, prices: said.taxed },
              tolerance: { share: said.share / 100, massMg: said.mass },
              units: said.units,
            },
            form.clear,
          ),
        )(event)
      }
    >
      <StillHere draft={form.kept} />
      <fieldset disabled={!may} className="grid gap-4 border-0 p-0">
        <Field label="Name of the kitchen" error={errors.name?.message} {...register('name')} />
        <div className="grid gap-4 sm:grid-cols-2">
          <MoneyField
            label="An hour at the bench costs"
            currency={house.currency}
            hint="Empty: labour is not counted. What an hour of one person costs stands with the person."
            error={errors.labour?.message}
            {...register('labour')}
          />
          <MoneyField
            label="A kilowatt-hour costs"
            currency={house.currency}
            hint="Empty: energy is not counted."
            error={errors.energy?.message}
            {...register('energy')}
          />
          <Select
            label="Prices are typed"
            options={[
              { value: '', name: 'nothing is said of tax' },
              { value: 'without', name: 'without tax' },
              { value: 'with', name: 'with tax' },
            ]}
            {...register('taxed')}
          />
          <Field
            label="The tax is called"
            hint="Said beside prices and costs. It is not reckoned: whoever gets it back types prices without."
            error={errors.taxName?.message}
            {...register('taxName')}
          />
          <Field
            label="Scales may differ from an invoice by"
            unit="%"
            inputMode="decimal"
            error={errors.share?.message}
            {...register('share')}
          />
          <Field
            label="and in any case by"
            unit="g"
            inputMode="decimal"
            error={errors.mass?.message}
            {...register('mass')}
          />
        </div>
        <Choice
          legend="What a piece costs"
          options={costingSchools.map((value) => ({ value, name: schools[value] }))}
          value={typed.school}
          onValue={(school) => setValue('school', school)}
        />
        <section aria-label="Units" className="grid gap-2">
          <h2 className="text-lg font-bold">Units</h2>
          <p className="text-[15px] text-ink-soft">
            How figures are shown and read, on every screen and label. A weight or a temperature with its own unit is
            taken as it is typed. Files keep grams, litres and degrees Celsius.
          </p>
          <div className="grid gap-3 sm:grid-cols-3">
            <Select label="Weights in" options={optionsOf(massNames)} {...register('units.mass')} />
            <Select label="Temperatures in" options={optionsOf(temperatureNames)} {...register('units.temperature')} />
            <Select label="Volumes in" options={optionsOf(volumeNames)} {...register('units.volume')} />
            <Select label="The clock" options={optionsOf(clockNames)} {...register('units.clock')} />
            <Select label="A date" options={optionsOf(dateNames)} {...register('units.dates')} />
            <Select label="Decimals" options={optionsOf(decimalNames)} {...register('units.decimal')} />
          </div>
        </section>
      </fieldset>
      <p className="text-ink-soft">
        Prices in {house.currency}, times in {house.timezone}: said when the kitchen was set up, and in every record
        since.
      </p>
      <SaveFoot saving={saving} />
    </form>
  );
}

function Recovery({ house }: { readonly house: House }) {
  const [asked, setAsked] = useState(false);
  const make = useCommand(api.access.newRecoveryCode);
  const code = make.answer?.recoveryCode;
  return (
    <section aria-label="Recovery code" className="grid justify-items-start gap-2">
      <h2 className="text-lg font-bold">Recovery code</h2>
      <p className="text-ink-soft">
        It lets a head chef in who has forgotten PIN and password. On paper, in the safe; the one before is none any
        more.
      </p>
      <Button size="bench" onClick={() => setAsked(true)}>
        Print a new code
      </Button>
      {asked && (
        <Dialog
          title="A new recovery code"
          says="It is shown once. Whoever has it can sign in as a head chef."
          onClose={() => {
            setAsked(false);
            make.reset();
          }}
        >
          {code === undefined ? (
            <Button variant="strong" size="bench" disabled={make.pending} onClick={() => make.send({})}>
              Make it
            </Button>
          ) : (
            <RecoveryCode house={house.name} code={code} />
          )}
          {make.error !== null && <Notice tone="alarm">{make.error.message}</Notice>}
        </Dialog>
      )}
    </section>
  );
}

function KitchenPage() {
  const house = useHouse();
  const saving = useSaveHouse();
  const may = useMay('house.saveSettings');
  const { data: flow } = useFlow();
  const suppliers = useQuery({
    queryKey: ['suppliers'],
    queryFn: () => call(api.receive.suppliers, {}),
    staleTime: 600_000,
  });
  const missing =
    house.data === undefined || suppliers.data === undefined
      ? []
      : stillToSay(house.data, suppliers.data.suppliers.length, flow?.lotsOnHand ?? 1);
  return (
    <div className="flex flex-1 flex-col">
      <HouseHead />
      <div className="grid flex-1 content-start gap-8 p-5 lg:grid-cols-[minmax(0,1fr)_360px]">
        {house.isPending ? (
          <Loading />
        ) : house.isLoadingError ? (
          <Failed error={house.error} again={() => void house.refetch()} />
        ) : (
          <>
            <KitchenForm key={house.data.version} house={house.data} saving={saving} />
            <aside className="grid content-start gap-8">
              <section aria-label="Still to be said">
                <h2 className="mb-2 text-lg font-bold">Still to be said</h2>
                {missing.length === 0 ? (
                  <p className="text-ink-soft">Nothing that any screen waits for.</p>
                ) : (
                  <ul className="grid gap-2">
                    {missing.map(({ what, why, to }) => (
                      <li key={what} className="border-l-4 border-attention pl-3">
                        <Link className="font-semibold underline" to={to}>
                          {what}
                        </Link>
                        <span className="block text-[14px] text-ink-soft">{why}</span>
                      </li>
                    ))}
                  </ul>
                )}
              </section>
              {may && <Recovery house={house.data} />}
            </aside>
          </>
        )}
      </div>
    </div>
  );
}

export default function Kitchen() {
  return (
    <ForChefs>
      <KitchenPage />
    </ForChefs>
  );
}
