/** A head chef who has forgotten PIN and password comes in by the code that was printed. */
import { useState } from 'react';
import { z } from 'zod';
import { useCommand } from '../../app/command.ts';
import { api } from '../../app/endpoints.ts';
import { useKeptForm } from '../../app/keptForm.ts';
import { Button } from '../../kit/Button.tsx';
import { Field } from '../../kit/Field.tsx';
import { Notice } from '../../kit/Notice.tsx';
import { RecoveryCode } from '../../parts/RecoveryCode.tsx';
import type { Person } from './Pad.tsx';

const form = z.object({
  code: z.string().trim().min(1, 'The code that was printed'),
  pin: z.string().regex(/^\d{4,6}$/, 'Four to six digits'),
  password: z.string().min(12, 'At least twelve letters').max(200),
});
const blank = { code: '', pin: '', password: '' };

interface Props {
  readonly slug: string;
  readonly house: string;
  readonly person: Person;
  readonly done: () => void;
}

export default function Forgotten({ slug, house, person, done }: Props) {
  const { register, handleSubmit, formState, clear } = useKeptForm('recovery', form, blank, [
    'code',
    'pin',
    'password',
  ]);
  const [put, setPut] = useState(false);
  const send = useCommand(api.access.recover, { onDone: clear });
  const { errors } = formState;
  if (send.answer !== undefined && !put)
    return (
      <section aria-label="A new code" className="mx-auto grid w-[360px] max-w-full gap-4">
        <h2 className="text-2xl font-bold">PIN and password are set</h2>
        <p className="text-ink-soft">The code is used up. This is the next.</p>
        <RecoveryCode house={house} code={send.answer.recoveryCode} />
        <Button
          variant="strong"
          size="bench"
          onClick={() => {
            setPut(true);
            done();
          }}
        >
          It is put away. Sign in
        </Button>
      </section>
    );
  return (
    <form
      aria-label="Forgotten"
      noValidate
      className="mx-auto grid w-[360px] max-w-full gap-4"
      onSubmit={(event) =>
        void handleSubmit((said) => send.send({ body: { slug, personId: person.id, ...said } }))(event)
      }
    >
      <h2 className="text-2xl font-bold">{person.name}: forgotten</h2>
      <Field
        label="Recovery code"
        hint="On the paper from the day the kitchen was set up"
        autoCapitalize="characters"
        error={errors.code?.message}
        {...register('code')}
      />
      <Field
        label="A new PIN"
        type="password"
        inputMode="numeric"
        autoComplete="new-password"
        error={errors.pin?.message}
        {...register('pin')}
      />
      <Field
        label="A new password"
        type="password"
        autoComplete="new-password"
        error={errors.password?.message}
        {...register('password')}
      />
      {send.error !== null && <Notice tone="alarm">{send.error.message}</Notice>}
      <Button type="submit" variant="strong" size="bench" disabled={send.pending}>
        Set them
      </Button>
      <Button size="bench" onClick={done}>
        Back
      </Button>
    </form>
  );
}
