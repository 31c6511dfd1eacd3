/** That `child` may hang on `parent`, and how much speaks for it. */
export interface Arc {
  readonly parent: number;
  readonly child: number;
  readonly weight: number;
}

/**
 * The tree under `root` over everything that arcs lead to from there, whose arcs weigh most together: one arc for each node
 * in it but the root. Of arcs that weigh the same the earlier counts.
 *
 * Chu and Liu 1965, Edmonds 1967, “Optimum branchings”: each node takes its heaviest arc; a cycle of such becomes one node,
 * into which an arc counts by what it is worth more than the one that it would replace.
 */
export function heaviestTree<A extends Arc>(nodes: number, root: number, arcs: readonly A[]): A[] {
  const reached = new Set([root]);
  // A set gives what is added while it is gone through, too.
  for (const node of reached) for (const a of arcs) if (a.parent === node) reached.add(a.child);
  return treeOver(
    nodes,
    root,
    arcs.filter((a) => reached.has(a.parent) && a.child !== root),
  );
}

function treeOver<A extends Arc>(nodes: number, root: number, arcs: readonly A[]): A[] {
  const best = new Map<number, A>();
  for (const a of arcs) if (a.weight > (best.get(a.child)?.weight ?? -Infinity)) best.set(a.child, a);
  const cycle = cycleOf(best, root);
  if (!cycle) return [...best.values()];
  const over = (node: number): number => (cycle.has(node) ? nodes : node);
  const tree = treeOver(
    nodes + 1,
    root,
    arcs
      .filter((a) => over(a.parent) !== over(a.child))
      .map((of) => ({
        parent: over(of.parent),
        child: over(of.child),
        weight: of.weight - (cycle.has(of.child) ? best.get(of.child)!.weight : 0),
        of,
      })),
  ).map((a) => a.of);
  const entered = new Set(tree.map((a) => a.child));
  return [...tree, ...[...cycle].filter((node) => !entered.has(node)).map((node) => best.get(node)!)];
}

/** Nodes that hang on one another in a ring; null when all lead to the root. */
function cycleOf(best: ReadonlyMap<number, Arc>, root: number): ReadonlySet<number> | null {
  const fine = new Set([root]);
  for (const start of best.keys()) {
    const path = new Set<number>();
    let node = start;
    for (; !fine.has(node) && !path.has(node); node = best.get(node)!.parent) path.add(node);
    if (path.has(node)) {
      const ring = [...path];
      return new Set(ring.slice(ring.indexOf(node)));
    }
    path.forEach((n) => fine.add(n));
  }
  return null;
}
