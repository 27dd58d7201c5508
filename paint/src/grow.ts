/** A pixel counts as part of a shape from half its opacity on, so that seams between its parts do not grow. */
const INSIDE = 128;

/**
 * Rows of the nearest pixel of a shape above or below each pixel, in its own column; −1 where there is none.
 */
function nearestInColumns(alpha: Uint8ClampedArray, width: number, height: number): Int32Array {
  const nearest = new Int32Array(width * height).fill(-1);
  for (let x = 0; x < width; x++) {
    let last = -1;
    for (let y = 0; y < height; y++) {
      if (alpha[y * width + x] >= INSIDE) last = y;
      nearest[y * width + x] = last;
    }
    last = -1;
    for (let y = height - 1; y >= 0; y--) {
      if (alpha[y * width + x] >= INSIDE) last = y;
      const above = nearest[y * width + x];
      if (last >= 0 && (above < 0 || last - y < y - above)) nearest[y * width + x] = last;
    }
  }
  return nearest;
}

/**
 * Opacity of a shape that is so many px larger on all sides (≥ 0), round at its corners; 0…255 by rows, as the shape's own is
 * given. Source: P. Felzenszwalb, D. Huttenlocher, Distance Transforms of Sampled Functions, Theory of Computing 8 (2012),
 * section 2: rows are the lower envelope of the parabolas of their columns. Edges stay as smooth as the nearest pixel is.
 */
export function grownAlpha(alpha: Uint8ClampedArray, width: number, height: number, by: number): Uint8ClampedArray {
  const grown = Uint8ClampedArray.from(alpha);
  const nearest = nearestInColumns(alpha, width, height);
  const columns = new Int32Array(width);
  const starts = new Float64Array(width + 1);
  for (let y = 0; y < height; y++) {
    const row = y * width;
    const away = (x: number): number => (nearest[row + x] - y) ** 2;
    let count = 0;
    for (let x = 0; x < width; x++) {
      if (nearest[row + x] < 0) continue;
      let meets = -Infinity;
      while (count > 0) {
        const before = columns[count - 1];
        meets = (away(x) + x * x - away(before) - before * before) / (2 * (x - before));
        if (meets > starts[count - 1]) break;
        count--;
      }
      columns[count] = x;
      starts[count] = count === 0 ? -Infinity : meets;
      count++;
    }
    if (count === 0) continue;
    starts[count] = Infinity;
    let place = 0;
    for (let x = 0; x < width; x++) {
      while (starts[place + 1] < x) place++;
      const column = columns[place];
      const from = nearest[row + column];
      const distance = Math.sqrt((x - column) ** 2 + (y - from) ** 2);
      const opacity = (by - distance) * 255 + alpha[from * width + column];
      if (opacity > grown[row + x]) grown[row + x] = opacity;
    }
  }
  return grown;
}
