import { signal } from '@angular/core';
import type { Point } from '@wexikine/core';
import type { Camera } from './camera';
import type { Band, SharePoint } from './marks';
import type { StageCamera } from './stage-camera';

/** Px that a pointer must go before a press is a drag. */
const DRAG_PX = 3;
/** Pixels around the point of an order in which it is taken hold of. */
const POINT_REACH = 14;

/** What a pointer on the stage works on. */
export interface StagePointerOf {
  readonly camera: Pick<StageCamera, 'held' | 'moveFrom' | 'shareAt' | 'pixelOf'>;
  /** The point from which an order goes out. */
  readonly point: () => SharePoint | null;
  readonly pointMoved: (at: SharePoint) => void;
  /** A box was drawn, px of the preview. */
  readonly boxed: (band: Band) => void;
  readonly clicked: (event: PointerEvent) => void;
}

interface Pressed extends Point {
  readonly camera: Camera;
  readonly does: 'pan' | 'box' | 'point';
  /** Where the point of the order was, where that is dragged. */
  readonly point: SharePoint | null;
  isDrag: boolean;
}

type At = Pick<PointerEvent, 'offsetX' | 'offsetY'>;

/** A press beside what is selected: moves the view, draws a box where Shift is held, or takes the point of an order along. */
export class StagePointer {
  private pressed: Pressed | null = null;
  readonly band = signal<Band | null>(null);

  constructor(private readonly of: StagePointerOf) {}

  press({ offsetX: x, offsetY: y, shiftKey }: At & Pick<PointerEvent, 'shiftKey'>): void {
    const does = this.isOnPoint({ offsetX: x, offsetY: y }) ? 'point' : shiftKey ? 'box' : 'pan';
    const point = does === 'point' ? this.of.point() : null;
    this.pressed = { x, y, camera: this.of.camera.held(), isDrag: false, does, point };
  }

  move({ offsetX, offsetY }: At): void {
    if (!this.pressed) return;
    const { camera, does, x, y } = this.pressed;
    const [dx, dy] = [offsetX - x, offsetY - y];
    this.pressed.isDrag ||= Math.hypot(dx, dy) > DRAG_PX;
    if (does === 'point') return this.of.pointMoved(this.of.camera.shareAt({ x: offsetX, y: offsetY }));
    if (does === 'box') return this.band.set({ x, y, toX: offsetX, toY: offsetY });
    if (this.pressed.isDrag) this.of.camera.moveFrom(camera, dx, dy);
  }

  release(event: PointerEvent): void {
    const band = this.band();
    if (band) this.of.boxed(band);
    else if (this.pressed && !this.pressed.isDrag) this.of.clicked(event);
    this.cancel();
  }

  /** The press was taken away, as by a gesture of the system: nothing is done with it. */
  cancel(): void {
    this.band.set(null);
    this.pressed = null;
  }

  /** Whether a press is being dragged. */
  isDragging(): boolean {
    return this.pressed?.isDrag === true;
  }

  /** A drag that is given up: the view, or the point of the order, is where it was. */
  giveUp(): void {
    const { pressed } = this;
    this.cancel();
    if (pressed?.does === 'pan') this.of.camera.moveFrom(pressed.camera, 0, 0);
    if (pressed?.point) this.of.pointMoved(pressed.point);
  }

  /** Whether the point of an order is there to be taken hold of. */
  isOnPoint({ offsetX, offsetY }: At): boolean {
    const point = this.of.point();
    if (!point) return false;
    const { x, y } = this.of.camera.pixelOf(point);
    return Math.hypot(offsetX - x, offsetY - y) <= POINT_REACH;
  }
}
