/** What of a lot is free, beside its row `b` of lot_balance: something is left while there is mass, and nothing when there is none. */
export const FREE_MG = 'greatest(0, b.mass_mg - b.reserved_mg)';
export const FREE_PIECES =
  'case when b.mass_mg > b.reserved_mg then greatest(1, b.pieces - b.reserved_pieces) else 0 end';
export const FREE = `${FREE_MG} as "freeMg", ${FREE_PIECES} as "freePieces"`;
