import type { OnTheBar } from '../../app/onTheBar.ts';

export const house: OnTheBar = { to: '/house', name: 'House', figure: () => ' ', may: 'house.people' };
