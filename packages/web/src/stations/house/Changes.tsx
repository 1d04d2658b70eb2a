/** Who changed what of the house, from what to what, newest first. */
import { useInfiniteQuery } from '@tanstack/react-query';
import { call } from '../../app/api.ts';
import { dayAndTime } from '../../app/dates.ts';
import { api } from '../../app/endpoints.ts';
import { moneyOf, useHouse } from '../../app/queries.ts';
import { Button } from '../../kit/Button.tsx';
import { DataTable } from '../../kit/DataTable.tsx';
import { Empty, Failed, Loading } from '../../kit/Notice.tsx';
import { sideWords, whatWords } from './changeWords.ts';
import { ForChefs, HouseHead } from './HouseHead.tsx';

function ChangesPage() {
  const { data: house } = useHouse();
  const money = moneyOf(house);
  const changes = useInfiniteQuery({
    queryKey: ['house', 'changes'],
    queryFn: ({ pageParam }: { readonly pageParam: string | undefined }) =>
      call(api.house.changes, { query: { limit: 100, ...(pageParam === undefined ? {} : { cursor: pageParam }) } }),
    initialPageParam: undefined as string | undefined,
    getNextPageParam: (page) => page.next ?? undefined,
  });
  const rows = changes.data?.pages.flatMap((page) => page.changes) ?? [];
  return (
    <div className="flex flex-1 flex-col">
      <HouseHead />
      <div className="p-5">
        {changes.isPending ? (
          <Loading />
        ) : changes.isLoadingError ? (
          <Failed error={changes.error} again={() => void changes.refetch()} />
        ) : rows.length === 0 ? (
          <Empty title="Nothing was changed yet">
            What a chef changes of the house stands here, from what to what.
          </Empty>
        ) : (
          <>
            <DataTable
              rows={rows}
              rowId={(c) => c.id}
              whole={!changes.hasNextPage}
              file="changes.csv"
              columns={[
                {
                  id: 'at',
                  head: 'When',
                  className: 'whitespace-nowrap',
                  value: (c) => c.at,
                  cell: (c) => dayAndTime(c.at),
                },
                { id: 'by', head: 'Who', value: (c) => c.by },
                { id: 'what', head: 'What', value: (c) => whatWords(c.what, c.about) },
                { id: 'before', head: 'From', value: (c) => sideWords(c.what, c.before, money) },
                { id: 'after', head: 'To', value: (c) => sideWords(c.what, c.after, money) },
              ]}
            />
            {changes.hasNextPage && (
              <Button
                className="mt-3"
                disabled={changes.isFetchingNextPage}
                onClick={() => void changes.fetchNextPage()}
              >
                Older ones
              </Button>
            )}
          </>
        )}
      </div>
    </div>
  );
}

export default function Changes() {
  return (
    <ForChefs>
      <ChangesPage />
    </ForChefs>
  );
}
