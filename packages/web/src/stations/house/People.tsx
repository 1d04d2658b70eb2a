/** Who works here: added, given a PIN, renamed, gone. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { House, HousePerson } from '@zabrik/contract';
import { roleNames, roles, skills } from '@zabrik/contract/roles';
import { allergenWords, amountText, sayableAllergens } from '@zabrik/core';
import { useState } from 'react';
import { useFieldArray } from 'react-hook-form';
import { z } from 'zod';
import { call } from '../../app/api.ts';
import { useCommand } from '../../app/command.ts';
import { clockTimeOf, dayAndTime, weekdays } from '../../app/dates.ts';
import { api } from '../../app/endpoints.ts';
import { useKeptForm } from '../../app/keptForm.ts';
import { moneyOf, useHouse, useMay } from '../../app/queries.ts';
import { Button } from '../../kit/Button.tsx';
import { Check } from '../../kit/Check.tsx';
import { Field } from '../../kit/Field.tsx';
import { aPriceOrNothing, aTime } from '../../kit/fieldReaders.ts';
import { MoneyField } from '../../kit/MoneyField.tsx';
import { Failed, Loading, Notice } from '../../kit/Notice.tsx';
import { OneField } from '../../kit/OneField.tsx';
import { optionsOf, Select } from '../../kit/Select.tsx';
import { Toggle } from '../../kit/Toggle.tsx';
import { StillHere } from '../../parts/StillHere.tsx';
import { ForChefs, HouseHead } from './HouseHead.tsx';
import { shiftWords, skillNames } from './peopleWords.ts';

/** Of the listed allergens those that have a name by themselves: gluten is gluten, whatever the cereal. */
const touched = [...new Set(sayableAllergens.map((a) => a.split('/')[0] ?? a))];

const shiftTime = aTime('A time, such as 7:30 or 3 pm');

const personForm = (currency: string) =>
  z.object({
    name: z.string().trim().min(1, 'A name').max(120),
    role: z.enum(roles),
    hourly: aPriceOrNothing(currency),
    skills: z.array(z.enum(skills)),
    mustNotTouch: z.array(z.string()),
    shifts: z.array(
      z.object({
        days: z.array(z.string()).min(1, 'On which days'),
        from: shiftTime,
        until: shiftTime,
      }),
    ),
  });
type PersonTyped = z.input<ReturnType<typeof personForm>>;

interface FieldsProps {
  readonly house: House;
  readonly name: string;
  readonly blank: PersonTyped;
  readonly send: string;
  readonly pending: boolean;
  readonly error: Error | null;
  readonly onSend: (said: PersonSaid, sent: () => void) => void;
}

type PersonSaid = Pick<HousePerson, 'name' | 'role' | 'hourlyMinor' | 'skills' | 'mustNotTouch' | 'shifts'>;
const unsaid = { skills: [], mustNotTouch: [], shifts: [] };

/** What somebody can, must not touch, and when they work: open once there is something, or when it is asked for. */
function OfWork({ form }: { readonly form: ReturnType<typeof useKeptForm<PersonTyped, unknown>> }) {
  const { control, register, setValue, typed, formState } = form;
  const shifts = useFieldArray({ control, name: 'shifts' });
  const [open, setOpen] = useState(typed.skills.length + typed.mustNotTouch.length + typed.shifts.length > 0);
  const toggle = (allergen: string): void =>
    setValue(
      'mustNotTouch',
      typed.mustNotTouch.includes(allergen)
        ? typed.mustNotTouch.filter((a) => a !== allergen)
        : [...typed.mustNotTouch, allergen],
      { shouldDirty: true },
    );
  if (!open)
    return (
      <button type="button" className="min-h-11 justify-self-start underline" onClick={() => setOpen(true)}>
        Skills, shifts, what they must not touch
      </button>
    );
  return (
    <>
      <fieldset className="border-0 p-0">
        <legend className="mb-1 text-[15px] font-semibold">Does alone</legend>
        <div className="flex flex-wrap gap-x-5">
          {skills.map((skill) => (
            <Check key={skill} label={skillNames[skill]} value={skill} {...register('skills')} />
          ))}
        </div>
      </fieldset>
      <fieldset className="border-0 p-0">
        <legend className="mb-1 text-[15px] font-semibold">Must not touch</legend>
        <div className="flex flex-wrap gap-1.5">
          {touched.map((allergen) => (
            <Toggle key={allergen} on={typed.mustNotTouch.includes(allergen)} onPress={() => toggle(allergen)}>
              {allergen}
            </Toggle>
          ))}
        </div>
      </fieldset>
      <fieldset className="grid gap-2 border-0 p-0">
        <legend className="mb-1 text-[15px] font-semibold">Usual shifts</legend>
        {shifts.fields.map((row, i) => (
          <fieldset
            key={row.id}
            aria-label={`Shift ${i + 1}`}
            className="flex flex-wrap items-end gap-x-4 gap-y-1 border-0 p-0"
          >
            <span className="flex flex-wrap gap-x-3">
              {weekdays.map((name, day) => (
                <Check key={name} label={name} value={String(day + 1)} {...register(`shifts.${i}.days`)} />
              ))}
            </span>
            <Field label="From" dense className="w-28" {...register(`shifts.${i}.from`)} />
            <Field
              label="Until"
              dense
              className="w-44"
              error={
                formState.errors.shifts?.[i]?.days?.message ??
                formState.errors.shifts?.[i]?.from?.message ??
                formState.errors.shifts?.[i]?.until?.message
              }
              {...register(`shifts.${i}.until`)}
            />
            <Button className="h-10" onClick={() => shifts.remove(i)} aria-label={`Without shift ${i + 1}`}>
              Remove
            </Button>
          </fieldset>
        ))}
        <Button
          className="h-11 justify-self-start"
          onClick={() =>
            shifts.append({ days: ['1', '2', '3', '4', '5'], from: clockTimeOf('07:00'), until: clockTimeOf('15:00') })
          }
        >
          Another shift
        </Button>
      </fieldset>
    </>
  );
}

function PersonFields({ house, name, blank, send, pending, error, onSend }: FieldsProps) {
  const form = useKeptForm(name, personForm(house.currency), blank);
  const { register, handleSubmit, formState } = form;
  const { errors } = formState;
  return (
    <form
      aria-label={send}
      className="grid gap-3"
      onSubmit={(event) =>
        void handleSubmit(({ hourly, shifts, ...said }) =>
          onSend(
            {
              ...said,
              hourlyMinor: hourly,
              shifts: shifts.map((s) => ({ ...s, days: s.days.map(Number).sort((a, b) => a - b) })),
            },
            form.clear,
          ),
        )(event)
      }
    >
      <StillHere draft={form.kept} />
      <div className="grid gap-3 sm:grid-cols-[1.4fr_1fr_1fr]">
        <Field label="Name" error={errors.name?.message} {...register('name')} />
        <Select label="Role" options={optionsOf(roleNames)} {...register('role')} />
        <MoneyField
          label="An hour costs"
          currency={house.currency}
          hint="Empty: as the house says"
          error={errors.hourly?.message}
          {...register('hourly')}
        />
      </div>
      <OfWork form={form as never} />
      {error !== null && <Notice tone="alarm">{error.message}</Notice>}
      <Button type="submit" variant="strong" className="h-11 justify-self-start" disabled={pending}>
        {send}
      </Button>
    </form>
  );
}

const PIN = /^\d{4,6}$/;

function NewPin({ person, done }: { readonly person: HousePerson; readonly done: () => void }) {
  const set = useCommand(api.house.setPin, { onDone: done });
  return (
    <div className="grid gap-2">
      <OneField
        formClass="flex items-end gap-2"
        label={`A PIN for ${person.name}`}
        className="w-56"
        type="password"
        inputMode="numeric"
        autoComplete="new-password"
        hint="Four to six digits; it is not shown again"
        read={(text) => (PIN.test(text) ? text : undefined)}
        onSend={(pin) => set.send({ params: { personId: person.id }, body: { pin } })}
        send="Give it"
        sending={{ variant: 'strong', className: 'mb-7 h-11' }}
        pending={set.pending}
        again
      />
      {set.error !== null && <Notice tone="alarm">{set.error.message}</Notice>}
    </div>
  );
}

function PersonRow({ house, person }: { readonly house: House; readonly person: HousePerson }) {
  const may = useMay('house.changePerson');
  const client = useQueryClient();
  const [doing, setDoing] = useState<'change' | 'pin' | 'leave' | undefined>(undefined);
  const again = (): void => void client.invalidateQueries({ queryKey: ['house', 'people'] });
  const done = (): void => {
    setDoing(undefined);
    again();
  };
  const change = useCommand(api.house.changePerson, { onDone: done, onFailed: again });
  const leave = useCommand(api.house.leave, { onDone: done, onFailed: again });
  const { id, version, leftAt } = person;
  const left = leftAt !== null;
  const choose = (next: typeof doing): void => setDoing(doing === next ? undefined : next);
  const words = [
    roleNames[person.role],
    ...(person.hourlyMinor === null ? [] : [`${moneyOf(house)(person.hourlyMinor)} an hour`]),
    ...(leftAt !== null
      ? [`left ${dayAndTime(leftAt)}`]
      : person.hasPin || person.hasPassword
        ? []
        : ['no PIN yet: cannot sign in']),
    ...(person.skills.length > 0 ? [`does ${person.skills.map((k) => skillNames[k]).join(', ')} alone`] : []),
    ...person.shifts.map(shiftWords),
  ];
  return (
    <li className="grid gap-3 rounded-plate border border-line bg-white px-4 py-3">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <span className={`min-w-44 flex-1 ${left ? 'text-ink-soft' : ''}`}>
          <strong className="font-head text-lg break-words">{person.name}</strong>
          <span className="block text-[15px] text-ink-soft">{words.join(' · ')}</span>
          {person.mustNotTouch.length > 0 && (
            <span className="block text-[15px] font-semibold text-alarm">
              Must not touch {allergenWords(person.mustNotTouch).join(', ')}.
            </span>
          )}
        </span>
        {may && !left && (
          <>
            <Button onClick={() => choose('pin')}>{person.hasPin ? 'New PIN' : 'Give a PIN'}</Button>
            <Button onClick={() => choose('change')}>Change</Button>
            <Button onClick={() => choose('leave')}>Leaves</Button>
          </>
        )}
        {may && left && (
          <Button
            disabled={leave.pending}
            onClick={() => leave.send({ params: { personId: id }, body: { left: false, version } })}
          >
            Is back
          </Button>
        )}
      </div>
      {doing === 'pin' && <NewPin person={person} done={done} />}
      {doing === 'change' && (
        <PersonFields
          key={version}
          house={house}
          name={`person/${id}`}
          blank={{
            name: person.name,
            role: person.role,
            hourly: person.hourlyMinor === null ? '' : amountText(person.hourlyMinor, house.currency),
            skills: person.skills,
            mustNotTouch: person.mustNotTouch,
            shifts: person.shifts.map((s) => ({
              days: s.days.map(String),
              from: clockTimeOf(s.from),
              until: clockTimeOf(s.until),
            })),
          }}
          send="Save"
          pending={change.pending}
          error={change.error}
          onSend={(said, clear) => change.send({ params: { personId: id }, body: { ...said, version } }, clear)}
        />
      )}
      {doing === 'leave' && (
        <div className="flex flex-wrap items-center justify-between gap-3">
          <p>The name stays in the books. Every session of theirs ends at once.</p>
          <Button
            variant="alarm"
            disabled={leave.pending}
            onClick={() => leave.send({ params: { personId: id }, body: { left: true, version } })}
          >
            {person.name} has left
          </Button>
        </div>
      )}
      {leave.error !== null && <Notice tone="alarm">{leave.error.message}</Notice>}
    </li>
  );
}

function PeoplePage() {
  const house = useHouse();
  const client = useQueryClient();
  const may = useMay('house.addPerson');
  const people = useQuery({
    queryKey: ['house', 'people'],
    queryFn: () => call(api.house.people, {}),
  });
  const add = useCommand(api.house.addPerson, {
    onDone: () => void client.invalidateQueries({ queryKey: ['house', 'people'] }),
  });
  if (people.isPending || house.data === undefined) return <Loading />;
  if (people.isLoadingError) return <Failed error={people.error} again={() => void people.refetch()} />;
  const here = people.data.people.filter((p) => p.leftAt === null);
  const gone = people.data.people.filter((p) => p.leftAt !== null);
  const { data } = house;
  return (
    <div className="flex flex-1 flex-col">
      <HouseHead />
      <div className="mx-auto grid w-full max-w-[1000px] content-start gap-6 p-5">
        {may && (
          <section aria-label="Somebody new" className="rounded-plate border-[1.5px] border-ink bg-white p-4">
            <h2 className="mb-2 text-lg font-bold">Somebody new</h2>
            <PersonFields
              house={data}
              name="person/new"
              blank={{ name: '', role: 'butcher', hourly: '', ...unsaid }}
              send="Add"
              pending={add.pending}
              error={add.error}
              onSend={(said, clear) => add.send({ body: said }, clear)}
            />
            {add.answer !== undefined && (
              <p className="mt-2" role="status">
                {add.answer.name} is here. Give a PIN, so that they can sign in.
              </p>
            )}
          </section>
        )}
        <ul aria-label="People" className="grid gap-2">
          {here.map((person) => (
            <PersonRow key={person.id} house={data} person={person} />
          ))}
        </ul>
        {gone.length > 0 && (
          <section aria-label="Have left">
            <h2 className="mb-2 text-lg font-bold">Have left</h2>
            <ul className="grid gap-2">
              {gone.map((person) => (
                <PersonRow key={person.id} house={data} person={person} />
              ))}
            </ul>
          </section>
        )}
      </div>
    </div>
  );
}

export default function People() {
  return (
    <ForChefs>
      <PeoplePage />
    </ForChefs>
  );
}
