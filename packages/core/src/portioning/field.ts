/** A quantity along a piece that is only known roughly: a mean and a covariance at equally spaced nodes, learnt from what is weighed. */
export interface Field {
  readonly mean: readonly number[];
  /** Row by row, nodes x nodes. */
  readonly covariance: readonly number[];
}

/**
 * Zero mean, standard deviation `sd` everywhere, and neighbours alike within `reach` (share of the length).
 * Source  squared exponential covariance, Rasmussen & Williams, Gaussian Processes for Machine Learning (2006), eq. 2.31.
 */
export function smoothField(nodes: number, sd: number, reach: number): Field {
  const covariance = Array.from({ length: nodes * nodes }, (_, k) => {
    const apart = (Math.floor(k / nodes) - (k % nodes)) / (nodes - 1) / reach;
    return sd * sd * Math.exp(-0.5 * apart * apart);
  });
  return { mean: new Array<number>(nodes).fill(0), covariance };
}

const timesCovariance = (field: Field, weights: readonly number[]): number[] => {
  const n = weights.length;
  return weights.map((_, i) => {
    let sum = 0;
    for (let j = 0; j < n; j += 1) sum += (field.covariance[i * n + j] ?? 0) * (weights[j] ?? 0);
    return sum;
  });
};
const dot = (a: readonly number[], b: readonly number[]): number => a.reduce((sum, v, i) => sum + v * (b[i] ?? 0), 0);

/** The variance of a weighted sum of the field. */
export const varianceOf = (field: Field, weights: readonly number[]): number =>
  Math.max(0, dot(weights, timesCovariance(field, weights)));
export const meanOf = (field: Field, weights: readonly number[]): number => dot(field.mean, weights);

/**
 * What is known once a weighted sum of the field was seen.
 *
 * Shapes  weights: one a node.
 * Source  the scalar measurement update of a Kalman filter (Joseph's form keeps the covariance symmetric); any text on estimation.
 */
export function observe(field: Field, weights: readonly number[], value: number, noiseVariance: number): Field {
  const n = weights.length;
  const spread = timesCovariance(field, weights);
  const variance = dot(weights, spread) + noiseVariance;
  if (variance <= 0) return field;
  const surprise = (value - dot(field.mean, weights)) / variance;
  return {
    mean: field.mean.map((m, i) => m + (spread[i] ?? 0) * surprise),
    covariance: field.covariance.map(
      (c, k) => c - ((spread[Math.floor(k / n)] ?? 0) * (spread[k % n] ?? 0)) / variance,
    ),
  };
}

/** Two independent fields added. */
export const addFields = (a: Field, b: Field): Field => ({
  mean: a.mean.map((m, i) => m + (b.mean[i] ?? 0)),
  covariance: a.covariance.map((c, k) => c + (b.covariance[k] ?? 0)),
});

/** How much a place on the length (0..1) leans on each node. */
export function nodeWeights(nodes: number, share: number): number[] {
  const at = Math.min(Math.max(share, 0), 1) * (nodes - 1);
  const i = Math.min(Math.floor(at), nodes - 2);
  const weights = new Array<number>(nodes).fill(0);
  weights[i] = 1 - (at - i);
  weights[i + 1] = at - i;
  return weights;
}
