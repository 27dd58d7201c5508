import { COSINE_SERIES, SINE_SERIES, seriesOf } from './series';

const RADIANS = Math.PI / 180;

/** Sine and cosine of degrees, the same on every machine; exact at whole quarter turns. Source: fdlibm, k_sin.c, k_cos.c. */
export function sineCosine(degrees: number): readonly [sine: number, cosine: number] {
  const turns = Math.round(degrees / 90);
  const x = (degrees - turns * 90) * RADIANS;
  const square = x * x;
  const sine = x + square * x * seriesOf(square, SINE_SERIES);
  const cosine = 1 - square * 0.5 + square * square * seriesOf(square, COSINE_SERIES);
  switch (((turns % 4) + 4) % 4) {
    case 0:
      return [sine, cosine];
    case 1:
      return [cosine, -sine];
    case 2:
      return [-sine, -cosine];
    default:
      return [-cosine, sine];
  }
}
