/** Everything said on this tablet that the records have not taken: whose it is, what it is, why, and the ways on. */
import { useQuery } from '@tanstack/react-query';
import { formatMass } from '@zabrik/core';
import { useState } from 'react';
import { Link } from 'react-router';
import { dayAndTime } from '../../app/dates.ts';
import { useConnected } from '../../app/live.ts';
import {
  dismiss,
  promisedToKeep,
  sendAgain,
  sendConfirmed,
  sendLostAgain,
  useOutbox,
  type Waiting,
  writeAsMine,
} from '../../app/outbox.ts';
import { useMay, useMe } from '../../app/queries.ts';
import { Button } from '../../kit/Button.tsx';
import { Empty, Notice } from '../../kit/Notice.tsx';
import { OneField, someWords } from '../../kit/OneField.tsx';
import { massOf } from '../../parts/WaitsHere.tsx';
import { type LetGo, letGoHere, noteLetGo } from './letGo.ts';

/** Where the thing it is about stands. */
function placeOf({ params, endpoint, about }: Waiting): { readonly to: string; readonly name: string } | undefined {
  const { breakdownId, batchId, lotId } = params;
  if (breakdownId !== undefined) return { to: `/bench/${breakdownId}`, name: 'on the bench' };
  if (endpoint.startsWith('cutting.')) return { to: `/bench/cut/${about}`, name: 'at the ruler' };
  if (batchId !== undefined) return { to: `/pots/stove/${batchId}`, name: 'at the stove' };
  if (lotId !== undefined) return { to: `/larder/${lotId}`, name: 'in the larder' };
  return endpoint.endsWith('Cooling') ? { to: '/pots/cooling', name: 'what cools' } : undefined;
}

function stateOf(w: Waiting, myId: string | undefined, connected: boolean): string {
  if (w.refused !== undefined) return w.refused;
  if (w.onDisk === false) return 'Going onto this tablet’s disk.';
  if (w.by !== undefined && w.by.personId !== myId) return `Is sent when ${w.by.name} signs in on this tablet.`;
  return connected ? 'Is being sent.' : 'Is sent when the kitchen’s server is back.';
}

function Row({ w, onLetGo }: { readonly w: Waiting; readonly onLetGo: (why: string) => void }) {
  const { data: me } = useMe();
  const mayWeigh = useMay('bench.weigh');
  const connected = useConnected();
  const [asking, setAsking] = useState(false);
  const myId = me?.person.id;
  const theirs = w.by !== undefined && w.by.personId !== myId;
  const massMg = massOf(w);
  const place = placeOf(w);
  const refused = w.refused !== undefined;
  return (
    <li
      className={`rounded-plate border-2 bg-white p-3.5 ${refused ? 'border-alarm' : 'border-line-strong'}`}
      aria-label={w.says}
    >
      <div className="flex flex-wrap items-baseline gap-x-4 gap-y-1">
        {massMg !== undefined && <span className="figure text-2xl">{formatMass(massMg)}</span>}
        <span className="min-w-0 flex-1 text-lg font-semibold break-words">
          {w.says}
          {place !== undefined && (
            <>
              {', '}
              <Link className="underline" to={place.to}>
                {place.name}
              </Link>
            </>
          )}
        </span>
        <span className="text-[15px] text-ink-soft">
          {w.by?.name ?? 'nobody is named'} · {dayAndTime(new Date(w.madeAt).toISOString())}
        </span>
      </div>
      <p className={`mt-1 ${refused ? 'font-semibold text-alarm' : 'text-ink-soft'}`}>{stateOf(w, myId, connected)}</p>
      <div className="mt-2.5 flex flex-wrap items-end gap-3">
        {refused && w.onDisk !== false && !theirs && w.code === 'needs_confirmation' && (
          <Button size="bench" variant="strong" onClick={() => void sendConfirmed(w.key)}>
            I have read it. Do it
          </Button>
        )}
        {refused && w.onDisk !== false && !theirs && w.code !== 'needs_confirmation' && (
          <Button size="bench" variant="strong" onClick={() => void sendAgain(w.key)}>
            Send again
          </Button>
        )}
        {theirs && mayWeigh && me != null && (
          <Button size="bench" onClick={() => void writeAsMine(w.key)}>
            Write it as {me.person.name}
          </Button>
        )}
        {!asking ? (
          (refused || theirs) && (
            <Button size="bench" variant="alarm" onClick={() => setAsking(true)}>
              Let it go
            </Button>
          )
        ) : (
          <OneField
            formClass="flex flex-1 flex-wrap items-end gap-3"
            className="min-w-60 flex-1"
            label="Let it go because"
            maxLength={300}
            autoFocus
            read={someWords}
            onSend={onLetGo}
            send="Let it go"
            sending={{ size: 'bench', variant: 'alarm' }}
            beside={
              <Button size="bench" onClick={() => setAsking(false)}>
                Keep it
              </Button>
            }
          />
        )}
      </div>
    </li>
  );
}

export default function WaitingPage() {
  const outbox = useOutbox();
  const { data: me } = useMe();
  const [gone, setGone] = useState<readonly LetGo[]>(letGoHere);
  const promised = useQuery({ queryKey: ['promised'], queryFn: async () => (await promisedToKeep()) ?? null });
  const lost = outbox.filter((w) => w.refused !== undefined && w.before !== undefined);
  const refused = outbox.filter((w) => w.refused !== undefined && w.before === undefined);
  const lostOfMine = lost.filter((w) => w.by?.personId === me?.person.id);
  const waiting = outbox.filter((w) => w.refused === undefined);
  const letGo = (w: Waiting, why: string): void => {
    noteLetGo(w, why, me?.person.name ?? '', Date.now());
    setGone(letGoHere());
    void dismiss(w.key);
  };
  const list = (of: readonly Waiting[]) => (
    <ul className="grid gap-3">
      {of.map((w) => (
        <Row key={w.key} w={w} onLetGo={(why) => letGo(w, why)} />
      ))}
    </ul>
  );
  return (
    <div className="mx-auto grid w-full max-w-[1000px] content-start gap-6 p-5">
      <h1 className="text-[28px] font-bold">Kept on this tablet</h1>
      {outbox.length === 0 && (
        <Empty title="All of it is in the records">
          What is said without the network, or refused, waits here until it is sent or let go.
        </Empty>
      )}
      {lost.length > 0 && (
        <section aria-label="No longer in the records" className="grid gap-3">
          <h2 className="text-xl font-bold">Done, and no longer in the records</h2>
          <p className="max-w-[70ch]">
            The records were brought back from a backup and stand as of {dayAndTime(lost[0]?.before ?? '')}. This tablet
            did what is below since then. Sent again, it stands where it stood; what two tablets did together fits
            together again once both have sent theirs. Oldest first.
          </p>
          {lostOfMine.length > 1 && (
            <Button size="bench" variant="strong" className="justify-self-start" onClick={() => void sendLostAgain()}>
              Send all {lostOfMine.length} of mine again
            </Button>
          )}
          {list(lost)}
        </section>
      )}
      {refused.length > 0 && (
        <section aria-label="Refused" className="grid gap-3">
          <h2 className="text-xl font-bold">Refused: not in the records</h2>
          {list(refused)}
        </section>
      )}
      {waiting.length > 0 && (
        <section aria-label="Waiting" className="grid gap-3">
          <h2 className="text-xl font-bold">Waiting to be sent</h2>
          {list(waiting)}
        </section>
      )}
      {promised.data === false && (
        <Notice tone="attention">
          The browser has not promised to keep what waits here if this tablet’s disk runs full. Install the app on the
          home screen, then it does.
        </Notice>
      )}
      {promised.data === true && (
        <p className="text-[15px] text-ink-soft">The browser has promised to keep what waits here.</p>
      )}
      {gone.length > 0 && (
        <section aria-label="Let go">
          <h2 className="mb-2 text-xl font-bold">Let go on this tablet</h2>
          <ul className="divide-y divide-line text-[15px]">
            {gone.map((g) => (
              <li key={g.key} className="py-1.5">
                {dayAndTime(new Date(g.at).toISOString())}, {g.by}: <strong>{g.says}</strong>, because {g.why}
              </li>
            ))}
          </ul>
        </section>
      )}
    </div>
  );
}
