/**
 * Groups of nodes that lead to one another, each after the groups it leads to: what must be calculated together, in an
 * order that works (Tarjan 1972). For small graphs: it calls itself once a node.
 */
export function stronglyConnected<N>(nodes: readonly N[], leadsTo: (node: N) => readonly N[]): N[][] {
  const groups: N[][] = [];
  const indexes = new Map<N, number>();
  const lows = new Map<N, number>();
  const open: N[] = [];
  const visit = (node: N): void => {
    const index = indexes.size;
    indexes.set(node, index);
    lows.set(node, index);
    open.push(node);
    for (const next of leadsTo(node)) {
      if (!indexes.has(next)) visit(next);
      if (open.includes(next)) lows.set(node, Math.min(lows.get(node)!, lows.get(next)!));
    }
    if (lows.get(node) === index) groups.push(open.splice(open.indexOf(node)));
  };
  for (const node of nodes) if (!indexes.has(node)) visit(node);
  return groups;
}
