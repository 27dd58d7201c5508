import { Injectable } from '@angular/core';
import { edgeColour } from '@wexikine/core';
import { createPainter, createSurfaces, type PictureSource } from '@wexikine/paint';
import { BehaviorSubject } from 'rxjs';
import { createClips } from './clips';
import { createCutting } from './cutting';

/** Longest side of a picture whose colours are read. */
const READ = 1024;

/** The one painter of the page. `arrived$` counts pictures and fonts that came later, so that canvases draw again. */
@Injectable({ providedIn: 'root' })
export class PainterService {
  private readonly arrived = new BehaviorSubject(0);
  readonly arrived$ = this.arrived.asObservable();
  private readonly surfaces = createSurfaces(
    () => this.again(),
    createCutting(),
    (onLoad) => createClips(onLoad),
  );
  readonly painter = createPainter(this.surfaces);

  constructor() {
    const fonts = ['700 20px "Bricolage Grotesque"', '500 20px "Spline Sans"', '500 20px "Spline Sans Mono"'];
    void Promise.all(fonts.map((font) => document.fonts.load(font))).then(() => this.again());
  }

  /** A picture as it is known; null while it loads. */
  pictureAt(address: string): PictureSource | null {
    return this.surfaces.picture(address, READ);
  }

  /** The colour that most of a picture's edge has; null while it loads. */
  edgeColourOf(address: string): string | null {
    const picture = this.pictureAt(address);
    if (!picture) return null;
    const { width, height } = picture;
    return edgeColour(this.pixels(picture, 0, 0, width, height), width, height);
  }

  /** The colour of a picture at a share of its width and height, as CSS text; null while it loads, or where it is clear. */
  colourOf(address: string, across: number, down: number): string | null {
    const picture = this.pictureAt(address);
    if (!picture) return null;
    const at = (share: number, side: number): number => Math.min(side - 1, Math.max(0, Math.floor(share * side)));
    const [r, g, b, alpha] = this.pixels(picture, at(across, picture.width), at(down, picture.height), 1, 1);
    return alpha === 0 ? null : `#${[r, g, b].map((part) => part.toString(16).padStart(2, '0')).join('')}`;
  }

  private pixels(picture: PictureSource, x: number, y: number, width: number, height: number): Uint8ClampedArray {
    const canvas = new OffscreenCanvas(width, height);
    const context = canvas.getContext('2d', { willReadFrequently: true }) as OffscreenCanvasRenderingContext2D;
    context.drawImage(picture, x, y, width, height, 0, 0, width, height);
    return context.getImageData(0, 0, width, height).data;
  }

  private again(): void {
    this.arrived.next(this.arrived.value + 1);
  }
}
