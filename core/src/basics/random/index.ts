export { randomAt, seedFromText, shuffled, gradientNoise, loopedNoise } from './random';
