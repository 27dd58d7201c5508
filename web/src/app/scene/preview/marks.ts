import { matrixAt, transformPoint } from '@wexikine/core';
import { valueAt, type Picture, type View } from '@wexikine/paint';

/** Safe action and safe title areas as shares of the frame. Source: SMPTE ST 2046-1. */
const SAFE_AREAS = [0.93, 0.9];
const CHECK = 8;
const OUTSIDE_DIM = 'rgb(60 60 58 / 72%)';
/** Colour of what is selected. */
export const SELECTION = '#58b79c';

/** A point in shares of the frame. */
export interface SharePoint {
  readonly x: number;
  readonly y: number;
}

/** A box being drawn, in CSS pixels. */
export interface Band {
  readonly x: number;
  readonly y: number;
  readonly toX: number;
  readonly toY: number;
}

const POINT_COLOUR = '#e0a526';

/** The point of an order: a ring with a cross, on a dark edge so that it is seen on anything. */
export function drawPoint(context: CanvasRenderingContext2D, place: { x: number; y: number }, ratio: number): void {
  const [x, y] = [place.x * ratio, place.y * ratio];
  for (const [colour, width] of [
    ['rgb(0 0 0 / 60%)', 4],
    [POINT_COLOUR, 2],
  ] as const) {
    context.strokeStyle = colour;
    context.lineWidth = width * ratio;
    context.beginPath();
    context.arc(x, y, 8 * ratio, 0, 2 * Math.PI);
    for (const [dx, dy] of [
      [1, 0],
      [0, 1],
      [-1, 0],
      [0, -1],
    ]) {
      context.moveTo(x + dx * 4 * ratio, y + dy * 4 * ratio);
      context.lineTo(x + dx * 13 * ratio, y + dy * 13 * ratio);
    }
    context.stroke();
  }
}

/** Layers that are guides: their boxes as dashed lines, so that others can be brought to them. */
export function drawGuides(
  context: CanvasRenderingContext2D,
  { compiled, frame }: Picture,
  view: View,
  ratio: number,
): void {
  context.save();
  context.strokeStyle = POINT_COLOUR;
  context.lineWidth = ratio;
  context.setLineDash([5 * ratio, 4 * ratio]);
  compiled.layers.forEach((layer, index) => {
    if (layer.kind !== 'guide' || layer.hidden || frame.live[index] === 0) return;
    const [width, height] = (['size.x', 'size.y'] as const).map((id) => valueAt(frame, index, id));
    const matrix = matrixAt(frame, index);
    const corners = [
      { x: 0, y: 0 },
      { x: width, y: 0 },
      { x: width, y: height },
      { x: 0, y: height },
    ].map((corner) => transformPoint(matrix, corner));
    context.beginPath();
    corners.forEach(({ x, y }, i) => {
      const [left, top] = [x * view.scale + view.x, y * view.scale + view.y];
      if (i === 0) context.moveTo(left, top);
      else context.lineTo(left, top);
    });
    context.closePath();
    context.stroke();
  });
  context.restore();
}

/** Draws the band with which layers are boxed. */
export function drawBand(context: CanvasRenderingContext2D, { x, y, toX, toY }: Band, ratio: number): void {
  context.fillStyle = 'rgb(88 183 156 / 18%)';
  context.strokeStyle = SELECTION;
  context.lineWidth = ratio;
  context.fillRect(x * ratio, y * ratio, (toX - x) * ratio, (toY - y) * ratio);
  context.strokeRect(x * ratio, y * ratio, (toX - x) * ratio, (toY - y) * ratio);
}

/** Where the frame lies on the canvas. */
export interface Place {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** Draws only within the frame. */
export function clipTo(context: CanvasRenderingContext2D, { x, y, width, height }: Place): void {
  context.beginPath();
  context.rect(x, y, width, height);
  context.clip();
}

/** What lies under the layers: black, or the check pattern that stands for transparency. */
export function drawGround(context: CanvasRenderingContext2D, place: Place, checks: boolean, ratio: number): void {
  context.fillStyle = checks ? '#8a8a86' : '#000';
  context.fillRect(place.x, place.y, place.width, place.height);
  if (!checks) return;
  context.save();
  clipTo(context, place);
  context.fillStyle = '#b4b4ae';
  const size = CHECK * ratio;
  for (let row = 0; row * size < place.height; row++) {
    for (let column = row % 2; column * size < place.width; column += 2) {
      context.fillRect(place.x + column * size, place.y + row * size, size, size);
    }
  }
  context.restore();
}

/** Dims what lies outside the frame. */
export function dimOutside(context: CanvasRenderingContext2D, { x, y, width, height }: Place): void {
  context.beginPath();
  context.rect(0, 0, context.canvas.width, context.canvas.height);
  context.rect(x, y, width, height);
  context.fillStyle = OUTSIDE_DIM;
  context.fill('evenodd');
}

/** Draws the safe areas. */
export function drawSafeAreas(context: CanvasRenderingContext2D, { x, y, width, height }: Place, ratio: number): void {
  context.save();
  context.lineWidth = ratio;
  context.setLineDash([4 * ratio, 4 * ratio]);
  context.strokeStyle = 'rgb(241 236 223 / 55%)';
  for (const share of SAFE_AREAS) {
    const [w, h] = [width * share, height * share];
    context.strokeRect(x + (width - w) / 2, y + (height - h) / 2, w, h);
  }
  context.restore();
}

/** Lines nearer than this on the page are left out, CSS px. */
const NEAREST_LINES = 4;

/** Draws the lines of a grid; `step` is from one to the next on the canvas. Where they would be a wall, fewer are drawn. */
export function drawGrid(
  context: CanvasRenderingContext2D,
  { x, y, width, height }: Place,
  step: number,
  ratio: number,
): void {
  let apart = step;
  while (apart < NEAREST_LINES * ratio) apart *= 2;
  context.save();
  context.lineWidth = 1;
  context.strokeStyle = 'rgb(241 236 223 / 26%)';
  context.beginPath();
  for (let at = apart; at < width - 1; at += apart) {
    const left = Math.round(x + at) + 0.5;
    context.moveTo(left, y);
    context.lineTo(left, y + height);
  }
  for (let at = apart; at < height - 1; at += apart) {
    const top = Math.round(y + at) + 0.5;
    context.moveTo(x, top);
    context.lineTo(x + width, top);
  }
  context.stroke();
  context.restore();
}
