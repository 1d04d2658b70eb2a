import { looksLikeUse, readRecipe, type Use } from '@zabrik/core';
import { useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { Button } from '../../kit/Button.tsx';
import { blankUse } from './useDraft.ts';

const MOST = 2_000_000;

/** Reads a use out of a file: our JSON, or a schema.org Recipe. What lacks is left to be filled in. */
function readUseFile(text: string): { readonly use: Use } | { readonly refused: string } {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    return { refused: 'This is not JSON.' };
  }
  if (looksLikeUse(json)) return { use: json };
  const recipe = readRecipe(json);
  if (recipe === undefined) return { refused: 'There is no use and no schema.org Recipe in this file.' };
  if (looksLikeUse(recipe.whole)) return { use: recipe.whole };
  if (recipe.name === '' || recipe.steps.length === 0) return { refused: 'This Recipe has no name or no steps.' };
  return { use: blankUse(recipe) };
}

/** A use from a file, or a new one. */
export function UseFiles() {
  const file = useRef<HTMLInputElement>(null);
  const navigate = useNavigate();
  const [refused, setRefused] = useState<string>();
  const open = (use: Use): void => {
    void navigate(`/pots/uses/${use.id}`, { state: { draft: use } });
  };
  return (
    <div className="ml-auto flex flex-wrap items-center gap-2 pb-2">
      {refused !== undefined && (
        <span role="alert" className="text-[14px] text-alarm">
          {refused}
        </span>
      )}
      <input
        ref={file}
        type="file"
        accept="application/json,.json,.jsonld"
        className="sr-only"
        tabIndex={-1}
        aria-label="File of a use or a Recipe"
        onChange={async (event) => {
          const chosen = event.target.files?.[0];
          event.target.value = '';
          if (chosen === undefined) return;
          if (chosen.size > MOST) {
            setRefused('This file is larger than 2 MB. A recipe is not.');
            return;
          }
          const read = readUseFile(await chosen.text());
          if ('refused' in read) setRefused(read.refused);
          else open(read.use);
        }}
      />
      <Button onClick={() => file.current?.click()}>From a file</Button>
      <Button onClick={() => open(blankUse())}>A new one</Button>
    </div>
  );
}
