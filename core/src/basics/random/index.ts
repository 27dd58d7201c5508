export { randomAt, seedFromText, shuffled, gradientNoise } from './random';
