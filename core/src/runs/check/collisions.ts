import type { Box } from '../../basics/transform';

/** Boxes must reach into each other by this share of the smaller one before it counts. */
const INTO = 0.15;

/** Numbers of one box: left, right, top, bottom. */
const SIDES = 4;

/**
 * Tells which of several layers run into each other though they rest apart, frame by frame. Boxes are kept as columns
 * and swept in the order of their left edges, which hardly changes from one frame to the next; two layers that both
 * have been found are passed over.
 */
export class Collisions {
  private readonly rests: Float64Array;
  private readonly boxes: Float64Array;
  private readonly isIn: Uint8Array;
  private readonly isFound: Uint8Array;
  private readonly order: Int32Array;
  /** For each place in the order, the first place from there on whose layer can be seen and is not found yet; one more at the end. */
  private readonly nextOpen: Int32Array;

  /**
   * @param rests Boxes of the layers as they rest.
   * @param mayMeet False for two layers that are not compared, as one that lies in the other's group.
   */
  constructor(
    rests: readonly Box[],
    private readonly mayMeet: (a: number, b: number) => boolean,
  ) {
    this.rests = new Float64Array(rests.length * SIDES);
    this.boxes = new Float64Array(rests.length * SIDES);
    rests.forEach((box, i) => write(this.rests, i, box));
    this.isIn = new Uint8Array(rests.length);
    this.isFound = new Uint8Array(rests.length);
    this.order = Int32Array.from(rests, (_, i) => i);
    this.nextOpen = new Int32Array(rests.length + 1).fill(rests.length);
  }

  /** Says where a layer is in the frame that is looked at next; null where it cannot be seen. */
  place(index: number, box: Box | null): void {
    this.isIn[index] = box ? 1 : 0;
    if (box) write(this.boxes, index, box);
  }

  /** Compares the layers as they were placed. True when some are found that were not before: `found` has them. */
  look(): boolean {
    const { boxes, isFound, isIn, order, nextOpen } = this;
    this.sort();
    let isNew = false;
    for (let i = 0; i < order.length; i++) {
      const a = order[i];
      if (isIn[a] === 0) continue;
      const right = boxes[a * SIDES + 1];
      const next = (j: number): number => (isFound[a] === 1 ? nextOpen[j + 1] : j + 1);
      for (let j = next(i); j < order.length && boxes[order[j] * SIDES] < right; j = next(j)) {
        const b = order[j];
        if (isIn[b] === 0 || (isFound[a] === 1 && isFound[b] === 1)) continue;
        if (overlap(boxes, a, b) < INTO || overlap(this.rests, a, b) > 0 || !this.mayMeet(a, b)) continue;
        isFound[a] = isFound[b] = 1;
        isNew = true;
      }
    }
    return isNew;
  }

  /** Layers that were found up to now. */
  get found(): readonly number[] {
    return Array.from(this.order.keys()).filter((index) => this.isFound[index] === 1);
  }

  /** By left edge. Nearly sorted as it comes, it takes few steps; what is not seen keeps its last place. */
  private sort(): void {
    const { boxes, order } = this;
    for (let i = 1; i < order.length; i++) {
      const entry = order[i];
      const left = boxes[entry * SIDES];
      let j = i - 1;
      for (; j >= 0 && boxes[order[j] * SIDES] > left; j--) order[j + 1] = order[j];
      order[j + 1] = entry;
    }
    const { isFound, isIn, nextOpen } = this;
    for (let i = order.length - 1; i >= 0; i--) {
      const isOpen = isIn[order[i]] === 1 && isFound[order[i]] === 0;
      nextOpen[i] = isOpen ? i : nextOpen[i + 1];
    }
  }
}

function write(boxes: Float64Array, index: number, { left, right, top, bottom }: Box): void {
  const at = index * SIDES;
  boxes[at] = left;
  boxes[at + 1] = right;
  boxes[at + 2] = top;
  boxes[at + 3] = bottom;
}

/** How far two boxes reach into each other, as a share of the smaller one; 0 where they lie apart. */
function overlap(boxes: Float64Array, a: number, b: number): number {
  const [p, q] = [a * SIDES, b * SIDES];
  const down = Math.min(boxes[p + 3], boxes[q + 3]) - Math.max(boxes[p + 2], boxes[q + 2]);
  if (down <= 0) return 0;
  const across = Math.min(boxes[p + 1], boxes[q + 1]) - Math.max(boxes[p], boxes[q]);
  if (across <= 0) return 0;
  const width = Math.min(boxes[p + 1] - boxes[p], boxes[q + 1] - boxes[q]);
  const height = Math.min(boxes[p + 3] - boxes[p + 2], boxes[q + 3] - boxes[q + 2]);
  return width > 0 && height > 0 ? Math.min(across / width, down / height) : 0;
}
