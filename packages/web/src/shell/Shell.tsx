import { useQuery, useQueryClient } from '@tanstack/react-query';
import { mayDo, usualIdleMinutes } from '@zabrik/contract/roles';
import { ArrowLeftRight, LogOut } from 'lucide-react';
import { useCallback, useEffect, useRef, useState } from 'react';
import { Link, Navigate, NavLink, Outlet, useLocation, useNavigate } from 'react-router';
import { takeAnswer } from '../app/afterSending.ts';
import { call, Refused, SIGNED_OUT, SOMEONE_ELSE } from '../app/api.ts';
import { cablesHere, keptCable } from '../app/cable.ts';
import { datesAreOf } from '../app/dates.ts';
import { api } from '../app/endpoints.ts';
import { watchHands } from '../app/hands.ts';
import { actsFor } from '../app/intents.ts';
import { isConnected, keepToScales, listen, useConnected } from '../app/live.ts';
import { coveredBefore, coverFor, uncover, useCovered, wasAtWork, watchCover } from '../app/lock.ts';
import { onSent, useOutbox, worksAs } from '../app/outbox.ts';
import { houseQuery, useFlow, useMe } from '../app/queries.ts';
import { signOut } from '../app/signOut.ts';
import { useRoom } from '../app/title.ts';
import { unitsAreOf, unitsKey } from '../app/units.ts';
import { BarButton } from '../kit/BarButton.tsx';
import { Loading } from '../kit/Notice.tsx';
import { bar } from '../stations/bar.ts';
import { screens } from '../stations/screens.ts';
import { OldReads } from './OldReads.tsx';
import { roomOf } from './rooms.ts';
import { screen } from './screen.tsx';
import { TimerBell } from './TimerBell.tsx';

/** Until its script is here nothing of the page is seen either. */
const { Screen: Cover, load: loadCover } = screen(
  () => import('../stations/access/Cover.tsx'),
  <div className="fixed inset-0 z-40 bg-ground" role="status" aria-label="Still you?" />,
);

/** Finds anything; its script comes when the screen that was wanted stands, or when it is asked for. */
const { Screen: Finder } = screen(() => import('../stations/find/Finder.tsx'), <BarButton>Find</BarButton>);

/** Who has not been here before is shown what to touch. */
const { Screen: FirstDay } = screen(() => import('../stations/help/FirstDay.tsx'), null);

const FINDER_AFTER_MS = 2_500;

/** The stations that work, in the order of work, each with the one figure that matters there now. */
function FlowBar({ leave, hand }: { readonly leave: () => void; readonly hand: () => void }) {
  const [wanted, setWanted] = useState(false);
  const [settled, setSettled] = useState(false);
  useEffect(() => {
    const later = setTimeout(() => setSettled(true), FINDER_AFTER_MS);
    return () => clearTimeout(later);
  }, []);
  const { data: me } = useMe();
  const { data: flow } = useFlow();
  const connected = useConnected();
  const outbox = useOutbox();
  const waiting = outbox.filter((w) => w.refused === undefined).length;
  const lost = outbox.filter((w) => w.before !== undefined && w.refused !== undefined).length;
  const refused = outbox.length - waiting - lost;
  const keeping = outbox.some((w) => w.refused === undefined && w.onDisk === false);
  return (
    <header className="no-print flex min-h-[52px] flex-wrap items-stretch bg-flow text-white">
      <NavLink
        to="/bench"
        className="flex items-center px-4 font-head text-[21px] font-extrabold tracking-tight [font-stretch:125%]"
      >
        zabrik
      </NavLink>
      <nav aria-label="Stations" className="flex min-w-0 items-stretch overflow-x-auto max-sm:order-last max-sm:w-full">
        {bar
          .filter(({ may }) => may === undefined || (me != null && mayDo(me.person.role, may)))
          .map(({ to, name, figure }) => (
            <NavLink
              key={to}
              to={to}
              className={({ isActive }) =>
                `flex min-h-11 shrink-0 flex-col justify-center px-3 leading-tight max-sm:flex-1 max-sm:px-1 max-sm:text-center lg:min-w-[104px] lg:px-5 ${
                  isActive
                    ? 'bg-sheet text-ink [clip-path:polygon(0_0,calc(100%-12px)_0,100%_50%,calc(100%-12px)_100%,0_100%,12px_50%)]'
                    : 'hover:bg-white/10'
                }`
              }
            >
              {({ isActive }) => (
                <>
                  <span className="font-head text-[15px] font-semibold">{name}</span>
                  <span
                    className={`text-[13px] whitespace-nowrap max-lg:hidden ${isActive ? 'text-ink-soft' : 'text-flow-soft'}`}
                  >
                    {flow === undefined ? ' ' : figure(flow)}
                  </span>
                </>
              )}
            </NavLink>
          ))}
      </nav>
      <div className="ml-auto flex shrink-0 items-center gap-2 pr-3 pl-2 text-right md:gap-3 lg:gap-4 lg:pr-4">
        <div className="min-w-0 text-[13px] leading-tight">
          <span
            className="block max-w-[18vw] truncate md:max-w-none"
            role="status"
            aria-live="polite"
            data-testid="saved"
          >
            {lost > 0 ? (
              <Link to="/waiting" className="font-semibold text-attention underline">
                {lost} no longer in the records<span className="max-lg:hidden">, see which</span>
              </Link>
            ) : refused > 0 ? (
              <Link to="/waiting" className="font-semibold text-attention underline">
                {refused} refused{waiting > 0 && `, ${waiting} kept here`}
                <span className="max-lg:hidden">{waiting > 0 ? '' : ', see which'}</span>
              </Link>
            ) : keeping ? (
              'keeping'
            ) : waiting > 0 ? (
              <Link to="/waiting" className="font-semibold text-attention underline">
                {waiting} kept here<span className="max-lg:hidden">, waiting to be sent</span>
              </Link>
            ) : connected ? (
              'all saved'
            ) : (
              <span className="font-semibold text-attention">no connection</span>
            )}
          </span>
          <Link to="/server" className="block truncate text-flow-soft underline max-lg:hidden">
            {me?.person.name}
          </Link>
        </div>
        {settled || wanted ? (
          <Finder wanted={wanted} screens={screens} />
        ) : (
          <BarButton onClick={() => setWanted(true)}>Find</BarButton>
        )}
        <BarButton aria-label="Hand over" title="Hand over" onClick={hand}>
          <ArrowLeftRight size={20} aria-hidden="true" className="lg:hidden" />
          <span className="max-lg:hidden">Hand over</span>
        </BarButton>
        <BarButton aria-label="Sign out" title="Sign out" onClick={leave}>
          <LogOut size={20} aria-hidden="true" className="lg:hidden" />
          <span className="max-lg:hidden">Sign out</span>
        </BarButton>
      </div>
    </header>
  );
}

/** By then the screen that was wanted stands. */
const ESSENTIALS_AFTER_MS = 6_000;

export function Shell() {
  const { data: me, isPending, isError } = useMe();
  const location = useLocation();
  useRoom(roomOf(location.pathname));
  const { data: house } = useQuery({ ...houseQuery, enabled: me != null });
  // said before anything below is drawn
  if (house !== undefined) {
    datesAreOf(house.timezone);
    unitsAreOf(house.units);
  }
  const scales = house?.scales;
  const practice = house?.practiceScale ?? false;
  useEffect(() => {
    if (scales === undefined) return;
    keepToScales(scales, practice);
    const cable = cablesHere() ? keptCable() : undefined;
    if (cable !== undefined) void import('../app/readCable.ts').then(({ goOn }) => goOn(cable, scales));
  }, [scales, practice]);
  const client = useQueryClient();
  const navigate = useNavigate();
  const covered = useCovered();
  const personId = me?.person.id;
  const role = me?.person.role;
  const idleMinutes = role && (house?.idleMinutes ?? usualIdleMinutes)[role];
  // whoever comes next begins at the beginning
  const left = useRef(false);
  const leave = useCallback(
    /** `to`: where whoever comes next goes on; nothing, at the beginning. */
    async (to?: string): Promise<void> => {
      left.current = to === undefined;
      await signOut();
      client.clear();
      client.setQueryData(['me'], null);
      uncover(false);
      void navigate('/sign-in', to === undefined ? {} : { state: { from: to } });
    },
    [client, navigate],
  );

  useEffect(() => {
    if (personId !== undefined && coveredBefore() === personId) coverFor(personId);
  }, [personId]);
  useEffect(
    () =>
      idleMinutes === undefined || personId === undefined || covered
        ? undefined
        : watchHands({
            idleMinutes,
            tell: () => call(api.access.stillHere, {}),
            leave: () => {
              coverFor(personId);
              void signOut();
            },
            connected: isConnected,
          }),
    [idleMinutes, personId, covered],
  );
  useEffect(
    () =>
      watchCover((of) => {
        if (of !== undefined) {
          if (of === personId) coverFor(of);
          return;
        }
        // uncovered in another tab: by the same person, or someone else is at work now
        call(api.access.me, {}).then(
          (now) => {
            client.setQueryData(['me'], now);
            uncover(now.person.id === personId);
          },
          (error: unknown) => {
            if (!(error instanceof Refused)) return;
            client.setQueryData(['me'], null);
            uncover(false);
          },
        );
      }),
    [client, personId],
  );

  useEffect(() => actsFor(personId), [personId]);
  useEffect(
    () =>
      worksAs(
        me === null || me === undefined
          ? undefined
          : { personId: me.person.id, name: me.person.name, houseId: me.house.id },
      ),
    [me],
  );
  useEffect(() => (personId === undefined || covered ? undefined : listen(client)), [client, personId, covered]);
  useEffect(() => {
    const signedOut = (): void => {
      if (personId !== undefined && wasAtWork()) coverFor(personId);
      else client.setQueryData(['me'], null);
    };
    const someoneElse = (): void => void client.invalidateQueries({ queryKey: ['me'] });
    addEventListener(SIGNED_OUT, signedOut);
    addEventListener(SOMEONE_ELSE, someoneElse);
    return () => {
      removeEventListener(SIGNED_OUT, signedOut);
      removeEventListener(SOMEONE_ELSE, someoneElse);
    };
  }, [client, personId]);
  useEffect(() => {
    // rare, and nothing waits for it: its script is fetched when the records were brought back
    if (me?.restored != null)
      void import('../app/bringBack.ts').then(({ bringBack }) => bringBack(me)).catch(() => undefined);
  }, [me]);
  useEffect(() => {
    if (personId === undefined) return undefined;
    const later = setTimeout(
      () =>
        void Promise.allSettled([
          loadCover(),
          import('../stations/essentials.ts').then(({ readEssentials }) => readEssentials(client)),
        ]),
      ESSENTIALS_AFTER_MS,
    );
    return () => clearTimeout(later);
  }, [client, personId]);
  useEffect(() => {
    onSent((waiting, answer) => takeAnswer(client, waiting, answer));
  }, [client]);

  if (isPending) return <Loading />;
  if (me === null || (me === undefined && isError))
    return (
      <Navigate
        to="/sign-in"
        replace
        state={left.current ? null : { from: `${location.pathname}${location.search}` }}
      />
    );
  return (
    <div className="flex min-h-dvh flex-col">
      {covered && (
        <Cover
          me={me}
          onBack={() => void leave()}
          onIn={(now) => {
            client.setQueryData(['me'], now);
            uncover(true);
            void client.invalidateQueries();
          }}
        />
      )}
      <a
        href="#work"
        inert={covered}
        className="sr-only focus:not-sr-only focus:absolute focus:z-10 focus:bg-sheet focus:p-3"
      >
        To the work
      </a>
      <div inert={covered}>
        <FlowBar leave={() => void leave()} hand={() => void leave(`${location.pathname}${location.search}`)} />
      </div>
      {/* what rings is seen whoever stands there */}
      <div inert={covered} className={covered ? 'fixed inset-x-0 top-0 z-50' : ''}>
        <TimerBell />
      </div>
      <OldReads />
      {me?.firstDay === true && !covered && <FirstDay me={me} />}
      <main
        id="work"
        inert={covered}
        className={`flex min-h-0 flex-1 flex-col ${/^\/(?:bench|pots|receive)/.test(location.pathname) ? 'at-work' : ''}`}
        tabIndex={-1}
      >
        <Outlet key={unitsKey()} />
      </main>
    </div>
  );
}
