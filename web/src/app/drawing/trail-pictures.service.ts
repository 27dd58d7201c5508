import { Injectable } from '@angular/core';
import type { PresetItem, RigItem, Shelf } from '@wexikine/core';
import { whenIdle } from '../when-idle';

type Moving = PresetItem | RigItem;

interface Picture {
  readonly width: number;
  readonly height: number;
  readonly canvas: OffscreenCanvas;
}

/** Milliseconds after which a picture is made though the page is not idle, as while something plays beside it. */
const PATIENCE = 150;
/** Milliseconds after which a press is heard before more pictures are made, however long the page would be idle. */
const SLICE = 8;

/**
 * Pictures of presets, each made once for as long as its item and library stay the same, and made one after the other
 * while the page has nothing else to do, so that neither two thousand tiles nor a list of presets hold up a press.
 */
@Injectable({ providedIn: 'root' })
export class TrailPictures {
  private made = new WeakMap<Shelf, WeakMap<Moving, Picture>>();
  private arrived = 0;
  private readonly waiting = new Set<() => void>();
  private isAsked = false;

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
    if (!this.isAsked) this.ask();
    return () => void this.waiting.delete(work);
  }

  private ask(): void {
    this.isAsked = this.waiting.size > 0;
    if (this.isAsked) whenIdle(this.run, PATIENCE);
  }

  private readonly run = (deadline: Pick<IdleDeadline, 'timeRemaining'>): void => {
    const end = performance.now() + SLICE;
    for (const work of this.waiting) {
      this.waiting.delete(work);
      work();
      if (deadline.timeRemaining() === 0 || performance.now() >= end) break;
    }
    this.ask();
  };
}
