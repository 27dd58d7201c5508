export {
  IDENTITY,
  multiply,
  transformPoint,
  boundsOf,
  centreOf,
  inverse,
  type Matrix,
  type Point,
  type Box,
} from './matrix';
export { writeLayerMatrix } from './layer-matrix';
