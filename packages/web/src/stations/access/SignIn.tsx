import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { Answer } from '@zabrik/contract';
import { roleNames } from '@zabrik/contract/roles';
import { useCallback, useEffect, useState } from 'react';
import { useLocation, useNavigate } from 'react-router';
import { call } from '../../app/api.ts';
import { useCommand } from '../../app/command.ts';
import { api } from '../../app/endpoints.ts';
import { useOutbox } from '../../app/outbox.ts';
import { signedInAnew } from '../../app/signOut.ts';
import { useRoom } from '../../app/title.ts';
import { Button } from '../../parts/Button.tsx';
import { Field } from '../../parts/Field.tsx';
import { Empty, Failed, Loading, Notice } from '../../parts/Notice.tsx';
import { NumberPad } from '../../parts/NumberPad.tsx';

type Door = Answer<typeof api.access.door>;
type Person = Door['people'][number];

const initials = (name: string): string =>
  name
    .split(/\s+/)
    .map((word) => word.charAt(0))
    .join('')
    .slice(0, 2);

function Pad({
  person,
  demoPin,
  onBack,
}: {
  readonly person: Person;
  readonly demoPin: string | null;
  readonly onBack: () => void;
}) {
  const [pin, setPin] = useState('');
  const [password, setPassword] = useState<string | undefined>(undefined);
  const client = useQueryClient();
  const navigate = useNavigate();
  const from = (useLocation().state as { from?: string } | null)?.from ?? '/bench';
  const signIn = useCommand(api.access.signIn, {
    onDone: (me) => {
      signedInAnew();
      client.setQueryData(['me'], me);
      void navigate(from, { replace: true });
    },
    onFailed: () => setPin(''),
  });
  const { send, pending } = signIn;
  const enter = useCallback(() => {
    if (pin.length >= 4 && !pending) send({ body: { personId: person.id, pin } });
  }, [pin, pending, send, person.id]);
  const add = useCallback((digit: string) => setPin((before) => (before.length < 6 ? before + digit : before)), []);

  useEffect(() => {
    if (password !== undefined) return undefined;
    const onKey = (event: KeyboardEvent): void => {
      if (/^\d$/.test(event.key)) add(event.key);
      else if (event.key === 'Backspace') setPin((before) => before.slice(0, -1));
      else if (event.key === 'Escape') onBack();
      else if (event.key === 'Enter' && !(event.target instanceof HTMLButtonElement)) enter();
      else return;
      event.preventDefault();
    };
    addEventListener('keydown', onKey);
    return () => removeEventListener('keydown', onKey);
  }, [add, enter, onBack, password]);

  return (
    <section aria-label={`Sign in as ${person.name}`} className="mx-auto w-[360px]">
      <h2 className="text-2xl font-bold">{person.name}</h2>
      <p className="mb-4 text-ink-soft">{roleNames[person.role]}</p>
      {password === undefined ? (
        <>
          <div
            role="status"
            aria-label={`${pin.length} digits typed`}
            className="mb-4 flex h-14 items-center justify-center gap-3 rounded-plate border-[1.5px] border-ink bg-white"
          >
            {pin === '' ? (
              <span className="text-ink-soft">PIN, four to six digits</span>
            ) : (
              Array.from(pin, (_, i) => <span key={`digit-${String(i)}`} className="size-4 rounded-full bg-ink" />)
            )}
          </div>
          <NumberPad
            label="PIN"
            onDigit={add}
            onBack={() => setPin((before) => before.slice(0, -1))}
            onDone={enter}
            doneLabel="Sign in"
            doneDisabled={pin.length < 4 || pending}
          />
        </>
      ) : (
        <form
          className="grid gap-3"
          onSubmit={(event) => {
            event.preventDefault();
            send({ body: { personId: person.id, password } });
          }}
        >
          <Field
            label="Password"
            type="password"
            autoComplete="current-password"
            value={password}
            onChange={(event) => setPassword(event.target.value)}
            autoFocus
          />
          <Button type="submit" look="strong" size="bench" disabled={password.length < 8 || pending}>
            Sign in
          </Button>
        </form>
      )}
      <div className="mt-4 min-h-16">
        {signIn.error !== null ? (
          <Notice tone="alarm">{signIn.error.message}</Notice>
        ) : (
          demoPin !== null &&
          password === undefined && <Notice tone="calm">Demo: the PIN is {demoPin} for everyone.</Notice>
        )}
      </div>
      <div className="mt-3 flex gap-3">
        <Button size="bench" className="flex-1" onClick={onBack}>
          Someone else
        </Button>
        {person.hasPassword && (
          <Button
            size="bench"
            className="flex-1"
            onClick={() => setPassword((before) => (before === undefined ? '' : undefined))}
          >
            {password === undefined ? 'Use a password' : 'Use the PIN'}
          </Button>
        )}
      </div>
    </section>
  );
}

/** How much of each person's work is kept on this tablet: it goes out under their own sign-in. */
function useKeptOf(): (personId: string) => string | undefined {
  const outbox = useOutbox();
  return (personId) => {
    const mine = outbox.filter((w) => w.by?.personId === personId);
    const refused = mine.filter((w) => w.refused !== undefined).length;
    const waiting = mine.length - refused;
    const words = [
      ...(waiting > 0 ? [`${waiting} kept here, sent when you sign in`] : []),
      ...(refused > 0 ? [`${refused} refused`] : []),
    ];
    return words.length === 0 ? undefined : words.join(', ');
  };
}

function People({ slug, onHouse }: { readonly slug: string; readonly onHouse: (() => void) | undefined }) {
  const [chosen, setChosen] = useState<Person | undefined>(undefined);
  const door = useQuery({ queryKey: ['door', slug], queryFn: () => call(api.access.door, { params: { slug } }) });
  const back = useCallback(() => setChosen(undefined), []);
  const keptOf = useKeptOf();
  if (door.isPending) return <Loading />;
  if (door.isError) return <Failed error={door.error} again={() => void door.refetch()} />;
  return (
    <div className="mx-auto grid w-full max-w-[1120px] flex-1 grid-cols-1 items-center gap-10 p-6 lg:grid-cols-[420px_1fr]">
      <div>
        <p className="font-head text-lg text-ink-soft [font-stretch:125%]">zabrik</p>
        <h1 className="text-[40px] leading-[1.05] font-extrabold">{door.data.house.name}</h1>
        <p className="mt-4 max-w-sm text-lg text-ink-soft">
          Every gram that comes through the door is accounted for, every bone has a pot to go to.
        </p>
        <div
          className="mt-8 flex h-8 w-full max-w-sm overflow-hidden rounded-[5px] border border-ink"
          aria-hidden="true"
        >
          <span className="cloth-stock w-[21%] border-r border-ink" />
          <span className="cloth-waste w-[6%] border-r border-ink" />
          <span className="cloth-portion w-[45%] border-r border-ink" />
          <span className="cloth-filling w-[7%] border-r border-ink" />
          <span className="cloth-open flex-1" />
        </div>
        {onHouse !== undefined && (
          <button type="button" className="mt-6 min-h-10 underline" onClick={onHouse}>
            Another house
          </button>
        )}
      </div>
      {chosen === undefined ? (
        <section aria-label="Who is at work">
          <h2 className="mb-4 text-xl font-bold">Who is at work?</h2>
          <ul className="grid grid-cols-2 gap-4">
            {door.data.people.map((person) => (
              <li key={person.id}>
                <button
                  type="button"
                  onClick={() => setChosen(person)}
                  className="flex min-h-24 w-full items-center gap-4 rounded-plate border-[1.5px] border-ink bg-white p-4 text-left hover:bg-sheet-soft"
                >
                  <span
                    className="grid size-14 shrink-0 place-items-center rounded-[50%/42%] bg-flow font-head text-xl font-bold text-white"
                    aria-hidden="true"
                  >
                    {initials(person.name)}
                  </span>
                  <span className="min-w-0">
                    <span className="block font-head text-lg leading-tight font-semibold break-words">
                      {person.name}
                    </span>
                    <span className="text-ink-soft">{roleNames[person.role]}</span>
                    {keptOf(person.id) !== undefined && (
                      <span className="mt-1 block text-[14px] leading-tight font-semibold text-alarm">
                        {keptOf(person.id)}
                      </span>
                    )}
                  </span>
                </button>
              </li>
            ))}
          </ul>
        </section>
      ) : (
        <Pad person={chosen} demoPin={door.data.demoPin} onBack={back} />
      )}
    </div>
  );
}

export function SignIn() {
  useRoom('Sign in');
  const [slug, setSlug] = useState<string | undefined>(undefined);
  const houses = useQuery({ queryKey: ['houses'], queryFn: () => call(api.access.houses, {}) });
  const all = houses.data?.houses ?? [];
  const only = all.length === 1 ? all[0]?.slug : undefined;
  const house = slug ?? only;
  return (
    <main className="flex min-h-dvh flex-col">
      {houses.isPending ? (
        <Loading />
      ) : houses.isError ? (
        <Failed error={houses.error} again={() => void houses.refetch()} />
      ) : house !== undefined ? (
        <People slug={house} onHouse={only === undefined ? () => setSlug(undefined) : undefined} />
      ) : all.length === 0 ? (
        <Empty title="No house yet">Start the demo with ./zabrik demo, and a kitchen stands here.</Empty>
      ) : (
        <section className="m-auto w-full max-w-xl p-6" aria-label="Houses">
          <h1 className="mb-4 text-3xl font-extrabold">Which kitchen?</h1>
          <ul className="grid gap-3">
            {all.map((h) => (
              <li key={h.slug}>
                <Button size="bench" look="plain" className="w-full" onClick={() => setSlug(h.slug)}>
                  {h.name}
                </Button>
              </li>
            ))}
          </ul>
        </section>
      )}
    </main>
  );
}
