/** The words of a search, each to be found by itself: in lower case, without marks that stand alone. */
export const wordsOf = (text: string): string[] =>
  text
    .toLowerCase()
    .split(/[\s,;]+/)
    .filter((word) => /[\p{L}\p{N}]/u.test(word));

/** As many of each kind as a search shows at most. */
export const FOUND_OF_A_KIND = 8;
