import { useQuery } from '@tanstack/react-query';
import { Link } from 'react-router';
import { dayAndTime } from '../../app/dates.ts';
import { useHouse } from '../../app/queries.ts';
import { Empty, Failed, Loading } from '../../kit/Notice.tsx';
import { LabelPreview } from './LabelPreview.tsx';
import { LarderHead } from './LarderHead.tsx';
import { printedQuery } from './reads.ts';

/** What came out of the label printer lately. */
export default function Labels() {
  const { data: house } = useHouse();
  const printed = useQuery({ ...printedQuery, refetchInterval: 5_000 });
  return (
    <section aria-label="Labels" className="flex-1 bg-ground">
      <LarderHead />
      {printed.isPending ? (
        <Loading />
      ) : printed.isLoadingError ? (
        <Failed error={printed.error} again={() => void printed.refetch()} />
      ) : printed.data.latest.length === 0 && printed.data.jobs.length === 0 ? (
        <Empty title="No label came out yet">
          <Link className="underline" to="/larder">
            Open a lot
          </Link>{' '}
          or choose several, and print. What came out of the printer stands here.
        </Empty>
      ) : (
        <div className="grid items-start gap-5 p-4 lg:grid-cols-[minmax(0,1fr)_340px]">
          <ul className="grid gap-4 sm:grid-cols-2" aria-label="Labels printed last">
            {printed.data.latest.map((content) => (
              <li key={content.code}>
                <LabelPreview
                  content={content}
                  widthMm={62}
                  heightMm={40}
                  us={house?.limits.profileId.startsWith('us') === true}
                />
              </li>
            ))}
          </ul>
          <div>
            <h2 className="mb-2 text-lg font-bold">Out of the printer</h2>
            {printed.data.jobs.length === 0 ? (
              <p className="text-ink-soft">
                The printer has nothing to show: it was switched on anew, or it is not there.
              </p>
            ) : (
              <ol className="grid gap-1.5">
                {printed.data.jobs.map((job) => (
                  <li key={job.job}>
                    <a
                      href={`/api/v1/labels/printed/${job.job}`}
                      target="_blank"
                      rel="noreferrer"
                      className="flex min-h-12 items-center justify-between gap-3 rounded-md border border-line bg-sheet px-3 hover:border-ink"
                    >
                      <span className="min-w-0 truncate">{job.name}</span>
                      <span className="shrink-0 text-[14px] text-ink-soft">
                        {job.labels} · {dayAndTime(job.at)}
                      </span>
                    </a>
                  </li>
                ))}
              </ol>
            )}
          </div>
        </div>
      )}
    </section>
  );
}
