const DAMPING = 0.85;
const CLOSE_ENOUGH = 1e-10;
const MAX_ROUNDS = 200;

/**
 * PageRank over an undirected graph with weights, by the power method: how often a walker is at each node who follows
 * edges by weight and now and then begins again (Brin, Page, The anatomy of a large-scale hypertextual web search
 * engine, 1998). Nodes without edges give what they have to all alike.
 *
 * @param weights symmetric, at least 0, with 0 on the diagonal
 * @returns a share for each node; together 1
 */
export function pageRank(weights: readonly (readonly number[])[]): number[] {
  const count = weights.length;
  const sums = weights.map((row) => row.reduce((sum, weight) => sum + weight, 0));
  let ranks = weights.map(() => 1 / count);
  for (let round = 0; round < MAX_ROUNDS; round++) {
    const stuck = ranks.reduce((sum, rank, at) => (sums[at] === 0 ? sum + rank : sum), 0);
    const base = (1 - DAMPING + DAMPING * stuck) / count;
    const next = weights.map((row) =>
      row.reduce((sum, weight, from) => {
        const of = sums[from] ?? 0;
        return weight === 0 || of === 0 ? sum : sum + DAMPING * (ranks[from] ?? 0) * (weight / of);
      }, base),
    );
    const moved = next.reduce((sum, rank, at) => sum + Math.abs(rank - (ranks[at] ?? 0)), 0);
    ranks = next;
    if (moved < CLOSE_ENOUGH) break;
  }
  return ranks;
}
