import { seededRandom } from '../num/random';
import { deltaOk, type Oklab } from './space';

/** The middle of a cluster and the share of all points in it. */
export type Cluster = { centre: Oklab; share: number };

const ROUNDS = 60;
const STARTS = 12;

/**
 * k-means in OKLab: Lloyd's algorithm from k-means++ starts (Arthur and Vassilvitskii 2007), the best of several, the
 * same for the same seed. Answers at most `k` clusters, largest first; fewer where there are fewer different points.
 */
export function clusterColours(
  points: readonly Oklab[],
  k: number,
  { seed = 1, starts = STARTS, rounds = ROUNDS } = {},
): Cluster[] {
  if (points.length === 0 || k < 1) return [];
  const random = seededRandom(seed);
  let best: { centres: Oklab[]; owners: number[]; cost: number } | null = null;
  for (let start = 0; start < starts; start += 1) {
    const found = lloyd(points, spread(points, k, random), rounds);
    if (!best || found.cost < best.cost - 1e-12) best = found;
  }
  const { centres, owners } = best as NonNullable<typeof best>;
  const counts = centres.map((_, index) => owners.filter((owner) => owner === index).length);
  return centres
    .map((centre, index) => ({ centre, share: counts[index]! / points.length }))
    .filter((cluster) => cluster.share > 0)
    .sort((one, other) => other.share - one.share);
}

/** The sum of squared distances of points to the nearest of `centres`: what k-means makes small. */
export function clusterCost(points: readonly Oklab[], centres: readonly Oklab[]): number {
  return points.reduce((sum, point) => sum + nearest(point, centres).squared, 0);
}

/** Starting centres: each next one is drawn with a chance that grows with its squared distance to those before. */
function spread(points: readonly Oklab[], k: number, random: () => number): Oklab[] {
  const centres = [points[Math.floor(random() * points.length)]!];
  while (centres.length < k) {
    const weights = points.map((point) => nearest(point, centres).squared);
    const total = weights.reduce((sum, weight) => sum + weight, 0);
    if (total <= 1e-15) break;
    let left = random() * total;
    const index = weights.findIndex((weight) => (left -= weight) <= 0);
    centres.push(points[index < 0 ? points.length - 1 : index]!);
  }
  return centres;
}

function lloyd(
  points: readonly Oklab[],
  start: Oklab[],
  rounds: number,
): { centres: Oklab[]; owners: number[]; cost: number } {
  let centres = start;
  let owners: number[] = [];
  for (let round = 0; round < rounds; round += 1) {
    const next = points.map((point) => nearest(point, centres).index);
    const settled = next.every((owner, index) => owner === owners[index]);
    owners = next;
    if (settled) break;
    centres = centres.map((centre, index) => mean(points.filter((_, at) => owners[at] === index)) ?? centre);
  }
  return { centres, owners, cost: clusterCost(points, centres) };
}

function nearest(point: Oklab, centres: readonly Oklab[]): { index: number; squared: number } {
  let found = { index: 0, squared: Number.POSITIVE_INFINITY };
  centres.forEach((centre, index) => {
    const squared = deltaOk(point, centre) ** 2;
    if (squared < found.squared) found = { index, squared };
  });
  return found;
}

function mean(points: readonly Oklab[]): Oklab | null {
  if (points.length === 0) return null;
  const sum = points.reduce((so, { l, a, b }) => ({ l: so.l + l, a: so.a + a, b: so.b + b }), {
    l: 0,
    a: 0,
    b: 0,
  });
  return { l: sum.l / points.length, a: sum.a / points.length, b: sum.b / points.length };
}
