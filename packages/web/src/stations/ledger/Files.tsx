/** The books to take along: files asked for, made beside the work, fetched when they are there. */
import { useQuery } from '@tanstack/react-query';
import type { AskedJob, Job } from '@zabrik/contract';
import { mayHaveFile } from '@zabrik/contract/roles';
import { useEffect, useRef, useState } from 'react';
import { call } from '../../app/api.ts';
import { useCommand } from '../../app/command.ts';
import { clockTime, dayAndTime, dayName } from '../../app/dates.ts';
import { api } from '../../app/endpoints.ts';
import { useMe } from '../../app/queries.ts';
import { sizeWords } from '../../app/sizeWords.ts';
import { Button } from '../../kit/Button.tsx';
import { DateField } from '../../kit/DateField.tsx';
import { Empty, Failed, Loading, Notice } from '../../kit/Notice.tsx';
import { ProgressBar } from '../../kit/ProgressBar.tsx';

interface Kind {
  readonly kind: AskedJob['kind'];
  readonly format?: 'xlsx' | 'csv';
  readonly name: string;
  readonly what: string;
}

const kinds: readonly Kind[] = [
  {
    kind: 'movements-csv',
    name: 'Movements, CSV',
    what: 'Every gram that moved and what it cost, a line each, for a spreadsheet.',
  },
  {
    kind: 'movements-epcis',
    name: 'Movements, EPCIS',
    what: 'The same as traceability events (EPCIS 2.0), for whoever asks where something went.',
  },
  {
    kind: 'tables',
    format: 'xlsx',
    name: 'Every table, XLSX',
    what: 'One workbook, a sheet a table: suppliers, lots, weighings, batches, all that is written down.',
  },
  {
    kind: 'tables',
    format: 'csv',
    name: 'Every table, CSV',
    what: 'The same, a file a table, in one archive. Masses in milligrams, money in minor units, times UTC.',
  },
  {
    kind: 'house-file',
    name: 'The whole house',
    what: 'Everything but PINs and passwords, as JSON: into another database with ./zabrik import.',
  },
];

const formatOf = (asked: AskedJob): Kind['format'] => (asked.kind === 'tables' ? asked.format : undefined);
const nameOf = (asked: AskedJob): string =>
  kinds.find((k) => k.kind === asked.kind && k.format === formatOf(asked))?.name ?? asked.kind;
/** All there is, whatever time is chosen. */
const isWhole = (kind: AskedJob['kind']): boolean => kind === 'house-file' || kind === 'tables';

/** "24 Nov to 30 Nov"; nothing for a file of all there is. */
export function timeWords(asked: AskedJob): string {
  if (asked.kind === 'house-file' || asked.kind === 'tables') return '';
  const { from, until } = asked;
  if (from !== undefined && until !== undefined) return `${dayName(from)} to ${dayName(until)}`;
  if (from !== undefined) return `from ${dayName(from)}`;
  return until === undefined ? '' : `until ${dayName(until)}`;
}

const going = ({ state }: Job): boolean => state === 'waiting' || state === 'working';

/** Where a file stands, in a few words. */
export function standWords(job: Job): string {
  switch (job.state) {
    case 'waiting':
      return 'waits its turn';
    case 'working':
      return `being made${job.doneRatio === null ? '' : `, ${Math.floor(100 * job.doneRatio)} %`}${job.bytes > 0 ? `, ${sizeWords(job.bytes)} so far` : ''}`;
    case 'done':
      return job.file === null
        ? 'not kept any more'
        : `${sizeWords(job.bytes)}, kept until ${dayAndTime(job.file.until)}`;
    case 'failed':
      return `not made. ${job.why ?? ''}`;
    case 'called-off':
      return job.doneRatio === 1 ? 'thrown away' : 'called off';
  }
}

function Row({ job, again }: { readonly job: Job; readonly again: () => void }) {
  const off = useCommand(api.jobs.callOff, { onDone: again });
  const name = [nameOf(job.asked), timeWords(job.asked)].filter((w) => w !== '').join(', ');
  return (
    <li className="flex flex-wrap items-center gap-x-4 gap-y-2 border-b border-line px-4 py-3">
      <div className="min-w-56 flex-1">
        <p className="font-head text-[16px] font-semibold">{name}</p>
        <p className={`text-[15px] ${job.state === 'failed' ? 'text-alarm' : 'text-ink-soft'}`}>{standWords(job)}</p>
        {going(job) && <ProgressBar label={`${name}: how far it is`} doneRatio={job.doneRatio} />}
        {off.error !== null && <Notice tone="alarm">{off.error.message}</Notice>}
      </div>
      <p className="text-[14px] text-ink-soft">
        {dayName(job.at)}, {clockTime(job.at)} · {job.by}
      </p>
      <div className="flex min-w-56 justify-end gap-2">
        {job.file !== null && (
          <a
            className="inline-flex min-h-10 items-center rounded-plate border-[1.5px] border-ink bg-white px-4 font-head text-[15px] font-semibold hover:bg-sheet-soft"
            href={`/api/v1/jobs/${job.id}/file`}
            download={job.file.name}
          >
            Fetch
          </a>
        )}
        {(going(job) || job.file !== null) && (
          <Button
            disabled={off.pending}
            onClick={() => off.send({ params: { jobId: job.id }, body: {} })}
            aria-label={`${going(job) ? 'Call off' : 'Throw away'}: ${name}`}
          >
            {going(job) ? 'Call off' : 'Throw away'}
          </Button>
        )}
      </div>
    </li>
  );
}

/** Fetches as a touched link would. */
function fetchFile({ id, name }: { readonly id: string; readonly name: string }): void {
  const link = document.createElement('a');
  link.href = `/api/v1/jobs/${id}/file`;
  link.download = name;
  link.click();
}

export function Files() {
  const role = useMe().data?.person.role;
  const list = useQuery({ queryKey: ['jobs'], queryFn: () => call(api.jobs.list, {}) });
  const [from, setFrom] = useState('');
  const [until, setUntil] = useState('');
  /** Asked for from here just now: fetched by itself when it is there. */
  const mine = useRef(new Set<string>());
  const ask = useCommand(api.jobs.ask, {
    onDone: ({ id }) => {
      mine.current.add(id);
      void list.refetch();
    },
  });
  const jobs = list.data?.jobs;
  useEffect(() => {
    for (const job of jobs ?? [])
      if (job.file !== null && mine.current.delete(job.id)) fetchFile({ id: job.id, name: job.file.name });
  }, [jobs]);
  const backwards = from !== '' && until !== '' && from > until;
  const times = { ...(from === '' ? {} : { from }), ...(until === '' ? {} : { until }) };
  return (
    <div>
      <section className="border-b border-line px-4 py-4" aria-label="Ask for a file">
        <div className="flex flex-wrap items-start gap-4">
          <DateField label="From" day={from} value={from} onChange={(event) => setFrom(event.target.value)} />
          <DateField
            label="Until"
            day={until}
            value={until}
            onChange={(event) => setUntil(event.target.value)}
            error={backwards ? 'Before the day it begins with.' : undefined}
            hint="Empty: all there is"
          />
          <ul className="flex min-w-80 flex-1 flex-col gap-2">
            {kinds
              .filter(({ kind }) => role !== undefined && mayHaveFile(role, kind))
              .map(({ kind, format, name, what }) => (
                <li key={name} className="flex items-center gap-3">
                  <Button
                    className="w-48 shrink-0"
                    disabled={ask.pending || (backwards && !isWhole(kind))}
                    onClick={() =>
                      ask.send({
                        body:
                          kind === 'tables'
                            ? { kind, format: format ?? 'csv' }
                            : kind === 'house-file'
                              ? { kind }
                              : { kind, ...times },
                      })
                    }
                  >
                    {name}
                  </Button>
                  <span className="text-[15px] text-ink-soft">{what}</span>
                </li>
              ))}
          </ul>
        </div>
        {ask.error !== null && (
          <div className="mt-3">
            <Notice tone="alarm">{ask.error.message}</Notice>
          </div>
        )}
      </section>
      {list.isPending && <Loading />}
      {list.error !== null && jobs === undefined && <Failed error={list.error} again={() => void list.refetch()} />}
      {jobs?.length === 0 && (
        <Empty title="No file was asked for">
          <p>Choose one above. It is made beside the work of the kitchen, and kept here for a day.</p>
        </Empty>
      )}
      <ul aria-live="polite">
        {jobs?.map((job) => (
          <Row key={job.id} job={job} again={() => void list.refetch()} />
        ))}
      </ul>
    </div>
  );
}
