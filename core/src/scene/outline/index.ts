export { maskOutline, outlinePath } from './outline';
export { pictureSize, type PictureSize } from './picture-size';
