import { computed, signal } from '@angular/core';
import type { Box, Point } from '@wexikine/core';
import { FIT, fittingZoom, zoomedAbout, zoomedTo, type Camera } from './camera';
import type { SharePoint } from './marks';

interface Size {
  readonly width: number;
  readonly height: number;
}

/** Shares of the frame that a point may be away from it. */
const FARTHEST = 10;

/** From where a scene is looked at in a preview: how large it is, where it lies, and what lies at a pixel of the page. */
export class StageCamera {
  private readonly camera = signal(FIT);
  /** Of the preview, CSS px. */
  readonly size = signal<Size>({ width: 0, height: 0 });
  /** CSS pixels per scene pixel. */
  readonly zoom = computed(() => this.camera().zoom ?? fittingZoom(this.size(), this.frame()));
  /** Where the frame's top left corner lies, CSS px, and how large the scene is. */
  readonly place = computed(() => {
    const { width, height } = this.size();
    const { panX, panY } = this.camera();
    const [zoom, frame] = [this.zoom(), this.frame()];
    return { zoom, x: (width - frame.width * zoom) / 2 + panX, y: (height - frame.height * zoom) / 2 + panY };
  });

  /** `frame` gives the size of the scene. */
  constructor(private readonly frame: () => Size) {}

  fit(): void {
    this.camera.set(FIT);
  }

  /** A box of the scene fills the preview with some room around it; without one the whole frame does. */
  zoomTo(box: Box | null): void {
    this.camera.set((box && zoomedTo(box, this.size(), this.frame())) ?? FIT);
  }

  /** Zooms by a factor about a place of the preview, or about its middle. */
  zoomBy(factor: number, at: Point = { x: this.size().width / 2, y: this.size().height / 2 }): void {
    this.camera.set(zoomedAbout(this.camera(), this.zoom(), factor, at, this.size()));
  }

  /** What is looked at now, to be moved from there. */
  held(): Camera {
    return { ...this.camera(), zoom: this.zoom() };
  }

  /** Moves from where it was held by CSS px. */
  moveFrom(held: Camera, x: number, y: number): void {
    this.camera.set({ ...held, panX: held.panX + x, panY: held.panY + y });
  }

  /** The place of the scene at a pixel of the preview. */
  sceneAt({ x, y }: Point): Point {
    const { x: left, y: top, zoom } = this.place();
    return { x: (x - left) / zoom, y: (y - top) / zoom };
  }

  /** The pixel of the preview at a share of the frame. */
  pixelOf({ x, y }: SharePoint): Point {
    const { width, height } = this.frame();
    const { x: left, y: top, zoom } = this.place();
    return { x: left + x * width * zoom, y: top + y * height * zoom };
  }

  /** The share of the frame at a pixel of the preview, in thousandths. */
  shareAt(at: Point): SharePoint {
    const { width, height } = this.frame();
    const { x, y } = this.sceneAt(at);
    const share = (value: number): number => Math.min(FARTHEST, Math.max(-FARTHEST, Math.round(value * 1_000) / 1_000));
    return { x: share(x / width), y: share(y / height) };
  }
}
