/** The tablets of the kitchen: lent to a bench by a name, with its people's faces first at the door; forgotten when they are lost. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { HousePerson, Tablet } from '@zabrik/contract';
import { useState } from 'react';
import { z } from 'zod';
import { call } from '../../app/api.ts';
import { useCommand } from '../../app/command.ts';
import { dayAndTime } from '../../app/dates.ts';
import { api } from '../../app/endpoints.ts';
import { useKeptForm } from '../../app/keptForm.ts';
import { useMay } from '../../app/queries.ts';
import { Button } from '../../kit/Button.tsx';
import { Check } from '../../kit/Check.tsx';
import { Field } from '../../kit/Field.tsx';
import { Failed, Loading, Notice } from '../../kit/Notice.tsx';
import { StillHere } from '../../parts/StillHere.tsx';

const lendForm = z.object({ name: z.string().trim().min(1, 'A name').max(120), people: z.array(z.string()) });

function Lend({ tablet, people, done }: { readonly tablet: Tablet; people: readonly HousePerson[]; done: () => void }) {
  const form = useKeptForm(`tablet/${tablet.id}`, lendForm, { name: tablet.name ?? '', people: [...tablet.people] });
  const { register, handleSubmit, formState } = form;
  const lend = useCommand(api.access.lendTablet, { onDone: done });
  return (
    <form
      aria-label="Lend it"
      className="grid gap-3"
      onSubmit={(event) =>
        void handleSubmit((body) => lend.send({ params: { tabletId: tablet.id }, body }, form.clear))(event)
      }
    >
      <StillHere draft={form.kept} />
      <Field
        label="It is called"
        className="max-w-md"
        hint="Where it stands, such as Fish bench"
        error={formState.errors.name?.message}
        {...register('name')}
      />
      <fieldset className="border-0 p-0">
        <legend className="mb-1 text-[15px] font-semibold">Their faces stand first at its door</legend>
        <div className="flex flex-wrap gap-x-5">
          {people.map((p) => (
            <Check key={p.id} label={p.name} value={p.id} {...register('people')} />
          ))}
        </div>
      </fieldset>
      {lend.error !== null && <Notice tone="alarm">{lend.error.message}</Notice>}
      <Button type="submit" variant="strong" className="h-11 justify-self-start" disabled={lend.pending}>
        Lend it
      </Button>
    </form>
  );
}

function Row({
  tablet,
  people,
  again,
}: {
  readonly tablet: Tablet;
  people: readonly HousePerson[];
  again: () => void;
}) {
  const may = useMay('access.lendTablet');
  const [doing, setDoing] = useState<'lend' | 'forget' | undefined>(undefined);
  const forget = useCommand(api.access.forgetTablet, { onDone: again });
  const name = tablet.name ?? 'A tablet without a name';
  const theirs = people.filter((p) => tablet.people.includes(p.id)).map((p) => p.name);
  const words = [
    ...(tablet.here ? ['this one'] : []),
    ...(theirs.length > 0 ? [theirs.join(', ')] : []),
    tablet.seenAt === null
      ? `known since ${dayAndTime(tablet.since)}`
      : `last signed in on ${dayAndTime(tablet.seenAt)}`,
  ];
  return (
    <li className="grid gap-3 rounded-plate border border-line bg-white px-4 py-3">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <span className="min-w-44 flex-1">
          <strong
            className={`font-head text-lg break-words ${tablet.name === null ? 'font-normal text-ink-soft' : ''}`}
          >
            {name}
          </strong>
          <span className="block text-[15px] text-ink-soft">{words.join(' · ')}</span>
        </span>
        {may && (
          <>
            <Button onClick={() => setDoing(doing === 'lend' ? undefined : 'lend')}>
              {tablet.name === null ? 'Lend it' : 'Change'}
            </Button>
            <Button onClick={() => setDoing(doing === 'forget' ? undefined : 'forget')}>Forget it</Button>
          </>
        )}
      </div>
      {doing === 'lend' && (
        <Lend
          tablet={tablet}
          people={people}
          done={() => {
            setDoing(undefined);
            again();
          }}
        />
      )}
      {doing === 'forget' && (
        <div className="flex flex-wrap items-center justify-between gap-3">
          <p>
            Whoever is signed in on it is out at once{tablet.here && ', you too'}. What it kept is sent once somebody
            signs in on it again.
          </p>
          <Button
            variant="alarm"
            disabled={forget.pending}
            onClick={() => forget.send({ params: { tabletId: tablet.id } })}
          >
            It is no tablet of ours
          </Button>
        </div>
      )}
      {forget.error !== null && <Notice tone="alarm">{forget.error.message}</Notice>}
    </li>
  );
}

/** How many without a name are shown at once: a kitchen signs in on more than it lends. */
const SHOWN = 5;

export function Tablets() {
  const client = useQueryClient();
  const tablets = useQuery({ queryKey: ['house', 'tablets'], queryFn: () => call(api.access.tablets, {}) });
  const people = useQuery({ queryKey: ['house', 'people'], queryFn: () => call(api.house.people, {}) });
  const [all, setAll] = useState(false);
  const again = (): void => void client.invalidateQueries({ queryKey: ['house', 'tablets'] });
  const here = (people.data?.people ?? []).filter((p) => p.leftAt === null);
  const list = tablets.data?.tablets ?? [];
  const most = list.filter((t) => t.name !== null).length + SHOWN;
  return (
    <section aria-label="Tablets" className="grid gap-3">
      <div>
        <h2 className="text-xl font-bold">Tablets</h2>
        <p className="text-ink-soft">
          Somebody of the house has signed in on these. Wrong PINs are counted at each by itself.
        </p>
      </div>
      {tablets.isPending && <Loading />}
      {tablets.isLoadingError && <Failed error={tablets.error} again={() => void tablets.refetch()} />}
      <ul className="grid gap-2">
        {(all ? list : list.slice(0, most)).map((tablet) => (
          <Row key={tablet.id} tablet={tablet} people={here} again={again} />
        ))}
      </ul>
      {!all && list.length > most && (
        <Button className="h-11 justify-self-start" onClick={() => setAll(true)}>
          {list.length - most} more
        </Button>
      )}
    </section>
  );
}
