import type { Answer, Me } from '@zabrik/contract';
import { roleNames } from '@zabrik/contract/roles';
import { useCallback, useEffect, useState } from 'react';
import { useCommand } from '../../app/command.ts';
import { api } from '../../app/endpoints.ts';
import { signedInAnew } from '../../app/signOut.ts';
import { Button } from '../../kit/Button.tsx';
import { Notice } from '../../kit/Notice.tsx';
import { NumberPad } from '../../kit/NumberPad.tsx';
import { OneField } from '../../kit/OneField.tsx';

export type Person = Answer<typeof api.access.signInOptions>['people'][number];

interface Props {
  readonly person: Person;
  readonly demoPin: string | null;
  readonly onIn: (me: Me) => void;
  readonly onBack: () => void;
  /** Stands over a page whose keys must not hear what is typed here; Escape does not lead away. */
  readonly over?: boolean;
  /** The way in for whoever has forgotten both. */
  readonly onForgotten?: (() => void) | undefined;
}

/** One person's PIN or password. */
export function Pad({ person, demoPin, onIn, onBack, over = false, onForgotten }: Props) {
  const [pin, setPin] = useState('');
  const [byPassword, setByPassword] = useState(false);
  const signIn = useCommand(api.access.signIn, {
    onDone: (me) => {
      signedInAnew();
      onIn(me);
    },
    onFailed: () => setPin(''),
  });
  const { send, pending } = signIn;
  const enter = useCallback(() => {
    if (pin.length >= 4 && !pending) send({ body: { personId: person.id, pin } });
  }, [pin, pending, send, person.id]);
  const add = useCallback((digit: string) => setPin((before) => (before.length < 6 ? before + digit : before)), []);

  useEffect(() => {
    const onKey = (event: KeyboardEvent): void => {
      // keys for a control in here are its own; the page below hears none
      if (over && event.key !== 'Tab') event.stopImmediatePropagation();
      if (byPassword) return;
      if (/^\d$/.test(event.key)) add(event.key);
      else if (event.key === 'Backspace') setPin((before) => before.slice(0, -1));
      else if (event.key === 'Escape' && !over) onBack();
      else if (event.key === 'Enter' && !(event.target instanceof HTMLButtonElement)) enter();
      else return;
      event.preventDefault();
    };
    const how = { capture: over };
    addEventListener('keydown', onKey, how);
    return () => removeEventListener('keydown', onKey, how);
  }, [add, enter, onBack, over, byPassword]);

  return (
    <section aria-label={`Sign in as ${person.name}`} className="mx-auto w-[360px]">
      <h2 className="text-2xl font-bold">{person.name}</h2>
      <p className="mb-4 text-ink-soft">{roleNames[person.role]}</p>
      {!byPassword ? (
        <>
          <div
            role="status"
            aria-label={`${pin.length} digits typed`}
            className="mb-4 flex h-14 items-center justify-center gap-3 rounded-plate border-[1.5px] border-ink bg-white"
          >
            {pin === '' ? (
              <span className="text-ink-soft">PIN, four to six digits</span>
            ) : (
              Array.from(pin, (_, i) => <span key={`digit-${String(i)}`} className="size-4 rounded-full bg-ink" />)
            )}
          </div>
          <NumberPad
            label="PIN"
            onDigit={add}
            onBack={() => setPin((before) => before.slice(0, -1))}
            onDone={enter}
            doneLabel="Sign in"
            doneDisabled={pin.length < 4 || pending}
          />
        </>
      ) : (
        <OneField
          formClass="grid gap-3"
          label="Password"
          type="password"
          autoComplete="current-password"
          autoFocus
          read={(password) => (password.length >= 8 ? password : undefined)}
          onSend={(password) => send({ body: { personId: person.id, password } })}
          pending={pending}
          send="Sign in"
          sending={{ variant: 'strong', size: 'bench' }}
        />
      )}
      <div className="mt-4 min-h-16">
        {signIn.error !== null ? (
          <Notice tone="alarm">{signIn.error.message}</Notice>
        ) : (
          demoPin !== null && !byPassword && <Notice tone="calm">Demo: the PIN is {demoPin} for everyone.</Notice>
        )}
      </div>
      <div className="mt-3 flex gap-3">
        <Button size="bench" className="flex-1" onClick={onBack}>
          Someone else
        </Button>
        {person.hasPassword && (
          <Button size="bench" className="flex-1" onClick={() => setByPassword(!byPassword)}>
            {byPassword ? 'Use the PIN' : 'Use a password'}
          </Button>
        )}
      </div>
      {onForgotten !== undefined && (
        <button type="button" className="mt-3 min-h-11 underline" onClick={onForgotten}>
          Both forgotten?
        </button>
      )}
    </section>
  );
}
