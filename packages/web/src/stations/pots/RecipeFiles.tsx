import { looksLikeOurs, type Recipe, readRecipe } from '@zabrik/core';
import { useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { Button } from '../../kit/Button.tsx';
import { blankRecipe } from './blankRecipe.ts';

const MOST = 2_000_000;

/** Reads a recipe out of a file: our JSON, or a schema.org Recipe. What lacks is left to be filled in. */
function readRecipeFile(text: string): { readonly recipe: Recipe } | { readonly refused: string } {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    return { refused: 'This is not JSON.' };
  }
  if (looksLikeOurs(json)) return { recipe: json };
  const read = readRecipe(json);
  if (read === undefined) return { refused: 'There is no recipe and no schema.org Recipe in this file.' };
  if (looksLikeOurs(read.whole)) return { recipe: read.whole };
  if (read.name === '' || read.steps.length === 0) return { refused: 'This Recipe has no name or no steps.' };
  return { recipe: blankRecipe(read) };
}

/** A recipe from a file, or a new one. */
export function RecipeFiles() {
  const file = useRef<HTMLInputElement>(null);
  const navigate = useNavigate();
  const [refused, setRefused] = useState<string>();
  const open = (recipe: Recipe): void => {
    void navigate(`/pots/recipes/${recipe.id}`, { state: { draft: recipe } });
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
        aria-label="File of a recipe"
        onChange={async (event) => {
          const chosen = event.target.files?.[0];
          event.target.value = '';
          if (chosen === undefined) return;
          if (chosen.size > MOST) {
            setRefused('This file is larger than 2 MB. A recipe is not.');
            return;
          }
          const read = readRecipeFile(await chosen.text());
          if ('refused' in read) setRefused(read.refused);
          else open(read.recipe);
        }}
      />
      <Button onClick={() => file.current?.click()}>From a file</Button>
      <Button onClick={() => open(blankRecipe())}>A new one</Button>
    </div>
  );
}
