export { createSurfaces, type Surfaces, type Context, type PictureSource } from './surfaces';
export { createPainter, trimDash, type Painter, type Picture, type View } from './paint';
export { valueAt } from './look';
