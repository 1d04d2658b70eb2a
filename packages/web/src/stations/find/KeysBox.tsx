import { useState } from 'react';
import { Link } from 'react-router';
import { HotkeyMark } from '../../kit/Button.tsx';
import { Dialog } from '../../kit/Dialog.tsx';
import { keysHere } from './keysHere.ts';

const everywhere = [
  { key: '/', does: 'Find anything' },
  { key: '?', does: 'These keys' },
  { key: 'Tab', does: 'On to the next thing; with Shift back' },
  { key: 'Esc', does: 'Close what stands over the page, or leave a field' },
];

/** The keys that do something on this screen now, and those that do everywhere. */
export default function KeysBox({ close }: { readonly close: () => void }) {
  // as the page stood when it was asked: what stands over it has keys of its own
  const [here] = useState(() => keysHere(document.getElementById('work') ?? document));
  const list = (keys: typeof here) => (
    <dl className="grid grid-cols-[auto_minmax(0,1fr)] gap-x-4 gap-y-1.5">
      {keys.map(({ key, does }) => (
        <div key={key} className="contents">
          <dt className="text-right">
            <HotkeyMark hotkey={key} />
          </dt>
          <dd>{does}</dd>
        </div>
      ))}
    </dl>
  );
  return (
    <Dialog title="Keys" onClose={close}>
      <section aria-label="On this screen">
        <h3 className="mb-2 text-lg font-bold">On this screen</h3>
        {here.length === 0 ? <p className="text-ink-soft">None of its own.</p> : list(here)}
      </section>
      <section aria-label="Everywhere" className="mt-4">
        <h3 className="mb-2 text-lg font-bold">Everywhere</h3>
        {list(everywhere)}
      </section>
      <p className="mt-5 flex flex-wrap gap-x-5 border-t border-line pt-3">
        <Link className="flex min-h-11 items-center underline" to="/help/figures" onClick={close}>
          How figures are made
        </Link>
        <Link className="flex min-h-11 items-center underline" to="/help/about" onClick={close}>
          About this version
        </Link>
      </p>
    </Dialog>
  );
}
