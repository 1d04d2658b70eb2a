import { formatCount } from '@zabrik/core';
/** 14.2 MB; what is small is said in kB. */
export const sizeWords = (bytes: number): string =>
  bytes < 1_000_000 ? `${Math.ceil(bytes / 1_000)} kB` : `${formatCount(bytes / 1_000_000, 1)} MB`;
