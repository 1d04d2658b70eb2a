/** Answers to commands are kept for thirty days, their keys for good: a repeat later than that is told that it was done, not what came of it. */
export const answersThinned = {
  name: '0020-answers-thinned',
  up: `
alter table command alter column answer drop not null;
create index command_with_answer on command (at) where answer is not null;`,
} as const;
