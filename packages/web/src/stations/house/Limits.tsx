import { useQuery } from '@tanstack/react-query';
import type { HouseLimit } from '@zabrik/contract';
import { figureOf, readDecimal, unitName } from '@zabrik/core';
import { useMemo, useState } from 'react';
import { call } from '../../app/api.ts';
import { useCommand } from '../../app/command.ts';
import { dayAndTime } from '../../app/dates.ts';
import { api } from '../../app/endpoints.ts';
import { useKeptDocument } from '../../app/keptForm.ts';
import { useMay } from '../../app/queries.ts';
import { Button } from '../../kit/Button.tsx';
import { Field } from '../../kit/Field.tsx';
import { Failed, Loading, Notice } from '../../kit/Notice.tsx';
import { Select } from '../../kit/Select.tsx';
import { Toggle } from '../../kit/Toggle.tsx';
import { ReceiveHead } from '../../parts/ReceiveHead.tsx';
import { StillHere } from '../../parts/StillHere.tsx';
import { HoldAgainst } from './HoldAgainst.tsx';
import { HouseHead } from './HouseHead.tsx';
import { figureRead, figureTyped, figureUnit, figureWords, topicName } from './limitWords.ts';

interface Change {
  readonly figure: string;
  readonly why: string;
}

const certainties = { high: 'sure of it', medium: 'fairly sure of it', low: 'not sure of it' } as const;
const forces: Readonly<Record<string, string>> = {
  law: 'law',
  code: 'model code',
  'law-upstream': 'law for those before you',
  national: 'national rule',
  guidance: 'guidance',
};

function LimitRow({
  of,
  change,
  editing,
  onChange,
}: {
  readonly of: HouseLimit;
  readonly change: Change | undefined;
  readonly editing: boolean;
  readonly onChange: (change: Change | undefined) => void;
}) {
  const { limit, shownAs, changed } = of;
  const figure = figureOf(limit);
  const unsure = shownAs === 'check-your-code';
  return (
    <li className="grid grid-cols-[minmax(0,1.2fr)_minmax(0,1fr)_minmax(0,1fr)] gap-4 border-b border-line py-2.5">
      <div className="min-w-0">
        <p className="font-semibold break-words">{limit.product}</p>
        <p className="text-[14px] text-ink-soft">{limit.caution.replaceAll('degC', '°C')}</p>
      </div>
      <div>
        {unsure ? (
          <p>
            <strong>Check your code.</strong>
            <span className="block text-[14px] text-ink-soft">
              We recall {figureWords(limit)}, and are not sure enough to hold you to it.
            </span>
          </p>
        ) : (
          <p className="font-semibold">{figureWords(limit)}</p>
        )}
        {changed !== null && (
          <p className={`text-[14px] ${changed.looser ? 'font-semibold text-alarm' : ''}`}>
            yours; the document has {figureTyped(limit, changed.published)} {unitName(figureUnit(limit))}
            {changed.looser && ': yours lets through what it does not'}. {changed.why}
          </p>
        )}
        {!editing && !unsure && <HoldAgainst limit={limit} />}
        {editing && figure !== undefined && !unsure && (
          <div className="mt-1 grid grid-cols-[92px_minmax(0,1fr)] gap-2">
            <Field
              aria-label={`${limit.id}: your figure, ${unitName(figureUnit(limit))}`}
              dense
              inputMode="decimal"
              placeholder={figureTyped(limit, figure)}
              value={change?.figure ?? ''}
              onChange={(event) =>
                onChange(
                  event.target.value.trim() === '' ? undefined : { figure: event.target.value, why: change?.why ?? '' },
                )
              }
            />
            <Field
              aria-label={`${limit.id}: why`}
              dense
              placeholder="why, and who says so"
              value={change?.why ?? ''}
              disabled={change === undefined}
              onChange={(event) => onChange({ figure: change?.figure ?? '', why: event.target.value })}
            />
          </div>
        )}
      </div>
      <div className="text-[14px] text-ink-soft">
        <p>
          {limit.citation.document} <strong className="font-semibold text-ink">{limit.citation.section}</strong>
        </p>
        <p>
          {forces[limit.force]}; recalled from memory, we are {certainties[limit.certainty]}
        </p>
        {limit.note !== undefined && <p>{limit.note.replaceAll('degC', '°C')}</p>}
      </div>
    </li>
  );
}

interface Typed {
  readonly profile: string | null;
  readonly editing: boolean;
  readonly changes: Readonly<Record<string, Change>>;
  readonly note: string;
}
const nothingChanged: Typed = { profile: null, editing: false, changes: {}, note: '' };

const faultsOf = ({ changes, note }: Typed): readonly string[] => [
  ...(Object.values(changes).some((c) => !Number.isFinite(readDecimal(c.figure)) || c.why.trim() === '')
    ? ['Each figure of your own wants a number and a reason.']
    : []),
  ...(note.trim() === '' ? ['Say why this profile, and who says so.'] : []),
];

/** The limits the house selected: each with its document, its section, and how sure we are of it; and who selected them, and why. */
export default function Limits() {
  const may = useMay('house.saveLimits');
  const chef = useMay('house.people');
  const form = useKeptDocument<Typed>('limits', nothingChanged, faultsOf);
  const { editing, note } = form.doc;
  const profile = form.doc.profile ?? undefined;
  const changes = useMemo(() => new Map(Object.entries(form.doc.changes)), [form.doc.changes]);
  const [topic, setTopic] = useState('receiving');
  const limits = useQuery({
    queryKey: ['house', 'limits', profile],
    queryFn: () => call(api.house.limits, { query: { profile } }),
  });
  const cautions = useQuery({
    queryKey: ['cautions'],
    queryFn: () => call(api.house.cautions, {}),
    staleTime: 600_000,
  });
  const kept = (list: readonly HouseLimit[]) =>
    list.flatMap((l) =>
      l.changed === null
        ? []
        : [[l.limit.id, { figure: figureTyped(l.limit, l.changed.figure), why: l.changed.why }] as const],
    );
  const save = useCommand(api.house.saveLimits, {
    onDone: () => form.clear(),
  });
  if (limits.isPending) return <Loading />;
  if (limits.isLoadingError) return <Failed error={limits.error} again={() => void limits.refetch()} />;
  const { data } = limits;
  const topics = [...new Set(data.limits.map((l) => l.limit.topic))];
  const shown = data.limits.filter((l) => l.limit.topic === (topics.includes(topic) ? topic : topics[0]));
  return (
    <div className="flex flex-1 flex-col">
      {chef ? <HouseHead /> : <ReceiveHead />}
      <div className="grid flex-1 content-start lg:grid-cols-[210px_minmax(0,1fr)_300px] lg:content-stretch">
        <nav aria-label="Topics" className="border-r border-line bg-sheet-soft p-2">
          <ul>
            {topics.map((t) => (
              <li key={t}>
                <Toggle on={t === topic} shape="line" onPress={() => setTopic(t)}>
                  {topicName(t)}
                </Toggle>
              </li>
            ))}
          </ul>
        </nav>
        <section className="bg-sheet px-5 py-4" aria-label="Limits">
          <div className="flex flex-wrap items-center gap-3">
            <Select
              aria-label="Profile"
              fit
              className="h-12 max-w-full text-[17px] font-semibold"
              value={data.profileId}
              onValue={(value) => {
                form.put({ profile: value, changes: {} });
              }}
              options={data.profiles.map((p) => ({ value: p.id, name: p.title }))}
            />
            {data.selected ? (
              <span className="font-semibold text-calm">selected by your house</span>
            ) : (
              <span className="font-semibold text-alarm">
                {profile === undefined ? 'nobody has selected yet: by your time zone' : 'not selected'}
              </span>
            )}
            {may && !editing && (
              <Button
                className="ml-auto"
                onClick={() => {
                  form.put({ editing: true, changes: Object.fromEntries(kept(data.limits)) });
                }}
              >
                Select, or change figures
              </Button>
            )}
          </div>
          <p className="mt-2 text-[14px] text-ink-soft">{data.scope}</p>
          {editing && (
            <form
              className="mt-3 grid grid-cols-[minmax(0,1fr)_auto_auto] items-end gap-3 rounded-plate border-[1.5px] border-ink bg-white p-3"
              onSubmit={(event) => {
                event.preventDefault();
                form.send((typed) =>
                  save.send({
                    body: {
                      profileId: data.profileId,
                      changes: data.limits.flatMap(({ limit }) => {
                        const c = typed.changes[limit.id];
                        return c === undefined
                          ? []
                          : [{ limitId: limit.id, figure: figureRead(limit, c.figure), why: c.why.trim() }];
                      }),
                      note: typed.note.trim(),
                    },
                  }),
                );
              }}
            >
              <StillHere draft={form.kept} className="col-span-3" />
              <Field
                label="Why this profile, and who says so"
                value={note}
                maxLength={500}
                onChange={(event) => form.put({ note: event.target.value })}
              />
              <Button onClick={form.clear} className="h-11">
                Leave it
              </Button>
              <Button type="submit" variant="strong" className="h-11" disabled={save.pending}>
                Select {data.title.split(':')[0]}
              </Button>
              {changes.size > 0 && (
                <p className="col-span-3 text-[14px]">
                  {changes.size} {changes.size === 1 ? 'figure' : 'figures'} of your own.
                </p>
              )}
              {form.wrong.length > 0 && (
                <ul role="alert" className="col-span-3 border-l-4 border-alarm bg-alarm-soft px-2.5 py-1.5">
                  {form.wrong.map((words) => (
                    <li key={words}>{words}</li>
                  ))}
                </ul>
              )}
              {save.error !== null && (
                <div className="col-span-3">
                  <Notice tone="alarm">{save.error.message}</Notice>
                </div>
              )}
            </form>
          )}
          <h2 className="mt-4 mb-1 text-xl font-bold">{topicName(shown[0]?.limit.topic ?? topic)}</h2>
          <ul className="border-t border-line">
            {shown.map((l) => (
              <LimitRow
                key={l.limit.id}
                of={l}
                change={changes.get(l.limit.id)}
                editing={editing}
                onChange={(change) =>
                  form.set((before) => {
                    const { [l.limit.id]: _, ...others } = before.changes;
                    return { ...before, changes: change === undefined ? others : { ...others, [l.limit.id]: change } };
                  })
                }
              />
            ))}
          </ul>
          <p className="mt-3 text-[14px] text-ink-soft">{data.deferral}</p>
        </section>
        <aside
          className="grid min-w-0 grid-cols-[minmax(0,1fr)] content-start gap-4 border-l border-line bg-sheet-soft p-4"
          aria-label="Who and why"
        >
          <section>
            <h2 className="mb-1 text-lg font-bold">Who selected, and why</h2>
            {data.history.length === 0 && (
              <p className="text-[15px] text-ink-soft">Nobody yet. The head chef selects, with a note.</p>
            )}
            <ol className="grid gap-2 text-[14px]">
              {data.history.map((h) => (
                <li key={h.at} className="rounded-md border border-line bg-white px-3 py-2">
                  <strong>{data.profiles.find((p) => p.id === h.profileId)?.title.split(':')[0] ?? h.profileId}</strong>
                  {h.changes > 0 && `, ${h.changes} own ${h.changes === 1 ? 'figure' : 'figures'}`}
                  <span className="block">{h.note}</span>
                  <span className="text-ink-soft">
                    {h.by}, {dayAndTime(h.at)}
                  </span>
                </li>
              ))}
            </ol>
          </section>
          <section>
            <h2 className="mb-1 text-lg font-bold">The usual cautions</h2>
            <p className="mb-1 text-[13px] text-ink-soft">{cautions.data?.standing}</p>
            <ul className="grid gap-1.5 text-[14px]">
              {cautions.data?.cautions.map((c) => (
                <li key={c.id}>
                  <details>
                    <summary className="min-h-8 cursor-pointer font-semibold">{c.id.replaceAll('.', ', ')}</summary>
                    {c.text}
                  </details>
                </li>
              ))}
            </ul>
          </section>
        </aside>
      </div>
    </div>
  );
}
