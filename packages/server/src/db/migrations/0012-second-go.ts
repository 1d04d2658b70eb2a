/** A weight may be more of a piece that counts already: its other half on another tray, or its second go on the pan. It counts as none. */
export const secondGo = {
  name: '0012-second-go',
  up: `
alter table weighing drop constraint weighing_count_check;
alter table weighing add constraint weighing_count_check check (count >= 0);`,
} as const;
