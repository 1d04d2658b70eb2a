/**
 * Names in addresses and bodies until 30 November 2026, and what they are called now: what a tablet has kept since before is sent in the new ones, and
 * the server understands the old. To be taken out when no tablet can be that old.
 */
const namesNow: Readonly<Record<string, string>> = { runId: 'batchId', useId: 'recipeId', nod: 'confirmed' };

/** The same fields, called as they are now. A field that is there under both names stays as it is: nobody's app says both. */
export const inNamesOfNow = (fields: object): Record<string, unknown> =>
  Object.fromEntries(
    Object.entries(fields).map(([name, value]) => {
      const now = Object.hasOwn(namesNow, name) ? namesNow[name] : undefined;
      return [now === undefined || Object.hasOwn(fields, now) ? name : now, value];
    }),
  );
