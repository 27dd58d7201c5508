export { knobsOf, rollVariants, sweepable, type Knob, type VariantWishes } from './variant';
