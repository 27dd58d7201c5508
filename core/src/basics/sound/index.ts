export { findBeats, type SoundBeats } from './beats';
export { peaksOf, PEAKS_A_SECOND } from './loudness';
export { onsetStrength, LOOKS_A_SECOND } from './onsets';
