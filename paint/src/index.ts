export { createSurfaces, type Surfaces, type Context } from './surfaces';
export { servedAt } from './served';
export { type PictureSource } from './pictures';
export { createPainter, trimDash, type Painter, type Picture, type View } from './paint';
export { valueAt } from './look';
export { measureWords } from './text';
