export {
  layerCount,
  readDrawing,
  wholeAt,
  type Drawing,
  type DrawingLevel,
  type DrawingResult,
  type FontAtHand,
} from './drawing';
export { drawingLayers, type DrawingOptions, type MeasureText, type TextSize } from './layers';
export { type Part as DrawingPart } from './tree';
