/** What stands in the kitchen: places, pots, burners, the machine that chops. */
import type { House } from '@zabrik/contract';
import { formatLitres, mouldMl, placeKinds, readDecimal } from '@zabrik/core';
import { useFieldArray } from 'react-hook-form';
import { useKeptForm } from '../../app/keptForm.ts';
import { useHouse, useMay } from '../../app/queries.ts';
import { Check } from '../../kit/Check.tsx';
import { Field } from '../../kit/Field.tsx';
import { Failed, Loading, Notice } from '../../kit/Notice.tsx';
import { optionsOf, Select } from '../../kit/Select.tsx';
import { AllergensSaid } from '../../parts/AllergensSaid.tsx';
import { mouldSides } from '../../parts/mouldSides.ts';
import { StillHere } from '../../parts/StillHere.tsx';
import {
  familyNames,
  groupNames,
  kindNames,
  measuresOf,
  mouldNames,
  mouldOf,
  newEquipment,
  newGoods,
  newMould,
} from './equipmentForm.ts';
import { FormPicture } from './FormPicture.tsx';
import { ForChefs, HouseHead } from './HouseHead.tsx';
import { List, Row } from './ListOfThings.tsx';
import { SaveFoot } from './SaveFoot.tsx';
import { brimLitres, placeNames, settingsOf, thingsForm, typedOf } from './thingsForm.ts';
import { type SaveHouse, useSaveHouse } from './useSaveHouse.ts';

/** A probe's error is a difference: in degrees Celsius, as its papers say. */
const measures = {
  longCm: { label: 'Long', unit: 'cm' },
  wideCm: { label: 'Wide', unit: 'cm' },
  kW: { label: 'Power', unit: 'kW' },
  holds: { label: 'Takes at once', unit: 'g' },
  error: { label: 'May be out by, Celsius' },
} as const;

function ThingsForm({ house, saving }: { readonly house: House; readonly saving: SaveHouse }) {
  const form = useKeptForm('things', thingsForm, typedOf(house));
  const { control, register, setValue, handleSubmit, formState, typed, kept } = form;
  const places = useFieldArray({ control, name: 'places', keyName: 'row' });
  const vessels = useFieldArray({ control, name: 'vessels', keyName: 'row' });
  const burners = useFieldArray({ control, name: 'burners', keyName: 'row' });
  const machines = useFieldArray({ control, name: 'machines', keyName: 'row' });
  const equipment = useFieldArray({ control, name: 'equipment', keyName: 'row' });
  const goods = useFieldArray({ control, name: 'goods', keyName: 'row' });
  const moulds = useFieldArray({ control, name: 'moulds', keyName: 'row' });
  const may = useMay('house.saveSettings');
  const { errors } = formState;
  const holds = (i: number): string | undefined => {
    const v = typed.vessels[i];
    const [across, deep] = [readDecimal(v?.acrossCm ?? ''), readDecimal(v?.deepCm ?? '')];
    return across > 0 && deep > 0 ? `brim ${formatLitres(brimLitres(across, deep))}` : undefined;
  };
  return (
    <form
      aria-label="Things"
      className="grid gap-8"
      onSubmit={(event) => void handleSubmit((read) => saving.save(settingsOf(read, house), form.clear))(event)}
    >
      <StillHere draft={kept} />
      <fieldset disabled={!may} className="grid gap-8 border-0 p-0 2xl:grid-cols-2">
        <List
          title="Places"
          says="Where lots lie. Raw and ready to eat apart."
          more="Another place"
          onMore={() => places.append({ id: '', name: '', kind: 'fridge', holds: 'raw' })}
        >
          {places.fields.map((row, i) => (
            <Row key={row.row} name={typed.places[i]?.name ?? ''} onAway={() => places.remove(i)}>
              <Field
                label="Name"
                dense
                className="min-w-36 flex-1"
                error={errors.places?.[i]?.name?.message}
                {...register(`places.${i}.name`)}
              />
              <Select
                label="Kind"
                dense
                options={placeKinds.map((value) => ({ value, name: placeNames[value] }))}
                {...register(`places.${i}.kind`)}
              />
              <Select
                label="Holds"
                dense
                options={[
                  { value: 'raw', name: 'raw' },
                  { value: 'ready', name: 'ready to eat' },
                  { value: 'any', name: 'both' },
                ]}
                {...register(`places.${i}.holds`)}
              />
            </Row>
          ))}
        </List>
        <List
          title="Pots and pans"
          says="Their size says how full they stand, when a stock is down to its mark, how long it cools."
          more="Another pot"
          onMore={() => vessels.append({ id: '', name: '', kind: 'pot', litres: '', acrossCm: '', deepCm: '' })}
        >
          {vessels.fields.map((row, i) => (
            <Row key={row.row} name={typed.vessels[i]?.name ?? ''} onAway={() => vessels.remove(i)}>
              <FormPicture
                pot={[readDecimal(typed.vessels[i]?.acrossCm ?? ''), readDecimal(typed.vessels[i]?.deepCm ?? '')]}
              />
              <Field
                label="Name"
                dense
                className="min-w-36 flex-1"
                error={errors.vessels?.[i]?.name?.message}
                {...register(`vessels.${i}.name`)}
              />
              <Select
                label="Kind"
                dense
                options={[
                  { value: 'pot', name: 'pot' },
                  { value: 'pan', name: 'pan' },
                ]}
                {...register(`vessels.${i}.kind`)}
              />
              <Field
                label="Holds"
                unit="l"
                dense
                className="w-24"
                inputMode="decimal"
                hint={holds(i)}
                error={errors.vessels?.[i]?.litres?.message}
                {...register(`vessels.${i}.litres`)}
              />
              <Field
                label="Across, inside"
                unit="cm"
                dense
                className="w-28"
                inputMode="decimal"
                error={errors.vessels?.[i]?.acrossCm?.message}
                {...register(`vessels.${i}.acrossCm`)}
              />
              <Field
                label="Deep"
                unit="cm"
                dense
                className="w-24"
                inputMode="decimal"
                error={errors.vessels?.[i]?.deepCm?.message}
                {...register(`vessels.${i}.deepCm`)}
              />
            </Row>
          ))}
        </List>
        <List
          title="Burners"
          says="What goes into the pot: of gas about 40 %, a hot plate 65 %, induction 85 % (common practice)."
          more="Another burner"
          onMore={() => burners.append({ id: '', name: '', kW: '', percent: '40' })}
        >
          {burners.fields.map((row, i) => (
            <Row key={row.row} name={typed.burners[i]?.name ?? ''} onAway={() => burners.remove(i)}>
              <Field
                label="Name"
                dense
                className="min-w-36 flex-1"
                error={errors.burners?.[i]?.name?.message}
                {...register(`burners.${i}.name`)}
              />
              <Field
                label="Power"
                unit="kW"
                dense
                className="w-28"
                inputMode="decimal"
                error={errors.burners?.[i]?.kW?.message}
                {...register(`burners.${i}.kW`)}
              />
              <Field
                label="Into the pot"
                unit="%"
                dense
                className="w-28"
                inputMode="decimal"
                error={errors.burners?.[i]?.percent?.message}
                {...register(`burners.${i}.percent`)}
              />
            </Row>
          ))}
        </List>
        <List
          title="Blenders and cutters"
          says="The motor warms a filling: its plate says how many watts."
          more="Another machine"
          onMore={() => machines.append({ id: '', name: '', watts: '' })}
        >
          {machines.fields.map((row, i) => (
            <Row key={row.row} name={typed.machines[i]?.name ?? ''} onAway={() => machines.remove(i)}>
              <Field
                label="Name"
                dense
                className="min-w-36 flex-1"
                error={errors.machines?.[i]?.name?.message}
                {...register(`machines.${i}.name`)}
              />
              <Field
                label="Motor"
                unit="W"
                dense
                className="w-32"
                inputMode="decimal"
                error={errors.machines?.[i]?.watts?.message}
                {...register(`machines.${i}.watts`)}
              />
            </Row>
          ))}
        </List>
        <List
          title="Goods of your own"
          says="Bought beside what the catalogue knows: port, brandy, a jelly. They are taken in, kept, counted and cooked with like the others."
          more="Another of them"
          onMore={() => goods.append(newGoods)}
        >
          {goods.fields.map((row, i) => {
            const g = typed.goods[i];
            const wrong = errors.goods?.[i];
            return (
              <Row key={row.row} name={g?.name ?? ''} onAway={() => goods.remove(i)}>
                <Field
                  label="Name"
                  dense
                  className="min-w-36 flex-1"
                  error={wrong?.name?.message}
                  {...register(`goods.${i}.name`)}
                />
                <Select label="Kind" dense options={optionsOf(groupNames)} {...register(`goods.${i}.group`)} />
                <Field
                  label="Keeps, days"
                  dense
                  className="w-24"
                  inputMode="numeric"
                  error={wrong?.lifeDays?.message}
                  {...register(`goods.${i}.lifeDays`)}
                />
                <Select
                  label="Kept in"
                  dense
                  options={placeKinds.map((value) => ({ value, name: placeNames[value] }))}
                  {...register(`goods.${i}.place`)}
                />
                <Check label="Eaten as it is" labelClass="mt-[22px] min-h-10" {...register(`goods.${i}.ready`)} />
                <AllergensSaid
                  name={g?.name ?? 'it'}
                  has={g?.allergens ?? []}
                  unsaid={false}
                  onSay={(said) => setValue(`goods.${i}.allergens`, [...said], { shouldDirty: true })}
                />
              </Row>
            );
          })}
        </List>
        <List
          title="Moulds"
          says="By their inside: how much of a farce fills them stands at the bench, before what is usual."
          more="Another mould"
          onMore={() => moulds.append(newMould)}
        >
          {moulds.fields.map((row, i) => {
            const m = typed.moulds[i];
            const kind = m?.kind ?? 'terrine';
            const made = m === undefined ? undefined : mouldOf(kind, m.sides);
            return (
              <Row key={row.row} name={m?.name ?? ''} onAway={() => moulds.remove(i)}>
                <FormPicture mould={made} />
                <Field
                  label="Name"
                  dense
                  className="min-w-36 flex-1"
                  hint={made === undefined ? undefined : `to the rim ${formatLitres(mouldMl(made) / 1_000, 2)}`}
                  error={errors.moulds?.[i]?.name?.message}
                  {...register(`moulds.${i}.name`)}
                />
                <Select label="Form" dense options={optionsOf(mouldNames)} {...register(`moulds.${i}.kind`)} />
                {mouldSides[kind].map(([side, label]) => (
                  <Field
                    key={side}
                    label={label}
                    unit="cm"
                    dense
                    className="w-32"
                    inputMode="decimal"
                    error={errors.moulds?.[i]?.sides?.[side]?.message}
                    {...register(`moulds.${i}.sides.${side}`)}
                  />
                ))}
              </Row>
            );
          })}
        </List>
        <List
          title="Ovens, chillers, probes, boards, trays, sheets"
          says="What else the work goes over. A sheet’s size is offered where something is rolled."
          more="Another thing"
          onMore={() => equipment.append(newEquipment)}
        >
          {equipment.fields.map((row, i) => {
            const e = typed.equipment[i];
            const wrong = errors.equipment?.[i];
            const kind = e?.kind ?? 'oven';
            return (
              <Row key={row.row} name={e?.name ?? ''} onAway={() => equipment.remove(i)}>
                <Field
                  label="Name"
                  dense
                  className="min-w-36 flex-1"
                  error={wrong?.name?.message}
                  {...register(`equipment.${i}.name`)}
                />
                <Select label="Kind" dense options={optionsOf(kindNames)} {...register(`equipment.${i}.kind`)} />
                {measuresOf[kind].map((which) => (
                  <Field
                    key={which}
                    {...measures[which]}
                    dense
                    className="w-36"
                    inputMode="decimal"
                    error={wrong?.[which]?.message}
                    {...register(`equipment.${i}.${which}`)}
                  />
                ))}
                {kind === 'board' && (
                  <Select
                    label="Kept for"
                    dense
                    none="anything"
                    options={optionsOf(familyNames)}
                    {...register(`equipment.${i}.cuts`)}
                  />
                )}
              </Row>
            );
          })}
        </List>
      </fieldset>
      {errors.places?.root?.message !== undefined && <Notice tone="alarm">{errors.places.root.message}</Notice>}
      <SaveFoot saving={saving} />
    </form>
  );
}

function ThingsPage() {
  const house = useHouse();
  const saving = useSaveHouse();
  return (
    <div className="flex flex-1 flex-col">
      <HouseHead />
      <div className="p-5">
        {house.isPending ? (
          <Loading />
        ) : house.isLoadingError ? (
          <Failed error={house.error} again={() => void house.refetch()} />
        ) : (
          <ThingsForm key={house.data.version} house={house.data} saving={saving} />
        )}
      </div>
    </div>
  );
}

export default function Things() {
  return (
    <ForChefs>
      <ThingsPage />
    </ForChefs>
  );
}
