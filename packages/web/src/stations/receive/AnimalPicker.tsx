import type { Species } from '@zabrik/core';
import { Command } from 'cmdk';
import { useState } from 'react';

interface Goods {
  readonly id: string;
  readonly name: string;
  readonly group: string;
}

interface Props {
  readonly species: readonly Species[];
  readonly goods: readonly Goods[];
  /** The id of an animal or of goods. */
  readonly chosen: string;
  readonly onChoose: (id: string, what: 'species' | 'goods') => void;
  readonly error: string | undefined;
}

const groupNames: Readonly<Record<string, string>> = {
  'round-fish': 'round fish',
  flatfish: 'flatfish',
  'large-pelagic': 'large loins',
  crustacean: 'crustacean',
  mollusc: 'mollusc',
  poultry: 'poultry',
  'feathered-game': 'feathered game',
  'furred-game': 'furred game',
  'farmed-meat': 'meat',
  vegetable: 'vegetable',
  herb: 'herb',
  dairy: 'dairy',
  dry: 'dry goods',
  'bought-stock': 'bought-in stock',
};

/** Searchable list of every animal the catalogue knows, by its kitchen or scientific name, and of what else a kitchen buys. */
export function AnimalPicker({ species, goods, chosen, onChoose, error }: Props) {
  const [open, setOpen] = useState(false);
  const picked = species.find((s) => s.id === chosen) ?? goods.find((g) => g.id === chosen);
  if (picked !== undefined && !open)
    return (
      <button
        type="button"
        onClick={() => setOpen(true)}
        className="flex min-h-14 w-full items-center justify-between rounded-plate border-[1.5px] border-ink bg-white px-4 text-left"
        aria-label={`${picked.name}. Change the animal`}
      >
        <span>
          <span className="figure block text-xl leading-tight">{picked.name}</span>
          {'scientific' in picked && typeof picked.scientific === 'string' ? (
            <span className="text-[14px] text-ink-soft italic">{picked.scientific}</span>
          ) : (
            <span className="text-[14px] text-ink-soft">{groupNames[picked.group] ?? picked.group}</span>
          )}
        </span>
        <span className="underline">change</span>
      </button>
    );
  return (
    <Command label="Animal" className="overflow-hidden rounded-plate border-[1.5px] border-line-strong bg-white">
      <Command.Input
        autoFocus={open}
        placeholder="Animal: type hake, plaice, guinea…"
        aria-invalid={error !== undefined}
        className="h-14 w-full border-b border-line px-4 text-lg outline-offset-[-3px]"
      />
      <Command.List className="h-[184px] overflow-y-auto p-1.5">
        <Command.Empty className="p-4 text-ink-soft">No such animal in the catalogue.</Command.Empty>
        {[...species]
          .sort((a, b) => a.name.localeCompare(b.name))
          .map((s) => (
            <Command.Item
              key={s.id}
              value={s.id}
              keywords={[s.name, s.scientific, groupNames[s.group] ?? s.group]}
              onSelect={() => {
                onChoose(s.id, 'species');
                setOpen(false);
              }}
              className="flex min-h-11 cursor-pointer items-center justify-between rounded-md px-3 data-[selected=true]:bg-flow data-[selected=true]:text-white"
            >
              <span className="font-semibold">{s.name}</span>
              <span className="text-[13px] opacity-80">{groupNames[s.group] ?? s.group}</span>
            </Command.Item>
          ))}
        {goods.map((g) => (
          <Command.Item
            key={g.id}
            value={g.id}
            keywords={[g.name, groupNames[g.group] ?? g.group]}
            onSelect={() => {
              onChoose(g.id, 'goods');
              setOpen(false);
            }}
            className="flex min-h-11 cursor-pointer items-center justify-between rounded-md px-3 data-[selected=true]:bg-flow data-[selected=true]:text-white"
          >
            <span className="font-semibold">{g.name}</span>
            <span className="text-[13px] opacity-80">{groupNames[g.group] ?? g.group}</span>
          </Command.Item>
        ))}
      </Command.List>
    </Command>
  );
}
