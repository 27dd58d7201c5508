/** Values at which a cubic Bézier of one direction turns within its length, where its slope is nothing: roots of a quadratic. */
export function cubicTurns([p0, p1, p2, p3]: readonly [number, number, number, number]): number[] {
  const [a, b, c] = [-p0 + 3 * p1 - 3 * p2 + p3, 2 * (p0 - 2 * p1 + p2), p1 - p0];
  const at = (t: number): number => {
    const u = 1 - t;
    return u * u * u * p0 + 3 * u * u * t * p1 + 3 * u * t * t * p2 + t * t * t * p3;
  };
  const root = Math.sqrt(b * b - 4 * a * c);
  const times = Math.abs(a) < 1e-12 ? [-c / b] : [(-b + root) / (2 * a), (-b - root) / (2 * a)];
  return times.filter((t) => t > 0 && t < 1).map(at);
}
