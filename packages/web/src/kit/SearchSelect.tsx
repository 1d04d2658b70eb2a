import { Command } from 'cmdk';
import { useState } from 'react';

export interface Found {
  readonly id: string;
  readonly name: string;
  /** What it is of, beside its name. */
  readonly group: string;
  /** Another name by which it is looked for. */
  readonly also?: string;
}

interface Props {
  /** What is chosen, for those who hear it. */
  readonly label: string;
  readonly placeholder: string;
  /** Where nothing fits what is typed. */
  readonly none: string;
  readonly options: readonly Found[];
  readonly chosen: string;
  readonly onChoose: (id: string) => void;
  readonly error?: string | undefined;
}

/** One of many, found by typing a part of a name; arrows and Enter, or a touch. Chosen, it is one line with a way back to the list. */
export function SearchSelect({ label, placeholder, none, options, chosen, onChoose, error }: Props) {
  const [open, setOpen] = useState(false);
  const picked = options.find((o) => o.id === chosen);
  if (picked !== undefined && !open)
    return (
      <button
        type="button"
        onClick={() => setOpen(true)}
        className="flex min-h-14 w-full items-center justify-between rounded-plate border-[1.5px] border-ink bg-white px-4 text-left"
        aria-label={`${picked.name}. Change the ${label.toLowerCase()}`}
      >
        <span>
          <span className="figure block text-xl leading-tight">{picked.name}</span>
          <span className={`text-[14px] text-ink-soft ${picked.also === undefined ? '' : 'italic'}`}>
            {picked.also ?? picked.group}
          </span>
        </span>
        <span className="underline">change</span>
      </button>
    );
  return (
    <Command label={label} className="overflow-hidden rounded-plate border-[1.5px] border-line-strong bg-white">
      <Command.Input
        autoFocus={open}
        placeholder={placeholder}
        aria-invalid={error !== undefined}
        className="h-14 w-full border-b border-line px-4 text-lg outline-offset-[-3px]"
      />
      <Command.List className="h-[184px] overflow-y-auto p-1.5">
        <Command.Empty className="p-4 text-ink-soft">{none}</Command.Empty>
        {options.map((o) => (
          <Command.Item
            key={o.id}
            value={o.id}
            keywords={[o.name, o.also ?? '', o.group]}
            onSelect={() => {
              onChoose(o.id);
              setOpen(false);
            }}
            className="flex min-h-11 cursor-pointer items-center justify-between rounded-md px-3 data-[selected=true]:bg-flow data-[selected=true]:text-white"
          >
            <span className="font-semibold">{o.name}</span>
            <span className="text-[13px] opacity-80">{o.group}</span>
          </Command.Item>
        ))}
      </Command.List>
    </Command>
  );
}
