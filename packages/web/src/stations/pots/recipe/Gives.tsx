/** What comes of it: how much, counted how, what comes out beside it, how far it is taken down, in which vessel, how long it keeps. */
import { type KeptAs, keptAs, keptAsNames, type Recipe } from '@zabrik/core';
import { Trash2 } from 'lucide-react';
import { useCatalogue } from '../../../app/queries.ts';
import { Button } from '../../../kit/Button.tsx';
import { Check } from '../../../kit/Check.tsx';
import { Field } from '../../../kit/Field.tsx';
import { NumField } from '../../../kit/NumField.tsx';
import { named, optionsOf, Select } from '../../../kit/Select.tsx';
import { trays } from '../../../parts/destinations.ts';
import { changed, without } from '../../../parts/rows.ts';
import { useRows } from '../../../parts/useRows.ts';
import { vesselWords } from '../vesselWords.ts';
import { type Edit, freeId } from './edit.ts';
import { Section } from './Section.tsx';

const vessels: Readonly<Record<Recipe['vessel'], string>> = { ...vesselWords, none: 'none' };

type Counted = 'no' | 'plates' | 'pieces' | 'kept';
const countedAs = (recipe: Recipe): Counted =>
  recipe.keepsPieces !== undefined
    ? 'kept'
    : recipe.piece !== undefined
      ? 'pieces'
      : recipe.gramsPerPlate === undefined
        ? 'no'
        : 'plates';

function Count({ recipe, put, drop }: Edit) {
  const now = countedAs(recipe);
  const choose = (next: Counted): void => {
    for (const field of ['gramsPerPlate', 'piece', 'keepsPieces'] as const) drop(field);
    if (next === 'plates') put({ gramsPerPlate: 150 });
    if (next === 'pieces') put({ piece: { name: 'pieces', grams: 40 } });
    if (next === 'kept') put({ keepsPieces: { word: 'cooked' } });
  };
  return (
    <div className="grid gap-3 md:grid-cols-4">
      <Select
        label="Counted"
        value={now}
        onValue={choose}
        options={optionsOf({
          no: 'by weight alone',
          plates: 'in plates',
          pieces: 'in pieces of our own size',
          kept: 'as the pieces that went in',
        })}
      />
      {recipe.gramsPerPlate !== undefined && (
        <NumField
          label={`${recipe.baseName || 'base'} a plate`}
          unit="g"
          value={recipe.gramsPerPlate}
          min={1}
          max={5_000}
          onValue={(gramsPerPlate) => put({ gramsPerPlate })}
        />
      )}
      {recipe.piece !== undefined && (
        <>
          <Field
            label="They are called"
            value={recipe.piece.name}
            maxLength={60}
            onChange={(event) => put({ piece: { grams: 40, ...recipe.piece, name: event.target.value || 'pieces' } })}
          />
          <NumField
            label="One weighs"
            unit="g"
            value={recipe.piece.grams}
            min={0.5}
            max={5_000}
            onValue={(grams) => put({ piece: { name: 'pieces', ...recipe.piece, grams } })}
          />
        </>
      )}
      {recipe.keepsPieces !== undefined && (
        <Field
          label="And then they are"
          placeholder="braised, confit, salted"
          value={recipe.keepsPieces.word}
          maxLength={40}
          onChange={(event) => put({ keepsPieces: { ...recipe.keepsPieces, word: event.target.value || 'cooked' } })}
        />
      )}
    </div>
  );
}

function Beside({ recipe, put, drop }: Edit) {
  const { data: catalogue } = useCatalogue();
  const list = recipe.byProducts ?? [];
  const to = (next: typeof list): void => (next.length === 0 ? drop('byProducts') : put({ byProducts: next }));
  return (
    <>
      {list.map((p, i) => (
        <div key={p.id} className="grid grid-cols-[1fr_1fr_130px_110px_auto_auto] items-end gap-2 max-md:grid-cols-2">
          <Field
            label="Beside it"
            value={p.name}
            maxLength={60}
            onChange={(event) => to(changed(list, i, { ...p, name: event.target.value }))}
          />
          <Select
            label="It is then"
            value={p.category ?? ''}
            none="a batch of its own"
            onValue={(id) => {
              const { category: _, ...rest } = p;
              to(changed(list, i, id === '' ? rest : { ...rest, category: id }));
            }}
            options={(catalogue?.categories ?? [])
              .filter((c) => c.useWithinHours > 0)
              .map((c) => ({ value: c.id, name: c.label }))}
          />
          <Select
            label="Goes to"
            value={p.destination}
            onValue={(destination) => to(changed(list, i, { ...p, destination }))}
            options={named(trays)}
          />
          <NumField
            label="Keeps"
            unit="days"
            value={p.keepDays}
            max={60}
            decimals={0}
            onValue={(v) => to(changed(list, i, { ...p, keepDays: Math.round(v) }))}
          />
          <Check
            label="usually binned"
            checked={p.usuallyWaste === true}
            onChange={(event) => {
              const { usuallyWaste: _, ...rest } = p;
              to(changed(list, i, event.target.checked ? { ...rest, usuallyWaste: true } : rest));
            }}
          />
          <Button className="h-11" aria-label={`Without ${p.name}`} onClick={() => to(without(list, i))}>
            <Trash2 size={18} aria-hidden="true" />
          </Button>
        </div>
      ))}
      <Button
        className="justify-self-start"
        disabled={list.length >= 8}
        onClick={() =>
          to([
            ...list,
            {
              id: freeId(
                'beside',
                list.map((p) => p.id),
              ),
              name: '',
              destination: 'larder',
              keepDays: 2,
            },
          ])
        }
      >
        Something comes out beside it
      </Button>
    </>
  );
}

function Marks({ recipe, put }: Edit) {
  const list = useRows<Recipe['marks'][number]>(recipe.marks, (marks) => put({ marks }));
  return (
    <>
      {list.rows.map(({ row: m, i, id }) => (
        <div key={id} className="grid grid-cols-[1fr_140px_2fr_auto] items-end gap-2 max-md:grid-cols-2">
          <Field
            label="Taken down to"
            placeholder="sauce, glaze"
            value={m.name}
            maxLength={60}
            onChange={(event) => list.change(i, { ...m, name: event.target.value })}
          />
          <NumField
            label="of its volume"
            unit="%"
            value={m.factor * 100}
            min={1}
            max={99}
            decimals={0}
            onValue={(v) => list.change(i, { ...m, factor: v / 100 })}
          />
          <Field
            label="Look for"
            value={m.note ?? ''}
            maxLength={400}
            onChange={(event) => {
              const { note: _, ...rest } = m;
              list.change(i, event.target.value === '' ? rest : { ...rest, note: event.target.value });
            }}
          />
          <Button className="h-11" aria-label={`Without ${m.name}`} onClick={() => list.leaveOut(i)}>
            <Trash2 size={18} aria-hidden="true" />
          </Button>
        </div>
      ))}
      <Button className="justify-self-start" onClick={() => list.add({ name: '', factor: 0.5 })}>
        A mark to take it down to
      </Button>
    </>
  );
}

export function Gives({ recipe, put, drop }: Edit) {
  const { output } = recipe;
  const unit = output.measure === 'litres' ? 'l' : 'kg';
  return (
    <Section
      name="What it gives"
      says={`From a kilo of ${recipe.baseName.trim() || 'it'}; your own batches put this right as they come in.`}
    >
      <div className="grid grid-cols-[1fr_repeat(3,120px)_160px] items-end gap-3 max-md:grid-cols-2">
        <Field
          label="It is called"
          value={output.name}
          maxLength={60}
          onChange={(event) => put({ output: { ...output, name: event.target.value } })}
        />
        {(['low', 'mean', 'high'] as const).map((f) => (
          <NumField
            key={f}
            label={f === 'low' ? 'from' : f === 'mean' ? 'usually' : 'to'}
            unit={unit}
            value={output[f]}
            min={0.01}
            max={50}
            decimals={3}
            onValue={(value) =>
              put({
                output:
                  f === 'mean'
                    ? { ...output, mean: value, low: Math.min(output.low, value), high: Math.max(output.high, value) }
                    : { ...output, [f]: value },
              })
            }
          />
        ))}
        <Select
          label="Measured"
          value={output.measure}
          onValue={(measure) => put({ output: { ...output, measure } })}
          options={optionsOf({ litres: 'in litres', mass: 'by weight' })}
        />
      </div>
      <Count recipe={recipe} put={put} drop={drop} />
      <div className="grid gap-3 md:grid-cols-4">
        <Check
          label="Ready to eat as it comes out"
          checked={recipe.ready}
          onChange={(event) => put({ ready: event.target.checked })}
        />
        <Check
          label="It fills what was boned out"
          checked={recipe.fills === true}
          onChange={(event) => (event.target.checked ? put({ fills: true }) : drop('fills'))}
        />
      </div>
      <div className="grid gap-3 md:grid-cols-5">
        <Select
          label="Made in"
          value={recipe.vessel}
          onValue={(vessel) => put({ vessel })}
          options={optionsOf(vessels)}
        />
        <NumField
          label="Room a kilo takes"
          unit="l"
          value={recipe.litresPerKg ?? null}
          min={0.1}
          max={50}
          onNone={() => drop('litresPerKg')}
          onValue={(litresPerKg) => put({ litresPerKg })}
        />
        <NumField
          label="In one layer"
          unit="kg/m²"
          value={recipe.layerKgPerM2 ?? null}
          min={0.1}
          max={200}
          onNone={() => drop('layerKgPerM2')}
          onValue={(layerKgPerM2) => put({ layerKgPerM2 })}
        />
        {(['low', 'high'] as const).map((f) => (
          <NumField
            key={f}
            label={f === 'low' ? 'Kept at, from' : 'to'}
            unit="°C"
            value={recipe.heatC?.[f] ?? null}
            min={-40}
            max={400}
            onNone={() => drop('heatC')}
            onValue={(value) => put({ heatC: { low: value, high: value, ...recipe.heatC, [f]: value } })}
          />
        ))}
        <NumField
          label="Splits above"
          unit="°C"
          value={recipe.splitsAboveC ?? null}
          max={100}
          onNone={() => drop('splitsAboveC')}
          onValue={(splitsAboveC) => put({ splitsAboveC })}
        />
      </div>
      <Beside recipe={recipe} put={put} drop={drop} />
      <Marks recipe={recipe} put={put} drop={drop} />
    </Section>
  );
}

/** How long it keeps, in each way it is kept; and what must be said where it is made. */
export function Keeps({ recipe, put }: Edit) {
  const { keeps } = recipe;
  const of = (days: number) => ({
    days,
    jurisdiction: 'our own',
    source: 'The house’s own',
    provenance: 'estimate' as const,
  });
  const to = (next: Recipe['keeps']): void =>
    put({ keeps: next, shelfLifeDays: Math.round(next[0]?.days ?? recipe.shelfLifeDays) });
  return (
    <Section name="How long it keeps" says="The house’s limits come on top: the shorter of the two is the date.">
      {keeps.map((k, i) => (
        <div key={`${k.as}${k.profiles?.join() ?? ''}`} className="flex flex-wrap items-end gap-2">
          <Select
            label="Kept"
            className="w-44"
            value={k.as}
            onValue={(as) => to(changed(keeps, i, { ...k, as, state: keptAsNames[as] }))}
            options={keptAs.map((as) => ({ value: as, name: keptAsNames[as] }))}
          />
          <NumField
            label="Days"
            unit="days"
            className="w-32"
            value={k.days}
            min={0.1}
            max={3_650}
            onValue={(days) => to(changed(keeps, i, { ...k, ...of(days) }))}
          />
          <NumField
            label="At most"
            unit="°C"
            className="w-32"
            value={k.maxC}
            min={-40}
            max={90}
            onNone={() => to(changed(keeps, i, { ...k, maxC: null }))}
            onValue={(maxC) => to(changed(keeps, i, { ...k, maxC }))}
          />
          {k.profiles !== undefined && (
            <span className="self-center text-[14px] text-ink-soft">
              by {k.profiles.join(', ').toUpperCase()} alone
            </span>
          )}
          <Button
            className="h-11"
            aria-label={`Not kept ${keptAsNames[k.as]}`}
            disabled={keeps.length === 1}
            onClick={() => to(without(keeps, i))}
          >
            <Trash2 size={18} aria-hidden="true" />
          </Button>
        </div>
      ))}
      <Select<KeptAs | ''>
        label="Kept another way"
        className="w-60"
        value=""
        none="choose how"
        onValue={(as) => {
          if (as !== '') to([...keeps, { as, state: keptAsNames[as], maxC: as === 'frozen' ? -18 : 5, ...of(2) }]);
        }}
        options={keptAs
          .filter((as) => !keeps.some((k) => k.as === as))
          .map((as) => ({ value: as, name: keptAsNames[as] }))}
      />
      <label className="grid gap-1 text-[15px] font-semibold">
        Cautions, one a line
        <textarea
          className="min-h-20 rounded-md border-[1.5px] border-line-strong bg-white p-2 font-normal"
          value={recipe.cautions.join('\n')}
          onChange={(event) => put({ cautions: event.target.value.split('\n').map((c) => c.slice(0, 400)) })}
          onBlur={() => put({ cautions: recipe.cautions.map((c) => c.trim()).filter((c) => c !== '') })}
        />
      </label>
    </Section>
  );
}
