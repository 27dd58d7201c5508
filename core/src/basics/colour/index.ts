export { oklabFromCss, cssFromOklab, type Oklab } from './oklab';
export { cutOut, edgeColour, showKept, type CutOut, type CutOutBy } from './cut-out';
export { seenAs, sightMatrix, SIGHTS, type Sight } from './vision';
export { contrastRatio, rampColour, steppedColour, type ColourStep } from './steps';
