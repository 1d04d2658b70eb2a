import { useQueryClient } from '@tanstack/react-query';
import type { Ask, House } from '@zabrik/contract';
import { useState } from 'react';
import { useLocation } from 'react-router';
import { useCommand } from '../../app/command.ts';
import { api } from '../../app/endpoints.ts';
import { houseQuery, useHouse } from '../../app/queries.ts';

type Settings = Ask<typeof api.house.saveSettings>['body']['settings'];

/** Other units draw every screen anew: what was saved a moment ago is said on the new drawing too. */
let drawnAnew: { readonly path: string; readonly at: number } | undefined;
const REMEMBERED_MS = 5_000;

export type SaveHouse = ReturnType<typeof useSaveHouse>;

/** Saves settings of the house on the version that is on the screen. It stands above the form, which begins anew with what was saved. */
export function useSaveHouse() {
  const client = useQueryClient();
  const { data: house } = useHouse();
  const { pathname } = useLocation();
  const [savedBefore] = useState(() => drawnAnew?.path === pathname && Date.now() - drawnAnew.at < REMEMBERED_MS);
  const again = (): void => void client.invalidateQueries({ queryKey: ['house'] });
  const saving = useCommand(api.house.saveSettings, {
    onDone: ({ version }, { body }) => {
      drawnAnew = { path: pathname, at: Date.now() };
      // the form begins anew at once, with what was saved and not with what stood there before
      client.setQueryData<House>(houseQuery.queryKey, (before) =>
        before === undefined ? undefined : ({ ...before, ...body.settings, version } as House),
      );
      again();
    },
    // somebody was first: theirs is read, and what was typed stays
    onFailed: again,
  });
  return {
    /** `done`: what the form does once it is saved. */
    save: (settings: Settings, done: () => void): void => {
      if (house !== undefined) saving.send({ body: { version: house.version, settings } }, done);
    },
    pending: saving.pending,
    error: saving.error,
    saved: saving.answer !== undefined || (savedBefore && !saving.pending && saving.error === null),
  };
}
