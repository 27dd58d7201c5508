import { Injectable } from '@angular/core';
import type { PresetItem, RigItem, Shelf } from '@wexikine/core';

type Moving = PresetItem | RigItem;

interface Picture {
  readonly width: number;
  readonly height: number;
  readonly canvas: OffscreenCanvas;
}

/** Milliseconds of a frame that pictures may take, so that scrolling stays smooth while they are made. */
const BUDGET = 14;

/**
 * Pictures of presets, each made once for as long as its item and library stay the same, and made one after the other
 * in what a frame leaves over, so that two thousand tiles never hold up the page.
 */
@Injectable({ providedIn: 'root' })
export class TrailPictures {
  private made = new WeakMap<Shelf, WeakMap<Moving, Picture>>();
  private arrived = 0;
  private readonly waiting = new Set<() => void>();
  private request = 0;

  /** A picture that was made before at this size; null where there is none. */
  find(shelf: Shelf, item: Moving, width: number, height: number): OffscreenCanvas | null {
    const picture = this.made.get(shelf)?.get(item);
    return picture?.width === width && picture.height === height ? picture.canvas : null;
  }

  /** Forgets everything once fonts or pictures have arrived that were not there before. */
  forget(arrived: number): void {
    if (arrived === this.arrived) return;
    this.arrived = arrived;
    this.made = new WeakMap();
  }

  /** Keeps a copy of what was drawn. */
  keep(shelf: Shelf, item: Moving, drawn: HTMLCanvasElement): void {
    const { width, height } = drawn;
    const canvas = new OffscreenCanvas(width, height);
    canvas.getContext('2d')?.drawImage(drawn, 0, 0);
    const ofShelf = this.made.get(shelf) ?? new WeakMap<Moving, Picture>();
    this.made.set(shelf, ofShelf);
    ofShelf.set(item, { width, height, canvas });
  }

  /** Does some work in its turn; the result takes it back. */
  enqueue(work: () => void): () => void {
    this.waiting.add(work);
    if (this.request === 0) this.request = requestAnimationFrame(this.run);
    return () => void this.waiting.delete(work);
  }

  private readonly run = (): void => {
    const until = performance.now() + BUDGET;
    for (const work of this.waiting) {
      this.waiting.delete(work);
      work();
      if (performance.now() > until) break;
    }
    this.request = this.waiting.size > 0 ? requestAnimationFrame(this.run) : 0;
  };
}
