import { z } from 'zod';
import { useKeptForm } from '../../../app/keptForm.ts';
import { Button } from '../../../kit/Button.tsx';
import { StillHere } from '../../../parts/StillHere.tsx';
import type { LotRead } from './keeping.ts';
import { PartField } from './PartField.tsx';
import { readPart } from './part.ts';

/** The mass that comes off, and its pieces where it was counted in them. */
const partForm = (lot: LotRead) =>
  z.object({
    part: z.string().transform((text, context) => {
      const part = readPart(text, lot);
      if (typeof part !== 'string' && part.massMg !== null) return { massMg: part.massMg, pieces: part.pieces };
      context.addIssue({ code: 'custom', message: typeof part === 'string' ? part : 'How much comes off it' });
      return z.NEVER;
    }),
  });

interface Props {
  readonly lot: LotRead;
  readonly pending: boolean;
  readonly onPart: (part: { readonly massMg: number; readonly pieces: number | null }, sent: () => void) => void;
}

/** Takes a part of a lot off as a lot of its own. */
export function PartLot({ lot, pending, onPart }: Props) {
  const form = useKeptForm(`part/${lot.id}`, partForm(lot), { part: '' });
  return (
    <form
      className="mt-3 grid grid-cols-2 items-end gap-3"
      onSubmit={(event) => void form.handleSubmit(({ part }) => onPart(part, form.clear))(event)}
    >
      <StillHere draft={form.kept} className="col-span-2" />
      <PartField label="Take off" lot={lot} form={form} name="part" />
      <Button type="submit" variant="strong" className="h-11" disabled={pending}>
        Part it
      </Button>
    </form>
  );
}
