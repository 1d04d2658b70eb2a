import { looksLikeOurs, type Recipe, readRecipe } from '@zabrik/core';
import { useRef, useState } from 'react';
import { useNavigate } from 'react-router';
import { Button } from '../../../kit/Button.tsx';
import { useRecipes } from '../potQueries.ts';
import { blankRecipe } from './blankRecipe.ts';
import { freeId } from './edit.ts';

const MOST = 2_000_000;

/** Photographs stay in the house they were taken in: a file only names them. */
const withoutPhotos = ({ photo: _, steps, ...recipe }: Recipe): Recipe => ({
  ...recipe,
  steps: steps.map(({ photo: __, ...step }) => step),
});

/** Reads a recipe out of a file: our JSON, or a schema.org Recipe. What lacks is left to be filled in. */
function readRecipeFile(
  text: string,
): { readonly recipe: Recipe; readonly ours: boolean } | { readonly refused: string } {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    return { refused: 'This is not JSON.' };
  }
  if (looksLikeOurs(json)) return { recipe: withoutPhotos(json), ours: true };
  const read = readRecipe(json);
  if (read === undefined) return { refused: 'There is no recipe and no schema.org Recipe in this file.' };
  if (looksLikeOurs(read.whole)) return { recipe: withoutPhotos(read.whole), ours: true };
  if (read.name === '' || read.steps.length === 0) return { refused: 'This Recipe has no name or no steps.' };
  return { recipe: blankRecipe(read), ours: false };
}

/** A recipe from a file, or a new one. */
export function RecipeFiles() {
  const file = useRef<HTMLInputElement>(null);
  const navigate = useNavigate();
  const [refused, setRefused] = useState<string>();
  const recipes = useRecipes().data?.recipes ?? [];
  const open = (recipe: Recipe): void => {
    void navigate(`/pots/recipes/${recipe.id}`, { state: { draft: recipe } });
  };
  /** One that is nobody's yet never stands in the place of one that is. */
  const openNew = (recipe: Recipe): void =>
    open({
      ...recipe,
      id: freeId(
        recipe.title,
        recipes.map((r) => r.recipe.id),
      ),
    });
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
          else if (read.ours) open(read.recipe);
          else openNew(read.recipe);
        }}
      />
      <Button onClick={() => file.current?.click()}>From a file</Button>
      <Button onClick={() => openNew(blankRecipe())}>A new one</Button>
    </div>
  );
}
