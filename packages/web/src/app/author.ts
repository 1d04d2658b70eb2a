/** Whose work a command is: it goes out under this person's sign-in or waits. */
export interface Author {
  readonly personId: string;
  readonly name: string;
  readonly houseId: string;
}

let author: Author | undefined;

/** Who is at work on this tablet now. */
export const authorNow = (): Author | undefined => author;

/** Answers whether it is someone else than before. */
export function setAuthor(now: Author | undefined): boolean {
  if (now?.personId === author?.personId) return false;
  author = now;
  return true;
}
