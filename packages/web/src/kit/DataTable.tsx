import {
  type ColumnDef,
  createSortedRowModel,
  type RowData,
  rowSortingFeature,
  sortFns,
  tableFeatures,
  useTable,
} from '@tanstack/react-table';
import { ArrowDown, ArrowUp, ChevronsUpDown } from 'lucide-react';
import type { ReactNode } from 'react';
import { Button } from './Button.tsx';

export interface Column<R extends RowData> {
  readonly id: string;
  readonly head: string;
  /** What it is sorted by and what a spreadsheet gets; null sorts last. */
  readonly value: (row: R) => string | number | null;
  /** What stands in the cell, where that is not the value itself. */
  readonly cell?: (row: R) => ReactNode;
  readonly figure?: boolean;
  readonly className?: string;
}

interface Props<R extends RowData> {
  readonly rows: readonly R[];
  readonly columns: readonly Column<R>[];
  readonly rowId: (row: R) => string;
  /** All rows there are are here. Of a part, sorting would show the first of what happens to be read: then it stands as it came. */
  readonly whole?: boolean;
  readonly caption?: ReactNode;
  /** The name of the file that "As CSV" gives; without one there is none. */
  readonly file?: string;
}

const features = tableFeatures({ rowSortingFeature, sortedRowModel: createSortedRowModel(), sortFns });

/** Rows under heads that sort them: a touch or Enter goes up, down, and back to how they came. Figures stand right, in columns. */
export function DataTable<R extends RowData>({ rows, columns, rowId, whole = true, caption, file }: Props<R>) {
  const table = useTable({
    features,
    data: rows,
    getRowId: rowId,
    columns: columns.map(
      (c): ColumnDef<typeof features, R> => ({
        id: c.id,
        header: c.head,
        accessorFn: (row) => c.value(row) ?? undefined,
        sortFn: c.figure === true ? 'basic' : 'text',
        sortUndefined: 'last',
        enableSorting: whole && rows.length > 1,
        sortDescFirst: false,
      }),
    ),
  });
  const byId = new Map(columns.map((c) => [c.id, c]));
  const look = (id: string): string => {
    const column = byId.get(id);
    return `${column?.figure === true ? 'text-right tabular-nums' : ''} ${column?.className ?? ''}`;
  };
  return (
    <div>
      <div className="overflow-x-auto print:overflow-visible">
        <table className="w-full border-collapse text-left text-[15px]">
          {caption !== undefined && (
            <caption className="caption-bottom py-3 text-left text-ink-soft">{caption}</caption>
          )}
          <thead className="text-[14px] text-ink-soft">
            {table.getHeaderGroups().map((group) => (
              <tr key={group.id} className="border-b border-line-strong">
                {group.headers.map(({ id, column }) => {
                  const sorted = column.getIsSorted();
                  const head = byId.get(id)?.head;
                  const Mark = sorted === 'asc' ? ArrowUp : sorted === 'desc' ? ArrowDown : ChevronsUpDown;
                  return (
                    <th
                      key={id}
                      scope="col"
                      aria-sort={sorted === 'asc' ? 'ascending' : sorted === 'desc' ? 'descending' : undefined}
                      className={`py-1 pr-3 font-semibold ${look(id)}`}
                    >
                      {column.getCanSort() ? (
                        <button
                          type="button"
                          className={`inline-flex min-h-10 items-center gap-1 hover:text-ink ${byId.get(id)?.figure === true ? 'flex-row-reverse' : ''} ${sorted === false ? '' : 'text-ink'}`}
                          onClick={column.getToggleSortingHandler()}
                        >
                          {head}
                          <Mark
                            size={14}
                            aria-hidden="true"
                            className={`no-print ${sorted === false ? 'opacity-50' : ''}`}
                          />
                        </button>
                      ) : (
                        head
                      )}
                    </th>
                  );
                })}
              </tr>
            ))}
          </thead>
          <tbody>
            {table.getRowModel().rows.map((row) => (
              <tr key={row.id} className="border-b border-line">
                {columns.map((c) => (
                  <td key={c.id} className={`py-1.5 pr-3 ${look(c.id)}`}>
                    {c.cell === undefined ? c.value(row.original) : c.cell(row.original)}
                  </td>
                ))}
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      {file !== undefined && rows.length > 0 && (
        <Button
          className="no-print mt-3"
          onClick={() =>
            void import('./saveCsv.ts').then(({ saveCsv }) =>
              saveCsv(
                file,
                columns.map((c) => c.head),
                table.getRowModel().rows.map((row) => columns.map((c) => c.value(row.original))),
              ),
            )
          }
        >
          As CSV
        </Button>
      )}
    </div>
  );
}
