/** A machine with no kitchen on it: a few fields, then the bench. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { useEffect, useState } from 'react';
import { useNavigate } from 'react-router';
import { z } from 'zod';
import { call } from '../../app/api.ts';
import { useCommand } from '../../app/command.ts';
import { api } from '../../app/endpoints.ts';
import { useKeptForm } from '../../app/keptForm.ts';
import { uncover } from '../../app/lock.ts';
import { signedInAnew } from '../../app/signOut.ts';
import { useRoom } from '../../app/title.ts';
import { Button } from '../../kit/Button.tsx';
import { Field } from '../../kit/Field.tsx';
import { Empty, Failed, Loading, Notice } from '../../kit/Notice.tsx';
import { SearchSelect } from '../../kit/SearchSelect.tsx';
import { Select } from '../../kit/Select.tsx';
import { RecoveryCode } from '../../parts/RecoveryCode.tsx';
import { StillHere } from '../../parts/StillHere.tsx';
import { countries, countryHere, usualUnitsOf } from './countries.ts';

const form = z
  .object({
    code: z.string().trim().min(1, 'It stands where ./zabrik serve was typed'),
    name: z.string().trim().min(1, 'What the kitchen is called').max(120),
    country: z.string().min(1, 'Where it stands'),
    timezone: z.string().min(1, 'Which clock it goes by'),
    profile: z.string(),
    units: z.enum(['', 'metric', 'pounds']),
    headChef: z.string().trim().min(1, 'Who runs it').max(120),
    pin: z.string().regex(/^\d{4,6}$/, 'Four to six digits'),
    password: z.string().min(12, 'At least twelve letters').max(200),
    again: z.string(),
  })
  .refine((f) => f.password === f.again, { path: ['again'], message: 'Not the same as above' });

const zoneHere = Intl.DateTimeFormat().resolvedOptions().timeZone;
const here = countries.some((c) => c.id === countryHere(zoneHere)) ? countryHere(zoneHere) : '';
const blank = {
  code: '',
  name: '',
  country: here,
  timezone: here === '' ? '' : zoneHere,
  profile: '',
  units: '' as '' | 'metric' | 'pounds',
  headChef: '',
  pin: '',
  password: '',
  again: '',
};

const SetUpForm = ({ onIn }: { readonly onIn: () => void }) => {
  const kept = useKeptForm('set-up', form, blank, ['code', 'pin', 'password', 'again']);
  const { register, handleSubmit, formState, typed, setValue } = kept;
  const { errors } = formState;
  const client = useQueryClient();
  const country = countries.find((c) => c.id === typed.country);
  const zone = typed.timezone;
  const asked = useQuery({
    queryKey: ['set-up', zone],
    queryFn: () => call(api.access.setUpOpen, { query: zone === '' ? {} : { timezone: zone } }),
    placeholderData: (before) => before,
  });
  const send = useCommand(api.access.setUp, {
    onDone: ({ me }) => {
      kept.clear();
      signedInAnew();
      uncover(true);
      client.setQueryData(['me'], me);
    },
  });
  const usual = asked.data?.usual ?? '';
  // as the country does, until somebody says otherwise
  const units =
    typed.units !== '' ? typed.units : usualUnitsOf(typed.country).mass === 'imperial' ? 'pounds' : 'metric';
  // one clock is no question
  useEffect(() => {
    if (country !== undefined && !country.timezones.includes(zone))
      setValue('timezone', country.timezones.length === 1 ? (country.timezones[0] ?? '') : '');
  }, [country, zone, setValue]);
  if (send.answer !== undefined)
    return (
      <section aria-label="It stands" className="grid justify-items-start gap-6">
        <div>
          <h1 className="text-[32px] leading-tight font-extrabold">{send.answer.me.house.name} stands</h1>
          <p className="mt-1 max-w-prose text-ink-soft">
            You are signed in as {send.answer.me.person.name}. One thing to put away first: the code that lets you in on
            the day when PIN and password are forgotten.
          </p>
        </div>
        <RecoveryCode house={send.answer.me.house.name} code={send.answer.recoveryCode} />
        <Button variant="strong" size="bench" onClick={onIn}>
          It is put away. Take the first delivery in
        </Button>
      </section>
    );
  const profiles = asked.data?.profiles ?? [];
  const profile = profiles.find((p) => p.id === (typed.profile === '' ? usual : typed.profile));
  return (
    <form
      noValidate
      aria-label="Set up this kitchen"
      className="grid gap-5"
      onSubmit={(event) =>
        void handleSubmit((said) =>
          send.send({
            body: {
              code: said.code,
              name: said.name,
              currency: country?.currency ?? '',
              timezone: said.timezone,
              profileId: said.profile === '' ? usual : said.profile,
              units: usualUnitsOf(units === 'pounds' ? 'US' : ''),
              headChef: { name: said.headChef, pin: said.pin, password: said.password },
            },
          }),
        )(event)
      }
    >
      <div>
        <h1 className="text-[32px] leading-tight font-extrabold">Set up this kitchen</h1>
        <p className="mt-1 max-w-prose text-ink-soft">
          A few fields, then the bench. Everything else has what is usual until you say otherwise.
        </p>
      </div>
      <StillHere draft={kept.kept} />
      <Field
        label="Code from the machine"
        hint="It was printed where ./zabrik serve was typed: so nobody on the network is first"
        placeholder="ABCD-2345"
        autoCapitalize="characters"
        className="max-w-md"
        error={errors.code?.message}
        {...register('code')}
      />
      <Field label="Name of the kitchen" error={errors.name?.message} {...register('name')} />
      <div className="grid gap-4 md:grid-cols-2">
        <div>
          <p className="mb-1 text-[15px] font-semibold">Country</p>
          <SearchSelect
            label="Country"
            placeholder="Type a part of its name"
            none="No such country."
            options={countries.map((c) => ({ id: c.id, name: c.name, group: c.currency }))}
            chosen={typed.country}
            onChoose={(id) => setValue('country', id, { shouldValidate: true })}
            error={errors.country?.message}
          />
          {errors.country !== undefined && <p className="mt-1 text-[14px] text-alarm">{errors.country.message}</p>}
        </div>
        <div className="grid content-start gap-4">
          <Select
            label="Its clock"
            none="which"
            options={(country?.timezones ?? []).map((value) => ({ value, name: value.replaceAll('_', ' ') }))}
            value={zone}
            onValue={(value) => setValue('timezone', value, { shouldValidate: true })}
            error={errors.timezone?.message}
          />
          <Select
            label="Limits of food safety"
            options={profiles.map(({ id, title }) => ({ value: id, name: title }))}
            value={profile?.id ?? ''}
            onValue={(value) => setValue('profile', value)}
          />
          <Select
            label="Units"
            options={[
              { value: 'metric', name: 'grams, °C, litres' },
              { value: 'pounds', name: 'ounces and pounds, °F, US quarts' },
            ]}
            value={units}
            onValue={(value) => setValue('units', value)}
          />
          <p className="text-[14px] text-ink-soft">
            Prices in {country?.currency ?? 'the money of the country'}. Limits can be changed at any time; local codes
            come first.
          </p>
        </div>
      </div>
      <Field
        label="Head chef"
        className="max-w-md"
        autoComplete="name"
        error={errors.headChef?.message}
        {...register('headChef')}
      />
      <div className="grid gap-4 md:grid-cols-3">
        <Field
          label="PIN, for the tablets"
          type="password"
          inputMode="numeric"
          autoComplete="new-password"
          hint="Four to six digits, none in a row"
          error={errors.pin?.message}
          {...register('pin')}
        />
        <Field
          label="Password, for the office"
          type="password"
          autoComplete="new-password"
          error={errors.password?.message}
          {...register('password')}
        />
        <Field
          label="The password again"
          type="password"
          autoComplete="new-password"
          error={errors.again?.message}
          {...register('again')}
        />
      </div>
      {send.error !== null && <Notice tone="alarm">{send.error.message} What you typed is still here.</Notice>}
      <Button
        type="submit"
        variant="strong"
        size="bench"
        className="justify-self-start"
        disabled={send.pending || asked.data?.open !== true}
      >
        {send.pending ? 'Setting up…' : 'Set it up'}
      </Button>
    </form>
  );
};

export default function SetUp() {
  useRoom('Set up this kitchen');
  const navigate = useNavigate();
  const open = useQuery({ queryKey: ['set-up', ''], queryFn: () => call(api.access.setUpOpen, {}) });
  // once it was open here, what comes after is this page's own
  const [begun, setBegun] = useState(false);
  useEffect(() => {
    if (open.data?.open === true) setBegun(true);
  }, [open.data]);
  return (
    <main className="mx-auto w-full max-w-[860px] p-6">
      <p className="mb-4 font-head text-lg text-ink-soft [font-stretch:125%]">zabrik</p>
      {begun ? (
        <SetUpForm onIn={() => void navigate('/receive', { replace: true })} />
      ) : open.isPending ? (
        <Loading />
      ) : open.isError ? (
        <Failed error={open.error} again={() => void open.refetch()} />
      ) : (
        <Empty title="A kitchen stands here already">
          <Button variant="plain" onClick={() => void navigate('/sign-in', { replace: true })}>
            Sign in to it
          </Button>
        </Empty>
      )}
    </main>
  );
}
