/** A `Map` or a `WeakMap`. */
interface Known<Key, Made> {
  has(key: Key): boolean;
  get(key: Key): Made | undefined;
  set(key: Key, made: Made): unknown;
}

/** What is known under a key; made where nothing is. */
export function once<Key, Made>(known: Known<Key, Made>, key: Key, make: () => Made): Made {
  if (!known.has(key)) known.set(key, make());
  return known.get(key)!;
}

/** Work that hangs on nothing but something that never changes: done once for as long as that lives. */
export function onceFor<Of extends object, Made>(work: (of: Of) => Made): (of: Of) => Made {
  const known = new WeakMap<Of, { readonly made: Made }>();
  return (of) => {
    const entry = known.get(of) ?? { made: work(of) };
    known.set(of, entry);
    return entry.made;
  };
}

/** Puts something last and lets the oldest go where there are more than so many; gives what was let go. */
export function putLast<Key, Value>(map: Map<Key, Value>, key: Key, value: Value, most: number): [Key, Value][] {
  map.delete(key);
  map.set(key, value);
  const dropped = [...map].slice(0, Math.max(0, map.size - most));
  for (const [oldest] of dropped) map.delete(oldest);
  return dropped;
}

/**
 * Work that hangs on nothing but plain data: done once for the same data, asked again or not. What was asked for last is kept.
 *
 * @param most answers kept
 */
export function onceForSame<Asked extends readonly unknown[], Made>(
  most: number,
  work: (...asked: Asked) => Made,
): (...asked: Asked) => Made {
  const known = new Map<string, { readonly made: Made }>();
  return (...asked) => {
    const key = JSON.stringify(asked);
    const entry = known.get(key) ?? { made: work(...asked) };
    putLast(known, key, entry, most);
    return entry.made;
  };
}
