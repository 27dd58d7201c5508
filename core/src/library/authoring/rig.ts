import type { ChannelId } from '../../basics/channel';
import { LINEAR } from '../../basics/easing';
import type { Preset } from '../../formulas/preset';
import { dialsPreset, type Rig, type RigFormula } from '../../formulas/rig';

const MOMENT = 'start';

/**
 * A rig as a preset, each formula a row of one cell: what changes parameters of a preset, and finds and renames them in
 * its formulas, does the same for dials.
 */
export function rigAsPreset(rig: Rig): Preset {
  const rows = rig.formulas.map(({ channels, text }) => ({
    channel: channels[0],
    cells: [{ moment: MOMENT, value: text, ease: LINEAR }],
  }));
  return { ...dialsPreset(rig), rows };
}

/** The rig with the dials and the formulas' texts of such a preset. */
export function rigFromPreset(rig: Rig, { parameters, rows }: Preset): Rig {
  const texts = new Map(rows.map(({ channel, cells }) => [channel, cells[0]?.value ?? '']));
  return {
    ...rig,
    dials: [...parameters],
    formulas: rig.formulas.map((formula) => ({ ...formula, text: texts.get(formula.channels[0]) ?? formula.text })),
  };
}

/** The rig with another text for one of its formulas. */
export function setFormula(rig: Rig, index: number, text: string): Rig {
  return { ...rig, formulas: rig.formulas.with(index, { ...rig.formulas[index], text }) };
}

/** The rig with a formula for more channels, which changes nothing yet. */
export function addFormula(rig: Rig, channels: readonly ChannelId[]): Rig {
  const formula: RigFormula = { channels: [...channels], text: 'keyed' };
  return { ...rig, formulas: [...rig.formulas, formula] };
}

/** The rig with other channels for one of its formulas; without any it goes. */
export function setFormulaChannels(rig: Rig, index: number, channels: readonly ChannelId[]): Rig {
  if (channels.length === 0) return { ...rig, formulas: rig.formulas.toSpliced(index, 1) };
  return { ...rig, formulas: rig.formulas.with(index, { ...rig.formulas[index], channels: [...channels] }) };
}

const ROLE = /[^A-Za-z0-9_]/g;

/** The rig with one more role, or with a role under another name, which its formulas follow. */
export function renameRole(rig: Rig, from: string, to: string): Rig {
  const name = to.trim().replace(ROLE, '');
  if (name === '' || name === from || rig.roles.some((role) => role.name === name)) return rig;
  const word = new RegExp(`(?<![\\w.@])${from}(?=\\.)`, 'g');
  return {
    ...rig,
    roles: rig.roles.map((role) => (role.name === from ? { ...role, name } : role)),
    formulas: rig.formulas.map((formula) => ({ ...formula, text: formula.text.replace(word, name) })),
  };
}
