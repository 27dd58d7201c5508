export { oklabFromCss, cssFromOklab, type Oklab } from './oklab';
export { contrastRatio, rampColour, steppedColour, type ColourStep } from './steps';
