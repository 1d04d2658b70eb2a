import { changed, parts, version } from 'virtual:built-of';
import { useState } from 'react';
import { Field } from '../../kit/Field.tsx';
import { changesOf } from './changesOf.ts';
import { HelpHead } from './HelpHead.tsx';

const bold = (text: string): (string | { readonly bold: string })[] =>
  text.split('**').map((part, i) => (i % 2 === 1 ? { bold: part } : part));

/** Which version this is, what changed in it, and whose parts it is made of under which terms. */
export default function About() {
  const [wanted, setWanted] = useState('');
  const shown = parts.filter((p) => `${p.name} ${p.license}`.toLowerCase().includes(wanted.trim().toLowerCase()));
  return (
    <div className="flex flex-1 flex-col">
      <HelpHead />
      <div className="mx-auto grid w-full max-w-[900px] content-start gap-8 p-5">
        <section aria-label="This version">
          <h2 className="text-xl font-bold">Zabrik {version}</h2>
          <p className="max-w-prose text-ink-soft">
            All rights reserved. Weights, temperatures and dates are yours to check: what stands on a screen is no
            licence to serve. Local codes and whoever is trained in them go before it.
          </p>
        </section>
        <section aria-label="What changed">
          <h2 className="mb-2 text-xl font-bold">What changed</h2>
          {changesOf(changed).map(({ title, items }) => (
            <div key={title} className="mb-4">
              <h3 className="text-lg font-bold">{title}</h3>
              <ul className="grid max-w-prose gap-2">
                {items.map((item) => (
                  <li key={item} className="border-l-4 border-line pl-3">
                    {bold(item).map((part) =>
                      typeof part === 'string' ? part : <strong key={part.bold}>{part.bold}</strong>,
                    )}
                  </li>
                ))}
              </ul>
            </div>
          ))}
        </section>
        <section aria-label="Made with">
          <h2 className="mb-2 text-xl font-bold">Made with</h2>
          <p className="mb-3 text-ink-soft">{parts.length} parts of others, each under its own terms.</p>
          <Field
            label="Find a part"
            className="mb-3 max-w-sm"
            value={wanted}
            onChange={(e) => setWanted(e.target.value)}
          />
          <ul className="columns-1 gap-6 text-[15px] sm:columns-2">
            {shown.map((p) => (
              <li key={`${p.name} ${p.version}`} className="break-inside-avoid break-words">
                {p.name}{' '}
                <span className="text-ink-soft">
                  {p.version}, {p.license}
                </span>
              </li>
            ))}
          </ul>
          {shown.length === 0 && <p className="text-ink-soft">None of that name.</p>}
        </section>
      </div>
    </div>
  );
}
