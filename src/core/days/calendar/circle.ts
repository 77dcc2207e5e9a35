/** Something that needs another before it. */
export interface Need {
  readonly stepId: string;
  readonly needsId: string;
}

/** Steps that need each other in a circle, each needed by the one behind it; undefined where there is none. */
export function circleOf(needs: readonly Need[]): readonly string[] | undefined {
  const next = new Map<string, string[]>();
  for (const { stepId, needsId } of needs) next.set(needsId, [...(next.get(needsId) ?? []), stepId]);
  const clear = new Set<string>();
  const follow = (id: string, way: readonly string[]): readonly string[] | undefined => {
    if (way.includes(id)) return way.slice(way.indexOf(id));
    if (clear.has(id)) return undefined;
    for (const after of next.get(id) ?? []) {
      const circle = follow(after, [...way, id]);
      if (circle) return circle;
    }
    clear.add(id);
    return undefined;
  };
  for (const id of next.keys()) {
    const circle = follow(id, []);
    if (circle) return circle;
  }
  return undefined;
}
