import { refusalNames } from '@zabrik/contract/claim-words';
import { figureWords, formatMass, parseMass } from '@zabrik/core';
import { useState } from 'react';
import { Button } from '../../kit/Button.tsx';
import { Field } from '../../kit/Field.tsx';
import { optionsOf, Select } from '../../kit/Select.tsx';
import type { RefusalReason } from './deliveryForm.ts';

const isReason = (text: string): text is RefusalReason => text in refusalNames;

interface Props {
  readonly netMg: number | undefined;
  readonly busy: boolean;
  readonly onAccept: () => void;
  readonly onRefuse: (reason: RefusalReason, refusedMg: number | 'all') => void;
}

/** The end of a line: accept it, accept a part, or send it back with a reason. */
export function Verdict({ netMg, busy, onAccept, onRefuse }: Props) {
  const [refusing, setRefusing] = useState(false);
  const [reason, setReason] = useState<RefusalReason>('smell');
  const [part, setPart] = useState('');
  let partMg: number | undefined;
  let error: string | undefined;
  try {
    partMg = part.trim() === '' ? undefined : parseMass(part);
    if (partMg !== undefined && netMg !== undefined && partMg >= netMg) error = `${formatMass(netMg)} came in all`;
  } catch (thrown) {
    error = figureWords(thrown, 'A weight, such as 400');
  }
  if (!refusing)
    return (
      <div className="flex gap-3">
        <Button size="bench" variant="alarm" className="px-5" onClick={() => setRefusing(true)}>
          Refuse…
        </Button>
        <Button size="bench" variant="strong" className="px-10" disabled={busy} onClick={onAccept}>
          {busy ? 'Writing…' : 'Accept delivery'}
        </Button>
      </div>
    );
  return (
    <section
      aria-label="Refuse"
      className="grid w-full grid-cols-[1.2fr_1fr_auto_auto_auto] items-end gap-3 rounded-plate border-2 border-alarm bg-alarm-soft p-3"
    >
      <Select
        label="Why"
        big
        value={reason}
        onValue={(value) => {
          if (isReason(value)) setReason(value);
        }}
        options={optionsOf(refusalNames)}
      />
      <Field
        label="Goes back, of it"
        unit="g"
        big
        inputMode="decimal"
        placeholder="a part"
        value={part}
        error={error}
        onChange={(event) => setPart(event.target.value)}
      />
      <Button size="bench" onClick={() => setRefusing(false)}>
        Not after all
      </Button>
      <Button
        size="bench"
        variant="plain"
        disabled={busy || partMg === undefined || partMg <= 0 || error !== undefined || netMg === undefined}
        onClick={() => partMg !== undefined && onRefuse(reason, partMg)}
      >
        Accept the rest
      </Button>
      <Button size="bench" variant="alarm" disabled={busy} onClick={() => onRefuse(reason, 'all')}>
        Refuse all of it
      </Button>
    </section>
  );
}
