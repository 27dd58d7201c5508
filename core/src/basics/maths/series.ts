/** Coefficients of x³, x⁵ … of the sine, up to π/4. Source: fdlibm, k_sin.c. */
export const SINE_SERIES: readonly number[] = [
  -1.66666666666666324348e-1, 8.33333333332248946124e-3, -1.98412698298579493134e-4, 2.75573137070700676789e-6,
  -2.50507602534068634195e-8, 1.58969099521155010221e-10,
];

/** Coefficients of x⁴, x⁶ … of the cosine, up to π/4. Source: fdlibm, k_cos.c. */
export const COSINE_SERIES: readonly number[] = [
  4.16666666666666019037e-2, -1.38888888888741095749e-3, 2.48015872894767294178e-5, -2.75573143513906633035e-7,
  2.0875723212981748279e-9, -1.13596475577881948265e-11,
];

/** Coefficients of the exponential's quotient, and ln 2 in two parts. Source: fdlibm, e_exp.c. */
export const EXPONENTIAL_SERIES: readonly number[] = [
  1.66666666666666019037e-1, -2.77777777770155933842e-3, 6.61375632143793436117e-5, -1.6533902205465251539e-6,
  4.13813679705723846039e-8,
];
/** ln 2, its first half of digits. */
export const LN2_HIGH = 6.9314718036912381649e-1;
/** ln 2, the rest of its digits. */
export const LN2_LOW = 1.90821492927058770002e-10;

/** The series of a number: c₀ + c₁x + c₂x² … */
export function seriesOf(x: number, coefficients: readonly number[]): number {
  let sum = 0;
  for (let i = coefficients.length - 1; i >= 0; i--) sum = sum * x + coefficients[i];
  return sum;
}
