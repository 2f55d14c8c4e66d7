/**
 * A function that works something out once for each object and finds it again afterwards. What it is
 * given must never change, as a state never does, so that nothing it keeps grows stale.
 *
 * @example
 * onceFor((spec: { links: number }) => spec.links * 2)({ links: 72 }) // 144
 */
export function onceFor<K extends object, V>(work: (key: K) => V): (key: K) => V {
  const kept = new WeakMap<K, { readonly value: V }>()
  return (key) => {
    const before = kept.get(key)
    if (before !== undefined) return before.value
    const value = work(key)
    kept.set(key, { value })
    return value
  }
}
