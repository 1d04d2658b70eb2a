import { useQuery, useQueryClient } from '@tanstack/react-query';
import { roleNames } from '@zabrik/contract/roles';
import { lazy, Suspense, useCallback, useState } from 'react';
import { Navigate, useLocation, useNavigate } from 'react-router';
import { call } from '../../app/api.ts';
import { api } from '../../app/endpoints.ts';
import { uncover } from '../../app/lock.ts';
import { useOutbox } from '../../app/outbox.ts';
import { useRoom } from '../../app/title.ts';
import { Button } from '../../kit/Button.tsx';
import { Empty, Failed, Loading } from '../../kit/Notice.tsx';
import { DoorBells } from './DoorBells.tsx';
import { Pad, type Person } from './Pad.tsx';

// rare: who signs in every morning does not wait for its form
const Forgotten = lazy(() => import('./Forgotten.tsx'));

const initials = (name: string): string =>
  name
    .split(/\s+/)
    .map((word) => word.charAt(0))
    .join('')
    .slice(0, 2);

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
  const [forgotten, setForgotten] = useState(false);
  const signInOptions = useQuery({
    queryKey: ['sign-in-options', slug],
    queryFn: () => call(api.access.signInOptions, { params: { slug } }),
    // nobody tells this page who has come or gone: it looks each time
    staleTime: 0,
  });
  const back = useCallback(() => setChosen(undefined), []);
  const client = useQueryClient();
  const navigate = useNavigate();
  const from = (useLocation().state as { from?: string } | null)?.from ?? '/bench';
  const keptOf = useKeptOf();
  if (signInOptions.isPending) return <Loading />;
  if (signInOptions.isError) return <Failed error={signInOptions.error} again={() => void signInOptions.refetch()} />;
  const { tablet } = signInOptions.data;
  // first whose tablet it is, then who works at this hour
  const before = (p: Person): number => (p.ofThisTablet ? 2 : 0) + (p.onShift ? 1 : 0);
  const people = [...signInOptions.data.people].sort((a, b) => before(b) - before(a));
  return (
    <div className="mx-auto grid w-full max-w-[1120px] flex-1 grid-cols-1 items-center gap-10 p-6 lg:grid-cols-[420px_1fr]">
      <div>
        <p className="font-head text-lg text-ink-soft [font-stretch:125%]">zabrik</p>
        <h1 className="text-[40px] leading-[1.05] font-extrabold">{signInOptions.data.house.name}</h1>
        {tablet !== null && <p className="mt-1 font-head text-lg font-semibold">{tablet}</p>}
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
            {people.map((person) => (
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
                    <span className="text-ink-soft">
                      {roleNames[person.role]}
                      {person.onShift && ', on shift'}
                    </span>
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
      ) : forgotten ? (
        <Suspense fallback={<Loading />}>
          <Forgotten
            slug={slug}
            house={signInOptions.data.house.name}
            person={chosen}
            done={() => setForgotten(false)}
          />
        </Suspense>
      ) : (
        <Pad
          person={chosen}
          onForgotten={chosen.role === 'head-chef' ? () => setForgotten(true) : undefined}
          demoPin={signInOptions.data.demoPin}
          onBack={back}
          onIn={(me) => {
            client.setQueryData(['me'], me);
            uncover(true);
            void navigate(from, { replace: true });
          }}
        />
      )}
    </div>
  );
}

/** A machine with nothing on it is set up; where nobody may, it is said how a kitchen comes to stand here. */
function NoHouse() {
  const open = useQuery({ queryKey: ['set-up', ''], queryFn: () => call(api.access.setUpOpen, {}), staleTime: 0 });
  if (open.data?.open === true) return <Navigate to="/set-up" replace />;
  if (open.isPending) return <Loading />;
  return (
    <Empty title="No house yet">
      ./zabrik serve begins a kitchen of your own, ./zabrik demo shows an invented one.
    </Empty>
  );
}

export default function SignIn() {
  useRoom('Sign in');
  const [slug, setSlug] = useState<string | undefined>(undefined);
  const houses = useQuery({ queryKey: ['houses'], queryFn: () => call(api.access.houses, {}), staleTime: 0 });
  const all = houses.data?.houses ?? [];
  const only = all.length === 1 ? all[0]?.slug : undefined;
  const house = slug ?? only;
  return (
    <main className="flex min-h-dvh flex-col">
      {house !== undefined && <DoorBells slug={house} />}
      {houses.isPending ? (
        <Loading />
      ) : houses.isError ? (
        <Failed error={houses.error} again={() => void houses.refetch()} />
      ) : house !== undefined ? (
        <People slug={house} onHouse={only === undefined ? () => setSlug(undefined) : undefined} />
      ) : all.length === 0 ? (
        <NoHouse />
      ) : (
        <section className="m-auto w-full max-w-xl p-6" aria-label="Houses">
          <h1 className="mb-4 text-3xl font-extrabold">Which kitchen?</h1>
          <ul className="grid gap-3">
            {all.map((h) => (
              <li key={h.slug}>
                <Button size="bench" variant="plain" className="w-full" onClick={() => setSlug(h.slug)}>
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
