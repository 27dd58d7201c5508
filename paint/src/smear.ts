import { drawSheet, type Sheet } from './brush';
import type { Surfaces } from './surfaces';

/** Passes of a streak at most: each doubles how many copies are laid over each other. */
const MOST_PASSES = 8;

/** Smears what is drawn evenly along a way on the screen, in place: copies are laid over each other, twice as many each pass. */
export function smear(surfaces: Surfaces, sheet: Sheet, x: number, y: number): void {
  const passes = Math.min(MOST_PASSES, Math.max(1, Math.ceil(Math.log2(Math.hypot(x, y)))));
  const { width, height } = sheet.patch;
  const other: Sheet = { context: surfaces.take(width, height), patch: sheet.patch };
  const copy = (dx: number, dy: number): void =>
    other.context.drawImage(sheet.context.canvas, 0, 0, width, height, dx, dy, width, height);
  for (let pass = 1; pass <= passes; pass++) {
    const [dx, dy] = [x / 2 ** (pass + 1), y / 2 ** (pass + 1)];
    other.context.clearRect(0, 0, width, height);
    other.context.globalAlpha = 0.5;
    other.context.globalCompositeOperation = 'lighter';
    copy(-dx, -dy);
    copy(dx, dy);
    other.context.globalAlpha = 1;
    other.context.globalCompositeOperation = 'source-over';
    sheet.context.setTransform(1, 0, 0, 1, 0, 0);
    sheet.context.clearRect(0, 0, width, height);
    drawSheet(sheet, other);
  }
  surfaces.give(other.context);
}
