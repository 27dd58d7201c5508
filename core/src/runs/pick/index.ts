export { pickLayers, createPatternTest, termsOf } from './pick';
export { pickWords, termWords } from './words';
export { takePart, stayingOut, type StaysOut } from './take-part';
