import type { PieceTemplate, PortionsSetup } from '@zabrik/core';
import { formatCount } from '@zabrik/core';
import { useState } from 'react';
import { NumField } from '../../../kit/NumField.tsx';
import { percentWords } from './cutWords.ts';
import { useAnimals } from './usePlanner.ts';

interface Props {
  readonly setup: PortionsSetup;
  readonly template: PieceTemplate;
  /** How many such pieces lie here, and what one weighs. */
  readonly pieces: number;
  readonly pieceMg: number;
}

/** How many whole animals of which weight give the main size without odd ends: for the next order. */
export function Animals({ setup, template, pieces, pieceMg }: Props) {
  const [open, setOpen] = useState(false);
  const [wanted, setWanted] = useState(24);
  const [perAnimal, setPerAnimal] = useState(Math.min(4, Math.max(1, pieces)));
  const [share, setShare] = useState(0.43);
  // three grades about the animal these pieces came off
  const kg = Math.max(0.2, (pieceMg * perAnimal) / share / 1_000_000);
  const step = kg < 1 ? 0.2 : kg < 4 ? 0.5 : 1;
  const start = Math.max(step, Math.round((kg - 1.5 * step) / step) * step);
  const grades = [0, 1, 2].map((i) => ({
    id: `${formatCount(start + i * step, 1)} to ${formatCount(start + (i + 1) * step, 1)} kg`,
    minMg: Math.round((start + i * step) * 1_000_000),
    maxMg: Math.round((start + (i + 1) * step) * 1_000_000),
  }));
  const [main] = setup.sizes;
  const { kind: _, templateId: __, endTo: ___, ...wish } = setup;
  const { answer } = useAnimals(
    open && main !== undefined
      ? { template, grades, share, pieces: perAnimal, wish: { ...wish, sizes: [main] }, wanted }
      : undefined,
  );
  return (
    <details
      className="rounded-plate border border-line bg-white p-2.5"
      onToggle={(event) => setOpen(event.currentTarget.open)}
    >
      <summary className="min-h-8 cursor-pointer font-head font-semibold">How many animals for the next one?</summary>
      <div className="mt-2 grid grid-cols-3 gap-2">
        <NumField
          label="Portions"
          min={1}
          max={2_000}
          decimals={0}
          value={wanted}
          onValue={(n) => setWanted(Math.round(n))}
        />
        <NumField
          label="Pieces each"
          min={1}
          max={8}
          decimals={0}
          value={perAnimal}
          onValue={(n) => setPerAnimal(Math.round(n))}
        />
        <NumField
          label="are of it"
          unit="%"
          min={1}
          max={100}
          decimals={0}
          value={share * 100}
          onValue={(p) => setShare(p / 100)}
        />
      </div>
      {answer !== undefined && (
        <table className="mt-2 w-full text-left text-[14px]">
          <thead className="text-[13px] text-ink-soft">
            <tr>
              <th className="font-semibold">Animals of</th>
              <th className="text-right font-semibold">how many</th>
              <th className="text-right font-semibold">ends</th>
            </tr>
          </thead>
          <tbody>
            {answer.map((n, i) => (
              <tr key={n.gradeId} className={i === 0 ? 'font-semibold' : ''}>
                <td className="py-1">{n.gradeId}</td>
                <td className="figure text-right">{n.animals}</td>
                <td className="text-right">{percentWords(n.endShare)}</td>
              </tr>
            ))}
            {answer.length === 0 && (
              <tr>
                <td colSpan={3} className="py-1 text-ink-soft">
                  None of these is large enough for one portion.
                </td>
              </tr>
            )}
          </tbody>
        </table>
      )}
    </details>
  );
}
