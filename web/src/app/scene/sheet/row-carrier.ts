import { signal, type Signal } from '@angular/core';
import { dropAt, type Placed, type RowDrop } from './row-drop';
import type { SheetRow } from './rows';

/** What is carried needs to know of the rows, and does with them. */
export interface CarriedOver {
  readonly rows: Signal<readonly SheetRow[]>;
  /** The height of a pointer on the page, in rows from the first. */
  readonly heightOf: (clientY: number) => number;
  /** Top and bottom on the page of the rows that are seen. */
  readonly seen: () => readonly [top: number, bottom: number];
  readonly scrollBy: (px: number) => void;
  /** A row was let go where it is to stand. */
  readonly placed: (placed: Placed) => void;
}

/** Pixels by which a pointer is to move before a row is carried. */
const LEAST = 4;
/** Nearer to the first or last row that is seen than this, px, the rows go on by themselves. */
const EDGE = 30;
/** Rows go on by such a share of how far the pointer is beyond the edge, each frame. */
const HASTE = 0.35;

/** How far rows go on in one frame while a pointer is held near their top or bottom, px; 0 between. */
export function driftAt(clientY: number, [top, bottom]: readonly [number, number]): number {
  if (clientY < top + EDGE) return Math.max(-EDGE, (clientY - top - EDGE) * HASTE);
  if (clientY > bottom - EDGE) return Math.min(EDGE, (clientY - bottom + EDGE) * HASTE);
  return 0;
}

/** A row that is carried to another place in depth, or into a group; it is followed wherever the pointer goes. */
export class RowCarrier {
  private readonly target = signal<RowDrop | null>(null);
  readonly drop: Signal<RowDrop | null> = this.target;
  private readonly held = signal<{ readonly layer: string; readonly y: number; readonly isMoved: boolean } | null>(
    null,
  );
  readonly carried: Signal<{ readonly layer: string; readonly isMoved: boolean } | null> = this.held;
  private pointerY = 0;
  private frame = 0;

  constructor(private readonly over: CarriedOver) {}

  press(event: PointerEvent, row: SheetRow): void {
    if (event.button !== 0 || row.layer.locked) return;
    this.held.set({ layer: row.layer.id, y: event.clientY, isMoved: false });
    document.addEventListener('pointermove', this.move);
    document.addEventListener('pointerup', this.release);
    document.addEventListener('pointercancel', this.cancel);
  }

  readonly cancel = (): void => {
    this.held.set(null);
    this.target.set(null);
    cancelAnimationFrame(this.frame);
    this.frame = 0;
    document.removeEventListener('pointermove', this.move);
    document.removeEventListener('pointerup', this.release);
    document.removeEventListener('pointercancel', this.cancel);
  };

  private readonly move = (event: PointerEvent): void => {
    const held = this.held();
    if (!held) return;
    // Let go where nobody heard of it.
    if ((event.buttons & 1) === 0) return this.cancel();
    if (!held.isMoved) {
      if (Math.abs(event.clientY - held.y) < LEAST) return;
      this.held.set({ ...held, isMoved: true });
    }
    this.pointerY = event.clientY;
    this.aim();
    if (this.frame === 0) this.frame = requestAnimationFrame(this.drift);
  };

  private readonly drift = (): void => {
    this.frame = 0;
    const by = driftAt(this.pointerY, this.over.seen());
    if (by === 0 || !this.held()?.isMoved) return;
    this.over.scrollBy(by);
    this.aim();
    this.frame = requestAnimationFrame(this.drift);
  };

  private aim(): void {
    const held = this.held();
    if (held) this.target.set(dropAt(this.over.rows(), this.over.heightOf(this.pointerY), held.layer));
  }

  private readonly release = (): void => {
    const [held, drop] = [this.held(), this.target()];
    this.cancel();
    if (held?.isMoved && drop) this.over.placed({ layer: held.layer, parent: drop.parent, before: drop.before });
  };
}
