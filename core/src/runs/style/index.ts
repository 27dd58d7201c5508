export { lookAsMade, type LookOnLayer } from './parameters';
export { planStyle, replayStyle, styleFollows, styleReads, wholeLook } from './style';
export { colourVariationWords, styleParts } from './words';
export { PARTS as STYLE_PART_FACTS, numbersOf as styledNumbers } from './parts';
