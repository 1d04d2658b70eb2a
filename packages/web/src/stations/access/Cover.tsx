import { useQuery } from '@tanstack/react-query';
import type { Me } from '@zabrik/contract';
import { useEffect, useRef } from 'react';
import { call } from '../../app/api.ts';
import { api } from '../../app/endpoints.ts';
import { Pad } from './Pad.tsx';

interface Props {
  readonly me: Me;
  readonly onIn: (me: Me) => void;
  readonly onBack: () => void;
}

/** Over a page whose person has been away: nothing of it is seen or touched until they are back, and nothing of it is lost. */
export default function Cover({ me: { person, house }, onIn, onBack }: Props) {
  const signInOptions = useQuery({
    queryKey: ['sign-in-options', house.slug],
    queryFn: () => call(api.access.signInOptions, { params: { slug: house.slug } }),
  });
  const here = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const before = document.activeElement;
    here.current?.focus();
    return () => {
      if (before instanceof HTMLElement) before.focus();
    };
  }, []);
  const known = signInOptions.data?.people.find((p) => p.id === person.id);
  return (
    <div
      ref={here}
      tabIndex={-1}
      role="dialog"
      aria-modal="true"
      aria-label="Still you?"
      className="fixed inset-0 z-40 overflow-y-auto bg-ground px-4 pt-[12vh] pb-8 outline-none"
    >
      <div className="mx-auto mb-6 w-[360px]">
        <h1 className="text-[32px] leading-tight font-extrabold">Still you?</h1>
        <p className="mt-1 text-ink-soft">Everything stands as you left it.</p>
      </div>
      <Pad
        person={known ?? { ...person, hasPassword: false }}
        demoPin={signInOptions.data?.demoPin ?? null}
        onIn={onIn}
        onBack={onBack}
        over
      />
    </div>
  );
}
