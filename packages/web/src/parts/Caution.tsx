import { useQuery, useQueryClient } from '@tanstack/react-query';
import { call } from '../app/api.ts';
import { useCommand } from '../app/command.ts';
import { api } from '../app/endpoints.ts';
import { useMay } from '../app/queries.ts';
import { Button } from '../kit/Button.tsx';

const useCautions = () =>
  useQuery({ queryKey: ['cautions'], queryFn: () => call(api.house.cautions, {}), staleTime: 600_000 });

/**
 * A usual caution of the trade at its moment. What is to be read first each day stands with a button until it was; afterwards, and what
 * needs no reading, it is one quiet line.
 */
export function Caution({ id, about }: { readonly id: string; readonly about?: string }) {
  const { data } = useCautions();
  const client = useQueryClient();
  const may = useMay('house.seeCaution');
  const caution = data?.cautions.find((c) => c.id === id);
  const see = useCommand(api.house.seeCaution, {
    spoken: () => ({ says: `A caution read: ${caution?.text.slice(0, 60) ?? id}` }),
    onDone: () => client.invalidateQueries({ queryKey: ['cautions'] }),
  });
  if (data === undefined || caution === undefined) return null;
  const loud =
    may && (caution.show.includes('first') || caution.show.includes('block')) && !data.seenToday.includes(id);
  if (!loud)
    return (
      <details className="text-[14px] leading-snug text-ink-soft">
        <summary className="cursor-pointer list-none">
          {caution.text} <span className="whitespace-nowrap underline">why</span>
        </summary>
        <p className="mt-1">{data.standing}</p>
      </details>
    );
  return (
    <div
      role="note"
      className="rounded-r-md border-l-4 border-attention bg-[#fff7e0] px-3.5 py-2.5 text-[15px] leading-snug"
    >
      <p>{caution.text}</p>
      <div className="mt-2 flex items-center justify-between gap-3">
        <span className="text-[13px] text-ink-soft">{data.standing}</span>
        <Button
          variant="plain"
          className="shrink-0"
          disabled={see.pending}
          onClick={() => see.send({ body: { cautionId: id, about: about ?? null } })}
        >
          Read
        </Button>
      </div>
    </div>
  );
}
