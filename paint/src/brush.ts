import type { CompiledScene, Frame, Ticks } from '@wexikine/core';
import type { Context } from './surfaces';

/** Where and how large a scene is drawn: device pixels per scene pixel, and where its top left corner lies. */
export interface View {
  readonly scale: number;
  readonly x: number;
  readonly y: number;
}

/** A sampled scene: what `compileScene` and `sampleFrame` give. */
export interface Picture {
  readonly compiled: CompiledScene;
  readonly frame: Frame;
  /** The time of the frame and how long one is, for blur by motion; without them nothing is blurred by it. */
  readonly shutter?: { readonly at: Ticks; readonly step: Ticks };
  /** Layer of whose cut-out what is kept is shown in white. */
  readonly keptView?: string | null;
}

/** A part of the canvas in device pixels, whole numbers. */
export interface Patch {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** What a layer is drawn with. */
export interface Brush {
  readonly context: Context;
  /** The part of the canvas that the context stands for. */
  readonly patch: Patch;
  /** All of the canvas: nothing beyond it is drawn. */
  readonly bounds: Patch;
  readonly picture: Picture;
  readonly view: View;
  /** Layers that are being drawn as mattes, so that none is its own. */
  readonly mattes?: readonly number[];
  /** A moment of a blur by motion is drawn, which is not blurred once more. */
  readonly isMoment?: boolean;
  /** It is drawn into something that is kept itself. */
  readonly isInside?: boolean;
  /** The next layer is drawn as a matte, whether it is shown itself or not. */
  readonly isMatte?: boolean;
}

/** A linear map on the screen: what a layer's own pixels become. */
export type Linear = readonly [number, number, number, number];

/** A layer's own pixels on a surface: a, b, c, d, e, f as a canvas takes them. */
export type Matrix = readonly [...Linear, number, number];

/** How much larger a length becomes: shadows and blurs are as large as what they belong to. */
export function growth([a, b, c, d]: Linear): number {
  return Math.sqrt(Math.abs(a * d - b * c));
}

/** A surface that stands for a part of the canvas. */
export interface Sheet {
  readonly context: Context;
  readonly patch: Patch;
}

/** Draws a sheet where it lies on the canvas, onto what stands for another part of it. */
export function drawSheet(onto: Sheet, { context, patch }: Sheet): void {
  const { x, y, width, height } = patch;
  onto.context.setTransform(1, 0, 0, 1, 0, 0);
  onto.context.drawImage(context.canvas, 0, 0, width, height, x - onto.patch.x, y - onto.patch.y, width, height);
}
