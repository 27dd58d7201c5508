export { createSurfaces, type Clips, type Surfaces, type Context } from './surfaces';
export { servedAt } from './served';
export { type PictureSource } from './picture-source';
export { pictureCrop, subjectAt } from './contents';
export { type Cutting } from './cutting';
export { type Picture, type View } from './brush';
export { createPainter, type Painter } from './paint';
export { paintBackground, valueAt } from './look';
export { measureWords } from './text';
