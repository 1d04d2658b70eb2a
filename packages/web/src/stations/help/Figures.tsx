import { useEffect } from 'react';
import { useLocation } from 'react-router';
import { useHouse } from '../../app/queries.ts';
import { PrintHead } from '../../parts/PrintHead.tsx';
import { figures } from './figures.ts';
import { HelpHead } from './HelpHead.tsx';

/** How each figure of the app is made: a page to read once and to be sent to. */
export default function Figures() {
  const { hash } = useLocation();
  const { data: house } = useHouse();
  useEffect(() => {
    document.getElementById(hash.slice(1))?.scrollIntoView();
  }, [hash]);
  const currency = house?.currency ?? 'GBP';
  return (
    <div className="flex flex-1 flex-col">
      <HelpHead />
      <PrintHead />
      <div className="mx-auto grid w-full max-w-[1100px] content-start gap-6 p-5 lg:grid-cols-[220px_minmax(0,1fr)]">
        <nav aria-label="Figures" className="no-print">
          <ul className="grid gap-0.5 lg:sticky lg:top-4">
            {figures.map(({ id, name }) => (
              <li key={id}>
                <a className="flex min-h-11 items-center underline" href={`#${id}`}>
                  {name}
                </a>
              </li>
            ))}
          </ul>
        </nav>
        <div className="grid gap-4">
          {figures.map((f) => (
            <section key={f.id} id={f.id} aria-label={f.name} className="rounded-plate border border-line bg-white p-4">
              <h2 className="text-xl font-bold">{f.name}</h2>
              <p className="mb-2 text-[15px] text-ink-soft">{f.where}</p>
              <p className="max-w-prose">{f.says}</p>
              <p className="figure mt-2 rounded-md bg-sheet px-3 py-2 text-[16px]">{f.sum}</p>
              {f.example !== undefined && <p className="mt-2 max-w-prose">{f.example(currency)}</p>}
              <p className="mt-2 text-[14px] text-ink-soft">From: {f.source}.</p>
            </section>
          ))}
        </div>
      </div>
    </div>
  );
}
