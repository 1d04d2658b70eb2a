import type { OnTheBar } from '../../app/onTheBar.ts';

export const receive: OnTheBar = { to: '/receive', name: 'Receive', figure: (flow) => `${flow.receivedToday} today` };
