export { splitBox } from './grid';
export { replacingEdits, type MeasurePieces } from './replace';
export { joinWords, splitAnew, splitWords, type Piece, type SplitWay } from './words';
