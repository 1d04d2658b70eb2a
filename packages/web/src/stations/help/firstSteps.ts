import type { Role } from '@zabrik/contract/roles';

export interface FirstStep {
  readonly to: string;
  readonly name: string;
  readonly says: string;
}

const bench: FirstStep = {
  to: '/bench',
  name: 'Put an animal on the bench',
  says: 'touch a lot under “To be cut”, choose how, and weigh piece by piece: the pan is read by itself',
};
const larder: FirstStep = {
  to: '/larder',
  name: 'Look what lies there',
  says: 'what is oldest stands first; a label’s square opens its lot',
};
const keys: FirstStep = {
  to: '/help/figures',
  name: 'How figures are made',
  says: 'every sum with an example; ? shows the keys of a screen',
};

/** What to touch on the first day, in the order of the work. */
export const firstSteps: Readonly<Record<Role, readonly FirstStep[]>> = {
  butcher: [
    {
      to: '/receive',
      name: 'Take in a delivery',
      says: 'weigh it, look at it, say how cold it is: it becomes a lot with a label',
    },
    bench,
    larder,
    keys,
  ],
  'sous-chef': [
    bench,
    {
      to: '/pots',
      name: 'Plan a pot',
      says: 'a recipe scales itself to the bones there are, and says what is missing',
    },
    { to: '/pots/cooling', name: 'Log a cooling', says: 'with the probe, against the limit the house has chosen' },
    { to: '/ledger', name: 'Read a yield sheet', says: 'what it gave, what it cost, and what went missing' },
    keys,
  ],
  'head-chef': [
    { to: '/house', name: 'Say what is still to be said', says: 'each with what it is needed for' },
    { to: '/house/people', name: 'Add your people', says: 'and give each a PIN' },
    { to: '/house/devices', name: 'Try your scale', says: 'its live figure stands beside it' },
    { to: '/larder/count', name: 'Take on what lies there', says: 'weighed, with its date, no supplier needed' },
    bench,
  ],
  viewer: [
    larder,
    { to: '/ledger', name: 'Read a yield sheet', says: 'what it gave, what it cost, and what went missing' },
    keys,
  ],
};
