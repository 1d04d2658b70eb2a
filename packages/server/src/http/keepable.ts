import { Problem } from './problem.ts';

/** A lone half of a surrogate pair or a NUL: text that neither the database nor a label can hold. */
const cannotBeKept = (text: string): boolean => text.includes('\0') || /\p{Surrogate}/u.test(text);

/** How deep a request may be nested: none of the contract's is deeper than six. */
const DEEPEST = 32;

/** Refuses what no layer below can keep, wherever in a request it stands. Errors: `invalid`, naming the field. */
export function mustBeKeepable(value: unknown, path = '', depth = 0): void {
  if (typeof value === 'string') {
    if (cannotBeKept(value))
      throw new Problem('invalid', 'There is a character in it that cannot be written down.', [
        { path, message: 'half a character, or none' },
      ]);
    return;
  }
  if (typeof value !== 'object' || value === null) return;
  if (depth > DEEPEST) throw new Problem('invalid', 'The request is nested too deep.');
  for (const [name, inner] of Object.entries(value)) {
    mustBeKeepable(name, path, depth + 1);
    mustBeKeepable(inner, path === '' ? name : `${path}.${name}`, depth + 1);
  }
}
