import { type Answer, type AskedJob, api, type Job, mayHaveFile } from '@zabrik/contract';
import type { Router } from 'express';
import type { Sequelize, Transaction } from 'sequelize';
import { JobTable } from '../../db/models/job.ts';
import { JobPartTable } from '../../db/models/jobPart.ts';
import { rowsOf } from '../../db/rows.ts';
import { select, selectOne } from '../../db/select.ts';
import type { GivenFile } from '../../http/file.ts';
import { mountCommand, mountFile, mountRead } from '../../http/mount.ts';
import { Problem } from '../../http/problem.ts';
import { FILE_HOURS } from '../../jobs/jobs.ts';
import type { Actor, Services } from '../../services.ts';

/** A house's jobs that may wait or be made at once: the queue is everybody's. */
const MOST_GOING = 5;

const mayHave = (actor: Actor, asked: AskedJob): boolean => mayHaveFile(actor.role, asked.kind);

interface JobRow {
  readonly id: string;
  readonly asked: AskedJob;
  readonly state: Job['state'];
  readonly doneRatio: number | null;
  readonly bytes: number;
  readonly by: string;
  readonly at: Date;
  readonly endedAt: Date | null;
  readonly why: string | null;
  readonly fileName: string | null;
  readonly fileType: string | null;
  readonly parts: number | null;
  readonly partsThere: number;
}

const JOB = `
select j.id, j.asked, j.state, j.done_ratio as "doneRatio", j.bytes, p.name as by, j.at, j.ended_at as "endedAt", j.why, j.file_name as "fileName",
       j.file_type as "fileType", j.parts, (select count(*)::int from job_part t where t.job_id = j.id) as "partsThere"
from job j join person p on p.id = j.person_id where j.house_id = $1`;

const keptUntil = (endedAt: Date): Date => new Date(endedAt.getTime() + FILE_HOURS * 3_600_000);

const jobOf = ({ at, endedAt, fileName, fileType: _, parts, partsThere, ...row }: JobRow): Job => ({
  ...row,
  at: at.toISOString(),
  endedAt: endedAt?.toISOString() ?? null,
  file:
    row.state === 'done' && endedAt !== null && fileName !== null && parts === partsThere
      ? { name: fileName, until: keptUntil(endedAt).toISOString() }
      : null,
});

/** Errors  `not_found`, also for what one must not have. */
async function readJob(db: Sequelize, actor: Actor, jobId: string, transaction?: Transaction): Promise<JobRow> {
  const row = await selectOne<JobRow>(db, `${JOB} and j.id = $2`, [actor.houseId, jobId], transaction);
  if (row === undefined || !mayHave(actor, row.asked)) throw new Problem('not_found');
  return row;
}

/** The parts of a file one after another, however large it is. */
async function* partsOf(db: Sequelize, actor: Actor, jobId: string, parts: number): AsyncGenerator<Uint8Array> {
  for (let n = 0; n < parts; n += 1) {
    const part = await rowsOf(db, JobPartTable, actor).one({ jobId, n });
    if (part === undefined) throw new Problem('file_gone');
    yield part.bytes;
  }
}

export function jobRoutes(services: Services, router: Router): void {
  const { db } = services;
  mountRead(services, router, api.jobs.list, async (actor) => {
    const rows = await select<JobRow>(db, `${JOB} order by j.at desc, j.id desc limit 50`, [actor.houseId]);
    return { jobs: rows.filter((row) => mayHave(actor, row.asked)).map(jobOf) };
  });
  mountCommand(
    services,
    router,
    api.jobs.ask,
    ['jobs'],
    async (command, { body }): Promise<Answer<typeof api.jobs.ask>> => {
      const { actor, at } = command;
      if (!mayHave(actor, body)) throw new Problem('not_your_role');
      const jobs = rowsOf(db, JobTable, command);
      if ((await jobs.count({ state: ['waiting', 'working'] })) >= MOST_GOING) throw new Problem('too_many_jobs');
      const id = command.newId();
      await jobs.add({ id, asked: body, state: 'waiting', personId: actor.personId, at });
      return jobOf(await readJob(db, actor, id, command.transaction));
    },
    (actor, { id }) => services.jobs.nudge({ houseId: actor.houseId, jobId: id }),
  );
  mountCommand(services, router, api.jobs.callOff, ['jobs'], async (command, { params: { jobId } }) => {
    const { actor, at, transaction } = command;
    const jobs = rowsOf(db, JobTable, command);
    await jobs.one({ id: jobId }, { lock: 'update' });
    const row = await readJob(db, actor, jobId, transaction);
    if (row.state === 'failed' || row.state === 'called-off') return jobOf(row);
    await jobs.change({ id: jobId }, { state: 'called-off', endedAt: row.endedAt ?? at });
    await rowsOf(db, JobPartTable, command).remove({ jobId });
    return jobOf(await readJob(db, actor, jobId, transaction));
  });
  mountFile(services, router, api.jobs.file, async (actor, { params }): Promise<GivenFile> => {
    const row = await readJob(db, actor, params.jobId);
    if (row.fileName === null || row.fileType === null || jobOf(row).file === null) throw new Problem('file_gone');
    return {
      type: row.fileType as GivenFile['type'],
      name: row.fileName,
      body: partsOf(services.longReads, actor, row.id, row.parts ?? 0),
    };
  });
}
