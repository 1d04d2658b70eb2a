import { parseLotCode, Refusal } from '@zabrik/core';
import { ScanBarcode } from 'lucide-react';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { call } from '../../app/api.ts';
import { api } from '../../app/endpoints.ts';
import { Field } from '../../kit/Field.tsx';
import { type BoxRead, readBox } from './boxCode.ts';
import type { DeliveryInput } from './deliveryForm.ts';

/** The code of one of our own labels in what was scanned, or typed as it is read aloud. */
function ownCode(scanned: string): string | undefined {
  const text = scanned
    .trim()
    .replace(/^\](?:C1|e0|d2|Q3)/, '')
    .replace(/^(?:\(91\)|91(?=\d{4,9}-?[A-Z]$))/, '');
  try {
    return parseLotCode(text).code;
  } catch (error) {
    if (error instanceof Refusal) return undefined;
    throw error;
  }
}

/** Where a scanner types: it ends with Enter, and what the box says goes into the form. A label of ours opens its lot. */
export function ScanBox({ onRead }: { readonly onRead: (fills: Partial<DeliveryInput>, code: string) => void }) {
  const navigate = useNavigate();
  const [text, setText] = useState('');
  const [read, setRead] = useState<BoxRead | string | undefined>(undefined);
  const scan = async (): Promise<void> => {
    const own = ownCode(text);
    if (own !== undefined) {
      const { lots } = await call(api.larder.list, { query: { search: own, limit: 1 } });
      const [lot] = lots;
      if (lot === undefined) setRead(`${own} is a label of ours, but nothing is left of that lot.`);
      else void navigate(`/larder/${lot.id}`);
      return;
    }
    const box = readBox(text, new Date().getFullYear());
    setRead(box);
    if (typeof box === 'string') return;
    onRead(box.fills, text);
    setText('');
  };
  return (
    <div>
      <label htmlFor="scan-box" className="sr-only">
        Scan a box
      </label>
      <div className="relative">
        <ScanBarcode size={20} className="absolute top-3 left-3 text-ink-soft" aria-hidden="true" />
        <Field
          id="scan-box"
          className="pl-10"
          placeholder="scan a box or a label, or type its code"
          autoComplete="off"
          value={text}
          aria-invalid={typeof read === 'string'}
          aria-describedby="scan-read"
          onChange={(event) => setText(event.target.value)}
          onKeyDown={(event) => {
            if (event.key !== 'Enter') return;
            event.preventDefault();
            if (text !== '')
              scan().catch((error: unknown) => setRead(error instanceof Error ? error.message : 'It cannot be read.'));
          }}
        />
      </div>
      <div id="scan-read" role="status" className="text-[14px] leading-snug">
        {typeof read === 'string' && <p className="mt-1 text-alarm">{read}</p>}
        {typeof read === 'object' && (
          <>
            <p className="mt-1 text-ink-soft">{read.says.join(' · ')}</p>
            {read.mind.map((m) => (
              <p key={m} className="mt-1 font-semibold text-alarm">
                {m}
              </p>
            ))}
          </>
        )}
      </div>
    </div>
  );
}
