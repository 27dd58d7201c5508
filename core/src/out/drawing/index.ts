export {
  layerCount,
  readDrawing,
  wholeAt,
  type Drawing,
  type DrawingLevel,
  type DrawingResult,
  type FontAtHand,
} from './drawing';
export { drawingLayers } from './layers';
export type { DrawingOptions, MeasureText, TextSize } from './maker';
export { type Part as DrawingPart } from './tree';
export type { EmbeddedFace, LineAsked, LineOutline, OutlineText } from './faces';
