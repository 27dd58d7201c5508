export { createFront, type FrontOptions } from './front';
