import { FINE } from './soup';

/**
 * Visits every cell whose inside a triangle goes through; one that it only touches from outside is none. By the thirteen directions in
 * which a box and a triangle can be told apart (Akenine-Möller 2001), in whole numbers.
 *
 * @param p – nine whole numbers, the triangle's corners on the lattice
 * @param size – cells of the box that is looked at
 */
export function crossed(
  p: ArrayLike<number>,
  size: readonly [number, number, number],
  visit: (x: number, y: number, z: number) => void,
): void {
  const lo = [0, 0, 0],
    hi = [0, 0, 0];
  for (let a = 0; a < 3; a++) {
    const least = Math.min(p[a]!, p[3 + a]!, p[6 + a]!),
      most = Math.max(p[a]!, p[3 + a]!, p[6 + a]!);
    lo[a] = Math.max(0, Math.floor(least / FINE));
    hi[a] = Math.min(size[a]! - 1, least === most ? Math.floor(most / FINE) : Math.ceil(most / FINE) - 1);
    // Flat on the rim between two cells it is in neither.
    if (least === most && least % FINE === 0) return;
  }
  const e = [0, 3, 6].map((i, k) => {
    const j = [3, 6, 0][k]!;
    return [p[j]! - p[i]!, p[j + 1]! - p[i + 1]!, p[j + 2]! - p[i + 2]!] as const;
  });
  const n = [
    e[0]![1] * e[1]![2] - e[0]![2] * e[1]![1],
    e[0]![2] * e[1]![0] - e[0]![0] * e[1]![2],
    e[0]![0] * e[1]![1] - e[0]![1] * e[1]![0],
  ];
  const reach = FINE * (Math.abs(n[0]!) + Math.abs(n[1]!) + Math.abs(n[2]!));
  // For each edge and axis the direction across both: what the triangle and a cell take up along it.
  const tests: number[][] = [];
  for (const d of e)
    for (let a = 0; a < 3; a++) {
      const [u, v] = [(a + 1) % 3, (a + 2) % 3];
      const [fu, fv] = [-d[v]!, d[u]!];
      const at = [0, 3, 6].map((i) => fu * p[i + u]! + fv * p[i + v]!);
      const least = Math.min(...at),
        most = Math.max(...at);
      tests.push([
        u,
        v,
        fu,
        fv,
        least - FINE * (Math.max(0, fu) + Math.max(0, fv)),
        most - FINE * (Math.min(0, fu) + Math.min(0, fv)),
      ]);
    }
  // Through the columns of the axis that it faces most.
  const w = [0, 1, 2].reduce((m, a) => (Math.abs(n[a]!) > Math.abs(n[m]!) ? a : m), 0),
    [u, v] = [(w + 1) % 3, (w + 2) % 3];
  const cell = [0, 0, 0],
    nw = n[w]!;
  for (let j = lo[v]!; j <= hi[v]!; j++)
    for (let i = lo[u]!; i <= hi[u]!; i++) {
      cell[u] = i * FINE;
      cell[v] = j * FINE;
      let from = lo[w]!,
        to = hi[w]!;
      if (nw !== 0) {
        // Where its plane is in the column.
        const base = n[u]! * (i * FINE - p[u]!) + n[v]! * (j * FINE - p[v]!);
        const low = base + FINE * (Math.min(0, n[u]!) + Math.min(0, n[v]!)),
          high = base + FINE * (Math.max(0, n[u]!) + Math.max(0, n[v]!));
        const [a, b] = [p[w]! - high / nw, p[w]! - low / nw];
        from = Math.max(from, Math.floor(Math.min(a, b) / FINE) - 1);
        to = Math.min(to, Math.ceil(Math.max(a, b) / FINE) + 1);
      }
      for (let k = from; k <= to; k++) {
        cell[w] = k * FINE;
        const plane = n[0]! * (cell[0]! - p[0]!) + n[1]! * (cell[1]! - p[1]!) + n[2]! * (cell[2]! - p[2]!);
        const under = plane + FINE * (Math.min(0, n[0]!) + Math.min(0, n[1]!) + Math.min(0, n[2]!));
        if (reach > 0 && (under >= 0 || under + reach <= 0)) continue;
        if (
          tests.some(([s, t, fs, ft, least, most]) => apart(fs! * cell[s!]! + ft! * cell[t!]!, fs!, ft!, least!, most!))
        )
          continue;
        visit(cell[0]! / FINE, cell[1]! / FINE, cell[2]! / FINE);
      }
    }
}

/** Whether a cell lies beyond a triangle along a direction; one that is no direction tells nothing. */
const apart = (at: number, fs: number, ft: number, least: number, most: number): boolean =>
  (fs !== 0 || ft !== 0) && (at <= least || at >= most);
