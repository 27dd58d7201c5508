import { signal, type Signal } from '@angular/core';
import type { HandPicks, Scene, Ticks } from '@wexikine/core';
import { STRIP_HEIGHT } from '../sheet/strip-paths';
import type { TimeAxis } from '../sheet/time-axis';
import { keysIn, nearest, pickedTimes, reached, timesOf, withKeys, type KeyRow, type Reach } from './key-rows';
import { otherTimes } from './paint-rows';
import { canFold } from './rows-key';
import { snapTime } from './snap';

/** Pixels within which a press means a key, and a dragged one takes the time of something else. */
const REACH_PX = 6;

/** Keys that are being dragged: where the press was, the time of the key under it, and how far they are by now. */
export interface KeysDrag {
  readonly x: number;
  readonly at: Ticks;
  readonly by: Ticks;
}

/** A box that is drawn around keys, px across the strips and down all rows. */
export interface RowsBand {
  readonly x0: number;
  readonly y0: number;
  readonly x1: number;
  readonly y1: number;
}

/** What a pointer on rows of keys works on. */
export interface RowsPointerOf {
  readonly rows: Signal<readonly KeyRow[]>;
  readonly standing: Signal<Scene>;
  readonly picks: Signal<HandPicks>;
  readonly reach: Signal<Reach>;
  readonly canEdit: Signal<boolean>;
  readonly time: Signal<number>;
  readonly axis: Pick<TimeAxis, 'xOf' | 'timeAt' | 'ticksOf'>;
  /** How far down all rows the pointer is, px. */
  readonly yOf: (event: Pick<MouseEvent, 'clientY'>) => number;
  readonly pick: (picks: HandPicks) => void;
  readonly moveBy: (by: Ticks) => void;
}

type Pointer = Pick<PointerEvent, 'clientX' | 'clientY' | 'shiftKey' | 'ctrlKey' | 'metaKey' | 'altKey'>;

/** Keys picked by a press or a band, and dragged in time. */
export class RowsPointer {
  readonly drag = signal<KeysDrag | null>(null);
  readonly band = signal<RowsBand | null>(null);

  constructor(private readonly of: RowsPointerOf) {}

  /** A press on a row: on a key picks it and takes hold of it, beside keys begins a band. */
  press(event: Pointer, row: KeyRow): void {
    const { axis, canEdit } = this.of;
    const x = axis.xOf(event);
    const at = nearest(timesOf(row), axis.timeAt(x), axis.ticksOf(REACH_PX));
    const isMore = event.shiftKey || event.ctrlKey || event.metaKey;
    if (at === null) {
      if (!isMore) this.of.pick(new Map());
      const y = this.of.yOf(event);
      this.band.set({ x0: x, y0: y, x1: x, y1: y });
      return;
    }
    const reach = event.altKey ? 'moment' : this.of.reach();
    if (isMore || !pickedTimes(row, this.of.picks()).has(at)) {
      this.take(reached(row, at, reach, this.of.rows()), isMore ? 'flip' : 'only');
    }
    if (canEdit()) this.drag.set({ x, at, by: 0 });
  }

  move(event: Pointer): void {
    const x = this.of.axis.xOf(event);
    const [band, drag] = [this.band(), this.drag()];
    if (band) return this.band.set({ ...band, x1: x, y1: this.of.yOf(event) });
    if (!drag) return;
    const wanted = drag.at + this.of.axis.ticksOf(x - drag.x);
    this.drag.set({ ...drag, by: this.snapped(wanted, event.ctrlKey || event.metaKey) - drag.at });
  }

  release(): void {
    const [drag, band] = [this.drag(), this.band()];
    this.cancel();
    if (band) this.pickBand(band);
    if (drag && drag.by !== 0) this.of.moveBy(drag.by);
  }

  /** A drag or a band that was given up, or taken away by the system, does nothing. */
  cancel(): void {
    this.drag.set(null);
    this.band.set(null);
  }

  /** Picks a whole row, alone or with or without what is picked already. */
  pickRow(row: KeyRow, isMore: boolean): void {
    this.take(keysIn(row, -Infinity, Infinity), isMore ? 'flip' : 'only');
  }

  private pickBand({ x0, y0, x1, y1 }: RowsBand): void {
    const [from, to] = [Math.min(x0, x1), Math.max(x0, x1)].map((x) => this.of.axis.timeAt(x));
    const [top, bottom] = [Math.min(y0, y1), Math.max(y0, y1)].map((y) => Math.floor(y / STRIP_HEIGHT));
    const rows = this.of.rows().slice(Math.max(0, top), bottom + 1);
    // A closed layer's row stands for its channels; an open one's are in the band by themselves.
    const meant = rows.filter((row) => row.kind === 'channel' || row.kind === 'dial' || (canFold(row) && !row.isOpen));
    const among = meant.length > 0 ? meant : rows;
    this.take(
      among.flatMap((row) => keysIn(row, from, to)),
      'more',
    );
  }

  /** Picks keys: these only, more, or those away that all were picked. */
  private take(keys: ReturnType<typeof keysIn>, how: 'only' | 'more' | 'flip'): void {
    this.of.pick(withKeys(how === 'only' ? new Map() : this.of.picks(), keys, how === 'flip'));
  }

  private snapped(wanted: Ticks, isFree: boolean): Ticks {
    const { rate, length, layers, cues } = this.of.standing();
    const picks = this.of.picks();
    const ends = layers.filter(({ id }) => picks.has(id)).flatMap(({ span }) => [span.in, span.out]);
    const others = (): Ticks[] => [...ends, ...otherTimes(this.of.rows(), picks)];
    const targets = isFree ? [] : [...cues.map(({ at }) => at), this.of.time(), 0, length, ...others()];
    return snapTime(wanted, targets, this.of.axis.ticksOf(REACH_PX), rate);
  }
}
