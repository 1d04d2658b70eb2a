/** The kitchen's server: how its records are kept safe, and who is signed in where. */
import { useQuery, useQueryClient } from '@tanstack/react-query';
import type { Answer } from '@zabrik/contract';
import { roleNames } from '@zabrik/contract/roles';
import { useState } from 'react';
import { Link } from 'react-router';
import { call } from '../../app/api.ts';
import { useCommand } from '../../app/command.ts';
import { clockTime, dayAndTime } from '../../app/dates.ts';
import { api } from '../../app/endpoints.ts';
import { useHouse, useMay, useMe } from '../../app/queries.ts';
import { sizeWords } from '../../app/sizeWords.ts';
import { useNow } from '../../app/useNow.ts';
import { Button } from '../../kit/Button.tsx';
import { DataTable } from '../../kit/DataTable.tsx';
import { Field } from '../../kit/Field.tsx';
import { Empty, Failed, Loading, Notice } from '../../kit/Notice.tsx';
import { OneField } from '../../kit/OneField.tsx';
import { HouseHead } from './HouseHead.tsx';
import { type Keeping, keepingWords } from './keepingWords.ts';

const marks = { fine: '✓', attention: '!', alarm: '✗' } as const;
const looks = {
  fine: 'border-line bg-white',
  attention: 'border-attention bg-[#fff7e0]',
  alarm: 'border-alarm bg-alarm-soft',
} as const;

type Backup = Keeping['backups'][number];
const secondWords = (b: Backup): string =>
  b.kind === 'base' ? '' : b.second === null ? 'none' : b.second === 'kept' ? 'kept' : `failed: ${b.secondWhy}`;
const triedWords = (b: Backup): string =>
  b.triedAt === null ? '' : `${dayAndTime(b.triedAt)}, ${b.triedWhy === null ? 'all there' : `failed: ${b.triedWhy}`}`;

function Backups({ keeping }: { readonly keeping: Keeping }) {
  const now = useNow(60_000);
  const { backups, restored } = keeping;
  return (
    <section aria-label="Backups" className="grid gap-3">
      <h2 className="text-xl font-bold">Backups</h2>
      <ul className="grid gap-2">
        {keepingWords(keeping, now).map(({ tone, words }) => (
          <li key={words} className={`flex gap-3 rounded-plate border-2 px-4 py-2.5 text-[17px] ${looks[tone]}`}>
            <span className="font-head font-bold" aria-hidden="true">
              {marks[tone]}
            </span>
            <span className={tone === 'fine' ? '' : 'font-semibold'}>{words}</span>
          </li>
        ))}
      </ul>
      {backups.length > 0 && (
        <DataTable
          rows={backups}
          rowId={(b) => b.name}
          columns={[
            {
              id: 'at',
              head: 'Kept',
              className: 'whitespace-nowrap',
              value: (b) => b.at,
              cell: (b) => dayAndTime(b.at),
            },
            {
              id: 'what',
              head: 'What',
              value: (b) => (b.kind === 'dump' ? 'the records' : 'ground for any moment since'),
            },
            { id: 'size', head: 'Size', figure: true, value: (b) => b.bytes, cell: (b) => sizeWords(b.bytes) },
            { id: 'second', head: 'Second place', value: secondWords },
            { id: 'tried', head: 'Brought back for a rehearsal', value: (b) => b.triedAt, cell: triedWords },
          ]}
        />
      )}
      {restored.length > 0 && (
        <ul className="text-[15px]">
          {restored.map((r) => (
            <li key={r.at}>
              On {dayAndTime(r.at)} the records were brought back and stood as of {dayAndTime(r.stateAt)}. Tablets offer
              to send again what they did since.
            </li>
          ))}
        </ul>
      )}
    </section>
  );
}

type Session = Answer<typeof api.access.signedIn>['sessions'][number];

function SignedIn({ sessions }: { readonly sessions: readonly Session[] }) {
  const { data: me } = useMe();
  const client = useQueryClient();
  const end = useCommand(api.access.signOutPerson, {
    onDone: (_, { params: { personId } }) => {
      if (personId === me?.person.id) client.setQueryData(['me'], null);
      void client.invalidateQueries({ queryKey: ['sessions'] });
    },
  });
  const people = [...new Map(sessions.map((s) => [s.person.id, s.person])).values()];
  return (
    <section aria-label="Signed in" className="grid gap-3">
      <h2 className="text-xl font-bold">Signed in</h2>
      {end.error !== null && <Notice tone="alarm">{end.error.message}</Notice>}
      <ul className="grid gap-2">
        {people.map((person) => {
          const theirs = sessions.filter((s) => s.person.id === person.id);
          return (
            <li
              key={person.id}
              className="flex flex-wrap items-center gap-x-4 gap-y-2 rounded-plate bg-white px-4 py-2.5"
            >
              <span className="min-w-0 flex-1">
                <strong className="break-words">{person.name}</strong> · {roleNames[person.role]}
                <span className="block text-[15px] text-ink-soft">
                  {theirs
                    .map(
                      (s) =>
                        `since ${dayAndTime(s.since)}${s.here ? ', on this tablet' : ''}, until ${clockTime(s.until)} if untouched`,
                    )
                    .join(' · ')}
                </span>
              </span>
              <Button
                size="bench"
                variant="alarm"
                disabled={end.pending}
                onClick={() => end.send({ params: { personId: person.id } })}
              >
                {person.id === me?.person.id ? 'Sign me out everywhere' : 'Sign out everywhere'}
              </Button>
            </li>
          );
        })}
      </ul>
    </section>
  );
}

/** Another PIN for oneself. */
function OwnPin() {
  const change = useCommand(api.access.changePin);
  const [pin, setPin] = useState('');
  return (
    <section aria-label="Your PIN" className="grid justify-items-start gap-3">
      <h2 className="text-xl font-bold">Your PIN</h2>
      <OneField
        formClass="flex flex-wrap items-end gap-3"
        formLabel="Another PIN"
        before={
          <Field
            label="The one you have"
            type="password"
            inputMode="numeric"
            autoComplete="current-password"
            className="w-44"
            value={pin}
            onChange={(event) => setPin(event.target.value)}
          />
        }
        label="The new one"
        type="password"
        inputMode="numeric"
        autoComplete="new-password"
        className="w-44"
        read={(next) => (/^\d{4,6}$/.test(next) && /^\d{4,6}$/.test(pin) ? next : undefined)}
        onSend={(next) => {
          setPin('');
          change.send({ body: { pin, next } });
        }}
        send="Change it"
        sending={{ variant: 'plain', className: 'h-11' }}
        pending={change.pending}
        again
      />
      {change.error !== null && <Notice tone="alarm">{change.error.message}</Notice>}
      {change.answer !== undefined && <Notice tone="calm">Changed. Other tablets ask you for it.</Notice>}
    </section>
  );
}

/** What viewers may see of costs: the head chef's choice. */
function Viewers() {
  const house = useHouse();
  const client = useQueryClient();
  const save = useCommand(api.house.saveViewers, {
    onDone: () => client.invalidateQueries({ queryKey: ['house'] }),
  });
  if (house.data === undefined) return null;
  const { viewersSeeCosts } = house.data;
  return (
    <section aria-label="Viewers" className="grid justify-items-start gap-3">
      <h2 className="text-xl font-bold">Viewers</h2>
      <p>
        {viewersSeeCosts
          ? 'Viewers see what things cost and what they were bought for.'
          : 'Viewers see no price and no cost: each stands as “not shown”, and the price pages are closed to them.'}
      </p>
      <Button size="bench" disabled={save.pending} onClick={() => save.send({ body: { seeCosts: !viewersSeeCosts } })}>
        {viewersSeeCosts ? 'Keep costs from viewers' : 'Show viewers the costs'}
      </Button>
      {save.error !== null && <Notice tone="alarm">{save.error.message}</Notice>}
    </section>
  );
}

export default function KeepingPage() {
  const mayDecide = useMay('house.saveViewers');
  const mayKeep = useMay('house.keeping');
  const keeping = useQuery({ queryKey: ['keeping'], queryFn: () => call(api.house.keeping, {}), enabled: mayKeep });
  const sessions = useQuery({ queryKey: ['sessions'], queryFn: () => call(api.access.signedIn, {}) });
  return (
    <div className="flex flex-1 flex-col">
      <HouseHead />
      <div className="mx-auto grid w-full max-w-[1000px] content-start gap-8 p-5">
        <h1 className="text-[28px] font-bold">The kitchen’s server</h1>
        {!mayKeep && <Empty title="Backups are the chefs’ business">They see here how old the last one is.</Empty>}
        {mayKeep && keeping.isPending && <Loading />}
        {keeping.isError && <Failed error={keeping.error} again={() => void keeping.refetch()} />}
        {keeping.data !== undefined && <Backups keeping={keeping.data} />}
        {mayDecide && <Viewers />}
        <OwnPin />
        {sessions.isPending && <Loading />}
        {sessions.isError && <Failed error={sessions.error} again={() => void sessions.refetch()} />}
        {sessions.data !== undefined && <SignedIn sessions={sessions.data.sessions} />}
        <p className="flex flex-wrap gap-x-5 border-t border-line pt-2">
          <Link className="flex min-h-11 items-center underline" to="/help/figures">
            How figures are made
          </Link>
          <Link className="flex min-h-11 items-center underline" to="/help/about">
            About this version
          </Link>
        </p>
      </div>
    </div>
  );
}
