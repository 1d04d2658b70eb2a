import { useQuery, useQueryClient } from '@tanstack/react-query';
import { codeTyped, formatMass, parseLotCode, Refusal } from '@zabrik/core';
import { Command } from 'cmdk';
import { useDeferredValue, useState } from 'react';
import { call } from '../../app/api.ts';
import { dayAndTime } from '../../app/dates.ts';
import { api } from '../../app/endpoints.ts';
import { useMe } from '../../app/queries.ts';
import type { ScreenAt } from '../../app/screenAt.ts';
import { Dialog } from '../../kit/Dialog.tsx';
import { findKept, findPlaces, groupOrder, type Line, lineOf } from './findHere.ts';
import { recentOf } from './recent.ts';

/** A code with a letter that does not fit it: a digit or the letter was misheard. */
function misread(text: string): boolean {
  if (!/[A-Z]$/.test(codeTyped(text) ?? '')) return false;
  try {
    parseLotCode(codeTyped(text) ?? '');
    return false;
  } catch (thrown) {
    return thrown instanceof Refusal;
  }
}

function FoundLine({ line, go }: { readonly line: Line; readonly go: (to: string) => void }) {
  return (
    <Command.Item
      value={line.key}
      onSelect={() => go(line.to)}
      className="grid min-h-14 cursor-pointer grid-cols-[minmax(0,1fr)_auto] items-center gap-3 rounded-md px-3 py-1.5 data-[selected=true]:bg-flow data-[selected=true]:text-white"
    >
      <span className="min-w-0 leading-tight">
        <span className="block truncate font-semibold">{line.name}</span>
        <span className="block truncate text-[13px] opacity-80">
          {[line.about, line.at === undefined ? '' : dayAndTime(line.at)].filter((t) => t !== '').join(' · ')}
        </span>
      </span>
      <span className="figure text-right leading-tight">
        {line.code}
        {line.massMg !== undefined && (
          <span className="block text-[13px] font-normal opacity-80">{formatMass(line.massMg)}</span>
        )}
      </span>
    </Command.Item>
  );
}

interface Props {
  readonly first: string;
  /** All there are: what a screen is called, and where it stands. */
  readonly screens: readonly ScreenAt[];
  readonly go: (to: string) => void;
  /** The keys of the screen are asked for instead. */
  readonly keys: () => void;
  readonly close: () => void;
}

/** Anything by a few letters of its name, or by its code: what the server has, or without it what this tablet has read. */
export default function FindBox({ first, screens, go, keys, close }: Props) {
  const [text, setText] = useState(first);
  const client = useQueryClient();
  const { data: me } = useMe();
  const asked = useDeferredValue(text.trim());
  const search = useQuery({
    queryKey: ['find', asked],
    queryFn: () => call(api.find.search, { query: { q: asked } }),
    enabled: asked !== '',
    placeholderData: (before) => before,
    retry: false,
    gcTime: 60_000,
  });
  const without = search.isError;
  const lines: readonly Line[] =
    asked === '' || me == null
      ? []
      : [
          ...(without || search.data === undefined ? findKept(client, asked) : search.data.found.map(lineOf)),
          ...findPlaces(screens, me.person.role, asked),
        ];
  const recent = me == null || asked !== '' ? [] : recentOf(me.person.id);
  const heaps = groupOrder.flatMap((heading) => {
    const here = lines.filter((l) => l.group === heading);
    return here.length === 0 ? [] : [{ heading, here }];
  });
  // Enter takes the first unless somebody has gone on to another that is still there, however often the lines have changed meanwhile
  const there = asked === '' ? recent.map((r) => r.to) : heaps.flatMap(({ here }) => here.map((l) => l.key));
  const [picked, setPicked] = useState('');
  return (
    <Dialog title="Find" onClose={close}>
      <Command
        label="Find"
        shouldFilter={false}
        loop
        value={there.includes(picked) ? picked : (there[0] ?? '')}
        onValueChange={setPicked}
        className="grid gap-2"
      >
        <Command.Input
          autoFocus
          value={text}
          onValueChange={setText}
          placeholder="A name, or the code on a label"
          className="h-14 w-full rounded-plate border-[1.5px] border-ink bg-white px-4 text-lg"
        />
        {without && (
          <p role="status" className="text-[14px] text-ink-soft">
            The server cannot be reached: this is what the tablet has read.
          </p>
        )}
        <Command.List className="h-[48vh] overflow-y-auto" aria-label="Found">
          {asked === '' && recent.length === 0 && (
            <p className="p-3 text-ink-soft">
              Lots, animals, batches, deliveries, plans, recipes, suppliers, people, screens and settings.
            </p>
          )}
          {asked === '' && recent.length > 0 && (
            <Command.Group
              heading="Opened last"
              className="[&>[cmdk-group-heading]]:px-3 [&>[cmdk-group-heading]]:text-[13px]"
            >
              {recent.map((r) => (
                <FoundLine
                  key={r.to}
                  line={{ key: r.to, group: '', to: r.to, name: r.name, about: r.room, open: true }}
                  go={go}
                />
              ))}
            </Command.Group>
          )}
          {asked !== '' && !search.isFetching && lines.length === 0 && (
            <p role="status" className="p-3">
              {misread(asked)
                ? `No lot has the code ${codeTyped(asked)}: its letter does not fit its figures. Look again.`
                : `Nothing is called ${asked}.`}
            </p>
          )}
          {heaps.map(({ heading, here }) => (
            <Command.Group
              key={heading}
              heading={heading}
              className="[&>[cmdk-group-heading]]:px-3 [&>[cmdk-group-heading]]:pt-2 [&>[cmdk-group-heading]]:text-[13px] [&>[cmdk-group-heading]]:text-ink-soft"
            >
              {here.map((l) => (
                <FoundLine key={l.key} line={l} go={go} />
              ))}
            </Command.Group>
          ))}
        </Command.List>
      </Command>
      <button type="button" className="mt-2 min-h-11 text-[15px] underline" onClick={keys}>
        Keys of this screen
      </button>
    </Dialog>
  );
}
