import type { Box } from '@wexikine/core';

/** CSS pixels around a frame that fits. */
const MARGIN = 16;
const LEAST_ZOOM = 0.02;
const MOST_ZOOM = 16;
/** Share of the preview that is taken by what is zoomed to. */
const SELECTION_FILLS = 0.7;

/** From where the scene is looked at. */
export interface Camera {
  /** CSS pixels per scene pixel; null fits the frame into its place. */
  readonly zoom: number | null;
  readonly panX: number;
  readonly panY: number;
}

interface Size {
  readonly width: number;
  readonly height: number;
}

/** The whole frame in the middle. */
export const FIT: Camera = { zoom: null, panX: 0, panY: 0 };

function held(zoom: number): number {
  return Math.min(MOST_ZOOM, Math.max(LEAST_ZOOM, zoom));
}

/** CSS pixels per scene pixel at which a frame fits. */
export function fittingZoom(size: Size, frame: Size): number {
  const fit = Math.min((size.width - 2 * MARGIN) / frame.width, (size.height - 2 * MARGIN) / frame.height);
  return Math.max(LEAST_ZOOM, fit);
}

/** Zoomed by a factor from what it is now, with a place of the preview (CSS px) where it is. */
export function zoomedAbout(
  { panX, panY }: Camera,
  before: number,
  factor: number,
  at: { readonly x: number; readonly y: number },
  { width, height }: Size,
): Camera {
  const zoom = held(before * factor);
  const moved = (pan: number, place: number, middle: number): number =>
    place - middle - ((place - middle - pan) * zoom) / before;
  return { zoom, panX: moved(panX, at.x, width / 2), panY: moved(panY, at.y, height / 2) };
}

/** So that a box of the scene fills the preview with some room around it; null for a box without size. */
export function zoomedTo({ left, right, top, bottom }: Box, size: Size, frame: Size): Camera | null {
  if (right <= left || bottom <= top) return null;
  const zoom = held(Math.min(size.width / (right - left), size.height / (bottom - top)) * SELECTION_FILLS);
  return {
    zoom,
    panX: (frame.width / 2 - (left + right) / 2) * zoom,
    panY: (frame.height / 2 - (top + bottom) / 2) * zoom,
  };
}
