export { exponential } from './exponential';
export { COSINE_SERIES, EXPONENTIAL_SERIES, LN2_HIGH, LN2_LOW, SINE_SERIES, seriesOf } from './series';
export { sineCosine } from './turns';
