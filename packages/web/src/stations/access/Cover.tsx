import { useQuery } from '@tanstack/react-query';
import type { Me } from '@zabrik/contract';
import { call } from '../../app/api.ts';
import { api } from '../../app/endpoints.ts';
import { Dialog } from '../../kit/Dialog.tsx';
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
  const known = signInOptions.data?.people.find((p) => p.id === person.id);
  return (
    <Dialog title="Still you?" says="Everything stands as you left it." covers>
      <Pad
        person={known ?? { ...person, hasPassword: false, ofThisTablet: false, onShift: false }}
        demoPin={signInOptions.data?.demoPin ?? null}
        onIn={onIn}
        onBack={onBack}
        over
      />
    </Dialog>
  );
}
