import { formatChannelValue } from '../../basics/channel';
import { formatFrames, formatShort, frameTicks } from '../../basics/time';
import { describePresetProblem } from '../../formulas/preset';
import type { Scene } from '../../scene/scene';
import type { Finding } from './finding';

const NAMES_SHOWN = 3;

function nameLayers(scene: Scene, ids: readonly string[]): string {
  const names = new Map(scene.layers.map(({ id, name }) => [id, name]));
  const shown = ids.slice(0, NAMES_SHOWN).map((id) => `“${names.get(id) ?? id}”`);
  const rest = ids.length - shown.length;
  if (rest > 0) return `${shown.join(', ')} and ${rest} more`;
  return shown.length > 1 ? `${shown.slice(0, -1).join(', ')} and ${shown[shown.length - 1]}` : shown[0];
}

function counted(count: number, singular: string, plural: string): string {
  return count === 1 ? singular : `${count} ${plural}`;
}

function adjustedWords({ changed, gone }: Extract<Finding, { code: 'adjusted' }>): string {
  const parts = [
    ...(changed > 0 ? [`${counted(changed, '1 is', 'are')} other than before`] : []),
    ...(gone > 0 ? [`${counted(gone, '1 is', 'are')} gone`] : []),
  ];
  return parts.length === 0 ? 'all of them are as they were' : parts.join(', ');
}

function aboutMany(scene: Scene, ids: readonly string[], one: string, many: string): string {
  return `${nameLayers(scene, ids)} ${ids.length === 1 ? one : many}`;
}

const WHY_NOT = {
  frames: 'Each needs at least one frame.',
  'before-scene': 'The first would have to begin before the scene does.',
  longer: 'Even all at once they need longer.',
} as const;

const CANNOT_HOLD = {
  time: 'a time beyond the 147 days that can be held exactly. Shorten the gap, the length or the number of layers.',
  value: 'a value too large to be held. Look at the parameters.',
  keys: 'more than 100,000 keys on one channel. Take fewer layers or a shorter time.',
} as const;

const MOVEMENT_TROUBLES = {
  'no-gravity': 'without gravity above 0 it would never come down. Set a gravity such as 5000.',
  'never-rests':
    'it must give back at least 0 % and less than 100 % of its speed; at 100 % or more it would never come to rest.',
  'never-settles': 'without damping it would swing for ever. Set a damping above 0, such as 0.3.',
  'no-pace': 'a spring that swings 0 times a second does not move. Set a pace such as 2Hz.',
} as const;

/** A finding as a sentence: what, where, and what to do. */
export function describeFinding(finding: Finding, scene: Scene): string {
  const { rate } = scene;
  switch (finding.code) {
    case 'nothing-picked':
      return 'No layer is picked. Choose layers by tag, name or kind, or tick them in the run sheet.';
    case 'unknown-preset':
      return `The library has no preset “${finding.id}”. Choose another one.`;
    case 'unknown-rig':
      return `The library has no rig “${finding.id}”. Choose another one.`;
    case 'wrong-phase':
      return `“${finding.preset}” is made for another part (${finding.phase}) than “${finding.operation.replace('-', ' ')}”. Choose the verb that goes with it.`;
    case 'draft-preset':
      return `“${finding.preset}” is a draft. It can be tried here; publish it to apply it.`;
    case 'preset-broken':
      return `“${finding.preset}” cannot run. ${describePresetProblem(finding.problem)}`;
    case 'movement-trouble':
      return `${finding.movement} on ${nameLayers(scene, finding.layers)}: ${MOVEMENT_TROUBLES[finding.why]}`;
    case 'rig-broken':
      return `The rig “${finding.rig}” cannot run. ${finding.message}`;
    case 'look-broken':
      return `The look “${finding.look}” cannot be put on. ${finding.message}`;
    case 'rig-circle':
      return `${nameLayers(scene, finding.layers)} wait for each other in a circle on ${finding.channels.join(', ')}, so their keys stand there. Let one of them read what another gave a moment ago on a layer that is not rigged.`;
    case 'rig-not-finite':
      return `The formula for ${finding.channel} gives no finite number for ${nameLayers(scene, finding.layers)} at ${formatShort(finding.at, rate)}; what the keys give is drawn. Look for a division by 0.`;
    case 'rig-idle':
      return finding.why === 'no-keys'
        ? `${aboutMany(scene, finding.layers, 'has', 'have')} no keys on these channels, so there is no arrival to carry on from. Bring ${finding.layers.length === 1 ? 'it' : 'them'} in first, or choose other channels.`
        : `${aboutMany(scene, finding.layers, 'arrives', 'arrive')} without any speed, so there is nothing to carry on. Let the last easing arrive with speed, such as linear.`;
    case 'no-path':
      return `${aboutMany(scene, finding.layers, 'has', 'have')} no motion path to go along. Give ${finding.layers.length === 1 ? 'it' : 'them'} one in the layer panel.`;
    case 'no-words':
      return `${aboutMany(scene, finding.layers, 'has', 'have')} no words, so there are no letters to show one by one. Pick words.`;
    case 'no-number-shown':
      return `${aboutMany(scene, finding.layers, 'shows', 'show')} no number. Write # in ${finding.layers.length === 1 ? 'its' : 'their'} words and tick the number in the layer panel.`;
    case 'nothing-to-turn':
      return finding.what === 'thin-out'
        ? 'The picked layers have no more than two keys on any of these channels. There is nothing to thin out.'
        : 'No rig drives the picked layers on these channels. Pick layers that a rig is on.';
    case 'turned-into-keys':
      return `${finding.keys === 1 ? 'One key' : `${finding.keys} keys`}; at worst ${formatChannelValue(finding.channel, finding.error)} off, on ${nameLayers(scene, finding.layers)} at ${formatShort(finding.at, rate)}.`;
    case 'bad-field':
      return `${finding.field}: “${finding.text}” does not work. ${finding.message}`;
    case 'unknown-parameter':
      return `“${finding.preset}” has no parameter @${finding.name}. Take it out of the sentence.`;
    case 'locked':
      return aboutMany(scene, finding.layers, 'is locked and stays as it is.', 'are locked and stay as they are.');
    case 'hidden':
      return aboutMany(scene, finding.layers, 'is hidden and stays as it is.', 'are hidden and stay as they are.');
    case 'guides':
      return aboutMany(scene, finding.layers, 'is a guide and takes no part.', 'are guides and take no part.');
    case 'vanished':
      return `${counted(finding.layers.length, 'One picked layer is', 'picked layers are')} no longer in the scene.`;
    case 'left-alone':
      return aboutMany(
        scene,
        finding.layers,
        'has keys already and is left alone.',
        'have keys already and are left alone.',
      );
    case 'outside-layer':
      return `${aboutMany(scene, finding.layers, 'has', 'have')} keys up to ${formatFrames(finding.by, rate)} outside ${finding.layers.length === 1 ? 'the layer’s span' : 'their spans'}, first at ${formatShort(finding.at, rate)}. Make ${finding.layers.length === 1 ? 'the layer' : 'them'} longer or start earlier.`;
    case 'outside-scene':
      return `${aboutMany(scene, finding.layers, 'ends', 'end')} up to ${formatFrames(finding.by, rate)} outside the scene. Shorten the gap or lengthen the scene.`;
    case 'entrance-meets-exit':
      return `${aboutMany(scene, finding.layers, 'starts its exit', 'start their exits')} ${formatFrames(finding.by, rate)} before the entrance ends, at ${formatShort(finding.at, rate)}. Move the exit or shorten the entrance.`;
    case 'twice':
      return finding.operation === 'bring-in'
        ? `${aboutMany(scene, finding.layers, 'appears', 'appear')} twice: an earlier run brings ${finding.layers.length === 1 ? 'it' : 'them'} in too, from ${formatShort(finding.at, rate)}. Take the place of that entrance, or remove the earlier run.`
        : `${aboutMany(scene, finding.layers, 'leaves', 'leave')} twice: an earlier run sends ${finding.layers.length === 1 ? 'it' : 'them'} out too, from ${formatShort(finding.at, rate)}. Take the place of that exit, or remove the earlier run.`;
    case 'cannot-hold':
      return `${nameLayers(scene, finding.layers)} would get ${CANNOT_HOLD[finding.what]}`;
    case 'too-short':
      return `${aboutMany(scene, finding.layers, 'has', 'have')} too few frames for every moment at ${formatShort(finding.at, rate)}; moments that fell on one frame became one. Make it last longer.`;
    case 'limited':
      return `@${finding.parameter} was brought within its limits for ${nameLayers(scene, finding.layers)}.`;
    case 'not-finite':
      return `${finding.slot} gives no finite number for ${nameLayers(scene, finding.layers)}; the rest pose stands in. Look at the formula.`;
    case 'off-grid':
      return `${aboutMany(scene, finding.layers, 'has', 'have')} keys between frames, first at ${formatShort(finding.at, rate)}.`;
    case 'cannot-meet':
      return `${finding.field}: ${formatShort(finding.wanted, rate)} cannot be met. ${WHY_NOT[finding.why]} The nearest that can is ${formatShort(finding.nearest, rate)}.`;
    case 'no-cues':
      return `There is no cue at or after ${formatShort(finding.at, rate)}. Add cues, or choose another spacing.`;
    case 'cues-run-out':
      return `There are ${finding.cues} cues for ${finding.places} starts; the later ones go on as the last two cues are apart. Add cues, or pick fewer layers.`;
    case 'no-data':
      return `${aboutMany(scene, finding.layers, 'has', 'have')} nothing in the data column “${finding.column}” and ${finding.layers.length === 1 ? 'takes' : 'take'} the preset’s default. Paste data for ${finding.layers.length === 1 ? 'it' : 'them'}.`;
    case 'no-distance':
      return `${aboutMany(scene, finding.layers, 'does', 'do')} not travel, so no length follows from a speed; the preset’s own length stands in.`;
    case 'one-place':
      return `${nameLayers(scene, finding.layers)} share one place in the order, so ${finding.of === 'starts' ? 'they start together' : 'none differs from the next'}. Choose another order, such as left to right.`;
    case 'unknown-pick':
      return 'The scene no longer has the saved pick that this names. Choose another one.';
    case 'unknown-run':
      return 'This run is no longer in the scene. Somebody removed it; look at the list of runs.';
    case 'revision-missing':
      return `Revision ${finding.revision} of “${finding.preset}” is no longer in the library. Take the newest revision instead.`;
    case 'short-for-both':
      return `${aboutMany(scene, finding.layers, 'becomes', 'become')} too short for entrance and exit, first at ${formatShort(finding.at, rate)}. Make ${finding.layers.length === 1 ? 'it' : 'them'} longer, or shorten both.`;
    case 'no-room':
      return `${aboutMany(scene, finding.layers, 'would end', 'would end')} before it begins, at ${formatShort(finding.at, rate)}. Choose another time.`;
    case 'nothing-to-adjust':
      return 'No key of the picked layers meets this rule. Choose other keys, channels or times.';
    case 'adjusted':
      return `${counted(finding.keys, '1 key', 'keys')} on ${counted(finding.on, '1 layer', 'layers')} adjusted; ${adjustedWords(finding)}.`;
    case 'rounded':
      return `${counted(finding.keys, '1 key was', 'keys were')} between frames and moved by at most ${Number(((finding.most / frameTicks(rate)) * 100).toFixed(1))} % of a frame.`;
    case 'nothing-to-pass':
      return finding.what === 'motion'
        ? `${nameLayers(scene, [finding.layer])} has no keys, so there is no motion to pass on. Bring it in first, or choose another layer.`
        : `${nameLayers(scene, [finding.layer])} has no data to pass on. Fill in its row first, or choose another layer.`;
    case 'nothing-to-clear':
      return 'No key of the picked layers meets the conditions. Nothing would change.';
    case 'too-many-copies':
      return `That would be ${finding.count.toLocaleString('en')} layers; at most ${finding.most.toLocaleString('en')} are possible. Make fewer copies, or of less.`;
    case 'source-gone':
      return 'The layer that others are to look like is no longer there. Choose another one.';
    case 'item-gone':
      return `The ${finding.kind} that this style uses is not in the library. Choose another one.`;
    case 'no-number':
      return `${aboutMany(scene, finding.layers, 'has', 'have')} no number in the data column “${finding.column}” and ${finding.layers.length === 1 ? 'keeps its own' : 'keep their own'}. Write one such as 4 there.`;
    case 'no-part':
      return `${aboutMany(scene, finding.layers, 'has', 'have')} no ${finding.part} whose colour could go on step by step, so nothing changes there. Choose another part of the look, such as tint, or give ${finding.layers.length === 1 ? 'it' : 'them'} one first.`;
    case 'no-colour':
      return `${aboutMany(scene, finding.layers, 'has', 'have')} no colour in the data column “${finding.column}” and ${finding.layers.length === 1 ? 'keeps its own' : 'keep their own'}. Write one such as #f3c98b there.`;
    case 'file-gone':
      return `${aboutMany(scene, finding.layers, 'shows a file that is', 'show files that are')} no longer kept. Bring the file in again, or replace it in the layer panel.`;
    case 'matte-gone':
      return `${aboutMany(scene, finding.layers, 'is', 'are')} seen through a layer that is no longer there, so nothing of ${finding.layers.length === 1 ? 'it' : 'them'} shows. Choose another matte, or take it away.`;
    case 'with-group':
      return aboutMany(scene, finding.layers, 'moves with its group.', 'move with their groups.');
    case 'kept-by-hand':
      return `${counted(finding.keys, 'One key', 'keys')} changed by hand on ${nameLayers(scene, finding.layers)} ${finding.keys === 1 ? 'stays as it is' : 'stay as they are'}.`;
    case 'collide':
      return `${nameLayers(scene, finding.layers)} run into each other on screen, first at ${formatShort(finding.at, rate)}. Widen the gap or change the order.`;
    case 'ends-off-frame':
      return `${aboutMany(scene, finding.layers, 'comes', 'come')} to rest outside the frame, at ${formatShort(finding.at, rate)}. Move the rest pose into the frame.`;
    case 'uncovered':
      return `${aboutMany(scene, finding.layers, 'leaves', 'leave')} part of the frame uncovered, first at ${formatShort(finding.at, rate)}. Scale it up, or turn it less.`;
    case 'flashes':
      return `The picture flashes more than three times in a second over a large part of the frame, first at ${formatShort(finding.at, rate)}: ${nameLayers(scene, finding.layers)}. Flashes like these can cause seizures; make the changes slower, smaller or fainter.`;
    case 'big-steps':
      return `${aboutMany(scene, finding.layers, 'jumps', 'jump')} up to ${Math.round(finding.step)} px in one frame, at ${formatShort(finding.at, rate)}, too far for the eye to follow. Make it last longer.`;
    case 'curve-waiting':
      return `The curve “${finding.name}” has a newer revision: ${finding.to}. ${counted(finding.keys, '1 key still has', 'keys still have')} an older one.`;
    case 'update-waiting':
      return finding.from === finding.to
        ? `A curve or house value that “${finding.preset}” uses was changed since this run. See what it would change.`
        : `“${finding.preset}” has a newer revision: ${finding.to}, this run uses ${finding.from}. See what it would change.`;
  }
}
