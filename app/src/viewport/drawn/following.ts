/**
 * Things made of values, each handed on to the value that comes in its place: the mesh of a part to the part after a stroke,
 * the colours of a palette to the palette after a change. Which value follows which is only a hint, by name: whoever is
 * handed on has to compare.
 */
export class Following<K extends object, V> {
  private readonly known = new Map<K, { readonly name: string; readonly value: V }>();

  constructor(
    private readonly make: (key: K) => V,
    private readonly follow: (value: V, key: K) => void,
    private readonly drop: (value: V) => void,
  ) {}

  get(key: K): V {
    return this.known.get(key)!.value;
  }

  has(key: K): boolean {
    return this.known.has(key);
  }

  values(): V[] {
    return [...this.known.values()].map((k) => k.value);
  }

  /**
   * Sees that there is something for each key of `wanted`, taking over what nobody uses any more before it makes it, and
   * lets go of the rest.
   *
   * @param wanted – keys that come in, with their names
   * @param used – what is in use by keys that stay
   */
  keep(wanted: ReadonlyMap<K, string>, used: ReadonlySet<V>): void {
    const free = new Map<string, [K, V][]>();
    for (const [key, { name, value }] of this.known) {
      if (used.has(value) || wanted.has(key)) continue;
      const list = free.get(name);
      if (list) list.push([key, value]);
      else free.set(name, [[key, value]]);
    }
    for (const [key, name] of wanted) {
      if (this.known.has(key)) continue;
      const heir = free.get(name)?.pop();
      if (heir) {
        this.known.delete(heir[0]);
        this.follow(heir[1], key);
      }
      this.known.set(key, { name, value: heir ? heir[1] : this.make(key) });
    }
    for (const [key, value] of [...free.values()].flat()) {
      this.known.delete(key);
      this.drop(value);
    }
  }

  clear(): void {
    for (const { value } of this.known.values()) this.drop(value);
    this.known.clear();
  }
}
