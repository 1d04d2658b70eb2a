import { dayAndTime } from '../app/dates.ts';
import { useHouse } from '../app/queries.ts';

/** On paper alone: whose it is, and when it was printed. */
export function PrintHead() {
  const { data: house } = useHouse();
  return (
    <p className="mb-3 hidden justify-between border-b border-ink pb-1 text-[12px] print:flex">
      <strong>{house?.name}</strong>
      <span>printed {dayAndTime(new Date().toISOString())}</span>
    </p>
  );
}
