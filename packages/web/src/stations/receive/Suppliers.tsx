import { Link } from 'react-router';
import { timeIn, todayIn } from '../../app/dates.ts';
import { moneyOf, useHouse, useMay } from '../../app/queries.ts';
import { useNow } from '../../app/useNow.ts';
import { Empty, Failed, Loading } from '../../kit/Notice.tsx';
import { ReceiveHead } from '../../parts/ReceiveHead.tsx';
import { NewSupplier } from './NewSupplier.tsx';
import { moneyWords, turnWords } from './supplierWords.ts';
import { type Supplier, useSuppliers } from './useSuppliers.ts';

function SupplierRow({ supplier, money }: { readonly supplier: Supplier; readonly money: (minor: number) => string }) {
  const { terms } = supplier;
  const reach = [terms.contact, terms.phone, terms.email].filter((t) => t !== null).join(' · ');
  return (
    <li>
      <Link
        to={`/receive/suppliers/${supplier.id}`}
        className={`grid min-h-16 items-center gap-x-5 rounded-plate border-[1.5px] border-line-strong bg-white px-4 py-2.5 hover:border-ink md:grid-cols-[1.2fr_1fr_1fr] ${supplier.retired ? 'text-ink-soft' : ''}`}
      >
        <span className="min-w-0">
          <span className="block truncate font-head text-lg font-semibold">{supplier.name}</span>
          <span className="block truncate text-[14px] text-ink-soft">
            {reach === '' ? 'nobody to call yet' : reach}
          </span>
        </span>
        <span className="text-[15px]">
          {supplier.retired ? 'bought from no more' : turnWords(terms, { day: todayIn(), time: timeIn() })}
        </span>
        <span className="text-[14px] text-ink-soft">{moneyWords(terms, money)}</span>
      </Link>
    </li>
  );
}

/** Whom the house buys from, each with when it must be asked next. */
export default function Suppliers() {
  const suppliers = useSuppliers();
  const may = useMay('receive.addSupplier');
  const money = moneyOf(useHouse().data);
  // an hour by which to order passes while the page stands
  useNow(60_000);
  return (
    <div className="flex flex-1 flex-col">
      <ReceiveHead />
      <div className="grid max-w-6xl gap-5 p-5">
        <h2 className="text-2xl font-extrabold">Suppliers</h2>
        {suppliers.isPending ? (
          <Loading />
        ) : suppliers.isLoadingError ? (
          <Failed error={suppliers.error} again={() => void suppliers.refetch()} />
        ) : suppliers.data.suppliers.length === 0 ? (
          <Empty title="Nobody is bought from yet">A supplier is written down with the first delivery, or here.</Empty>
        ) : (
          <ul className="grid gap-3">
            {suppliers.data.suppliers.map((s) => (
              <SupplierRow key={s.id} supplier={s} money={money} />
            ))}
          </ul>
        )}
        {may && (
          <div className="max-w-md">
            <NewSupplier />
          </div>
        )}
      </div>
    </div>
  );
}
