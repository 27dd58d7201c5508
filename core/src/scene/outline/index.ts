export { maskOutline, outlinePath, regularPath } from './outline';
export { pictureSize, type PictureSize } from './picture-size';
