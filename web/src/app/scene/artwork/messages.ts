import type { FileEnding, Layer, Point, SoundBeats, Ticks } from '@wexikine/core';
import type { FontAtHand } from '@wexikine/core/drawing';

/** A part of a drawing as it is chosen from: no more of it than is shown. */
export interface DrawingTree {
  readonly id: string;
  readonly name: string;
  readonly kind: 'group' | 'shape' | 'words' | 'picture';
  /** A group that only looks right as one. */
  readonly isFixed: boolean;
  readonly parts: readonly DrawingTree[];
}

/** A file as something that a layer can show or be set in, or why it cannot be. */
export type BroughtFile =
  | {
      readonly type: 'picture';
      readonly name: string;
      readonly href: string;
      readonly width: number;
      readonly height: number;
    }
  | {
      readonly type: 'clip';
      readonly name: string;
      readonly href: string;
      readonly width: number;
      readonly height: number;
      readonly length: Ticks;
    }
  | {
      readonly type: 'drawing';
      readonly name: string;
      readonly drawing: number;
      readonly tree: DrawingTree;
      readonly width: number;
      readonly height: number;
    }
  | { readonly type: 'font'; readonly name: string; readonly family: string }
  /** How long it is the page finds out: a worker cannot decode sounds. */
  | { readonly type: 'sound'; readonly name: string; readonly file: File; readonly ending: FileEnding }
  | { readonly type: 'problem'; readonly name: string; readonly problem: string };

/** How the layers of a drawing that was read are to be made. */
export interface DrawingWanted {
  readonly drawing: number;
  /** Groups that become one picture each. */
  readonly whole: readonly string[];
  readonly name: string;
  readonly at: Point;
  readonly scale: number;
  readonly length: Ticks;
  /** Pictures among the layers are kept as files; else they stand in the layers, to be looked at. */
  readonly isKept: boolean;
}

/** Layers of a drawing, and parts that none can hold. */
export interface DrawnLayers {
  readonly layers: readonly Layer[];
  readonly tooLarge: readonly string[];
}

/** What is told of a sound by listening to it. */
export interface Heard {
  readonly beats: SoundBeats | null;
  /** The largest amplitude in each hundredth of a second, 0…1. */
  readonly peaks: Float32Array;
}

/** What the reader is asked. */
export type ToReader =
  | { readonly type: 'read'; readonly ticket: number; readonly file: File; readonly fonts: readonly FontAtHand[] }
  | { readonly type: 'draw'; readonly ticket: number; readonly wanted: DrawingWanted }
  | { readonly type: 'hear'; readonly ticket: number; readonly samples: Float32Array; readonly rate: number };

/** What it answers. */
export type FromReader =
  | { readonly ticket: number; readonly ok: true; readonly answer: BroughtFile | DrawnLayers | Heard }
  | { readonly ticket: number; readonly ok: false; readonly message: string };
