import { CHANNELS } from '../../basics/channel';
import { limited, propertyOf, px, variable } from './css';
import { decimal } from './keyframes';
import { TYPED_STYLE } from './page-words';

/** Registers every channel as a number, so that the browser interpolates it, and keeps it from being inherited. */
const REGISTRATIONS = CHANNELS.map(
  ({ id, default: standard }) =>
    `@property ${propertyOf(id)} { syntax: '<number>'; inherits: false; initial-value: ${decimal(standard)} }`,
).join('\n');

/** What is drawn of a layer itself takes its channels from it; layers inside a group have their own. */
const TAKEN = CHANNELS.map(({ id }) => `${propertyOf(id)}: inherit`).join('; ');

const [START, END] = [limited('stroke.start'), limited('stroke.end')];

/** Styles that every exported page has. */
export const BASE_STYLE = `
${REGISTRATIONS}
@property --live { syntax: '<number>'; inherits: false; initial-value: 1 }
html, body { height: 100%; overflow: hidden }
body { margin: 0; background: #3c3c3a }
.frame { position: absolute; left: 0; top: 0; overflow: hidden; background: #000; transform-origin: 0 0 }
.layer, .own, .own > * { position: absolute; left: 0; top: 0; width: ${px('size.x')}; height: ${px('size.y')} }
.layer {
  opacity: calc(${variable('opacity')} * var(--live));
  transform-origin: 0 0;
  transform: translate(${px('position.x')}, ${px('position.y')})
    rotate(calc(${variable('rotation')} * 1deg)) skewX(calc(${variable('skew')} * 1deg))
    scale(${variable('scale.x')}, ${variable('scale.y')})
    translate(calc(${variable('anchor.x')} * ${variable('size.x')} * -1px),
      calc(${variable('anchor.y')} * ${variable('size.y')} * -1px));
}
.own, .own * { ${TAKEN} }
.word { display: flex; align-items: center; white-space: pre;
  letter-spacing: ${px('letterSpacing')} }
.word > span { position: static; flex: none; width: auto; height: auto }
${TYPED_STYLE}
.middle > span { margin-left: ${px('letterSpacing')} }
.right > span { margin-right: calc(${px('letterSpacing')} * -1) }
.left { justify-content: flex-start; text-align: left }
.middle { justify-content: center; text-align: center }
.right { justify-content: flex-end; text-align: right }
.own > svg { overflow: visible }
.picture { overflow: hidden; border-radius: ${px('corner')} }
.picture > :is(img, video) { position: absolute;
  --fits: calc(max(${variable('size.x')} / var(--w), ${variable('size.y')} / var(--h)) * ${limited('crop.zoom')});
  width: calc(var(--w) * var(--fits) * 1px); height: calc(var(--h) * var(--fits) * 1px);
  left: calc(-1px * min(var(--w) * var(--fits) - ${variable('size.x')},
    max(0, ${limited('crop.x')} * var(--w) * var(--fits) - ${variable('size.x')} / 2)));
  top: calc(-1px * min(var(--h) * var(--fits) - ${variable('size.y')},
    max(0, ${limited('crop.y')} * var(--h) * var(--fits) - ${variable('size.y')} / 2)));
}
.line { fill: none; stroke-linejoin: round;
  --part: calc(max(${START}, ${END}) - min(${START}, ${END}));
  stroke-width: ${px('stroke.width')} }
.trim { stroke-width: calc(${variable('stroke.width')} * min(1, var(--part) * 1000000) * 1px);
  stroke-dasharray: var(--part) max(0, 1 - var(--part));
  stroke-dashoffset: calc(-1 * (min(${START}, ${END}) + ${variable('stroke.shift')})) }
.tint, .edge, .inset { border-radius: ${px('corner')} }
.round > .tint, .round > .edge, .round > .inset { border-radius: 50% }
.tint { opacity: ${limited('tint.amount')} }
.edge { box-sizing: border-box; padding: ${px('border.width')};
  left: calc(-1px * var(--out) * ${variable('border.width')}); top: calc(-1px * var(--out) * ${variable('border.width')});
  width: calc((${variable('size.x')} + 2 * var(--out) * ${variable('border.width')}) * 1px);
  height: calc((${variable('size.y')} + 2 * var(--out) * ${variable('border.width')}) * 1px);
  border-radius: calc((${variable('corner')} + var(--out) * ${variable('border.width')}) * min(1, ${variable('corner')} * 1000000) * 1px);
  mask: linear-gradient(#000 0 0) content-box exclude, linear-gradient(#000 0 0) }
.controls { position: fixed; left: 0; right: 0; bottom: 0; display: flex; gap: 12px; align-items: center;
  padding: 8px 14px; background: rgb(20 24 25 / 72%); color: #f1ecdf; font: 14px/1.4 system-ui, sans-serif }
.controls[hidden] { display: none }
.controls button { min-width: 72px; padding: 6px 14px; border: 0; border-radius: 16px; background: #f3c98b; color: #1d2629; font: inherit; font-weight: 600; cursor: pointer }
.controls input { flex: 1; accent-color: #f3c98b }
.controls output { min-width: 64px; text-align: right; font-variant-numeric: tabular-nums }
`;
