export { oklabFromCss, cssFromOklab, type Oklab } from './oklab';
