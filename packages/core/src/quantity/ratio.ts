/** "47.4 %" from 0.474. Shares live as 0..1 everywhere; per cent exists only where a person reads it. */
export const formatShare = (share: number, decimals = 1): string => `${(share * 100).toFixed(decimals)} %`;
