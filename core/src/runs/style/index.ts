export { planStyle, replayStyle, styleReads } from './style';
export { colourVariationWords, styleParts } from './words';
export { PARTS as STYLE_PART_FACTS, numbersOf as styledNumbers } from './parts';
export { followedLayer, withFollowers } from './links';
