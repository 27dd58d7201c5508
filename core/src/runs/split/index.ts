export { splitBox } from './grid';
export { joinWords, splitAnew, splitWords, type Piece, type SplitWay } from './words';
