import { compileFormula, createScope, DIMENSIONS, numberOf, RUN_NAMES } from '@wexikine/core';
import { mediansInTurn, report } from './measure';

const LAYERS = 1_000;
const ROUNDS = 200;

/** The same formulas as they stand in presets and rigs, and by hand; inputs: place, share, layer.width, layer.height. */
const FORMULAS = [
  {
    name: 'without let',
    text: 'mix(-40px, 40px, smooth(0, 1, share)) + layer.width × 0.5 × (1 - share) - max(layer.height, 20px) ÷ 4',
    byHand: (_place: number, share: number, width: number, height: number): number => {
      const u = Math.min(1, Math.max(0, share));
      return -40 + 80 * (u * u * (3 - 2 * u)) + width * 0.5 * (1 - share) - Math.max(height, 20) / 4;
    },
  },
  {
    name: 'with let',
    text: 'let half = layer.width ÷ 2\nlet far = half + layer.height × (1 - share)\nif place mod 2 = 0 then far else -far + half × share',
    byHand: (place: number, share: number, width: number, height: number): number => {
      const half = width / 2;
      const far = half + height * (1 - share);
      return place - 2 * Math.floor(place / 2) === 0 ? far : -far + half * share;
    },
  },
] as const;

/** Formulas over all layers of a run, against the same written by hand in TypeScript. */
export function benchFormulas(): void {
  const scope = createScope(RUN_NAMES);
  const values = new Float64Array(scope.size * LAYERS);
  const column = (name: string): Float64Array => {
    const at = (scope.places.get(name) as number) * LAYERS;
    return values.subarray(at, at + LAYERS);
  };
  const [place, share, width, height] = ['place', 'share', 'layer.width', 'layer.height'].map(column);
  for (let i = 0; i < LAYERS; i++) {
    place[i] = i;
    share[i] = i / (LAYERS - 1);
    width[i] = 40 + (i % 17);
    height[i] = 10 + (i % 23);
  }
  const [ours, theirs] = [new Float64Array(LAYERS), new Float64Array(LAYERS)];
  for (const { name, text, byHand } of FORMULAS) {
    const result = compileFormula(text, scope, numberOf(DIMENSIONS.LENGTH));
    if (!result.ok) throw new Error(result.problems[0].code);
    const { run } = result.compiled;
    const columns = { values, stride: LAYERS };
    const [program, hand] = mediansInTurn(
      () => {
        for (let i = 0; i < ROUNDS; i++) run(columns, 0, LAYERS, ours);
      },
      () => {
        for (let round = 0; round < ROUNDS; round++) {
          for (let i = 0; i < LAYERS; i++) theirs[i] = byHand(place[i], share[i], width[i], height[i]);
        }
      },
    ).map((time) => (time * 1e6) / ROUNDS / LAYERS);
    const far = ours.reduce((most, value, i) => Math.max(most, Math.abs(value - theirs[i])), 0);
    report(
      `a formula ${name} over 1,000 layers, by hand ${hand.toFixed(1)} ns a layer`,
      `${program.toFixed(1)} ns, ${(program / hand).toFixed(1)}×`,
      'at most 1.5×',
      program / hand <= 1.5 && far < 1e-9,
    );
  }
}
