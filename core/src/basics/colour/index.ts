export { oklabFromCss, cssFromOklab, rgbFromOklab, type Oklab, type Rgb } from './oklab';
export { cssColourSchema } from './schema';
export { chromaticity, relativeLuminance } from './luminance';
export { cutOut, edgeColour, showKept, type CutOut, type CutOutBy } from './cut-out';
export { drawInMatrix, twoColourMatrix } from './two-colours';
export { seenAs, sightMatrix, SIGHTS, type Sight } from './vision';
export { contrastRatio, cssFromLch, lchFromCss, rampColour, steppedColour, type ColourStep, type Lch } from './steps';
