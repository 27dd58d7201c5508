export { planClear, replayClear } from './clear';
