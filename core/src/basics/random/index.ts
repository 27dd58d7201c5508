export { randomAt, seedFromText, shuffled, gradientNoise, noiseOfSlopes } from './random';
