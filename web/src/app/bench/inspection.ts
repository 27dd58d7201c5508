import {
  cellScope,
  compilePreset,
  formatChannelValue,
  formatFrames,
  momentScope,
  type ChannelId,
  type PresetProblem,
  type Preset,
  type Rate,
  type Scope,
  type Shelf,
} from '@wexikine/core';
import type { Specimen } from '../drawing/specimen';

/** What the formulas of a preset come to on the specimen's first layer, and what is wrong with them. */
export interface Inspection {
  readonly problems: readonly PresetProblem[];
  /** Resolved value of a cell, for people; undefined where there is none. */
  readonly cell: (channel: ChannelId, moment: string) => string | undefined;
  /** Time of a moment from the preset's beginning, for people. */
  readonly moment: (id: string) => string | undefined;
  readonly cellProblem: (channel: ChannelId, moment: string) => PresetProblem | undefined;
  readonly momentProblem: (id: string) => PresetProblem | undefined;
  readonly parameterProblem: (name: string) => PresetProblem | undefined;
  readonly movementProblem: (id: string, field: string) => PresetProblem | undefined;
}

/** Looks at a preset through a specimen that it is on. */
export function inspect(preset: Preset, shelf: Shelf, { plan, scene }: Specimen): Inspection {
  const result = compilePreset(preset, shelf);
  const problems = result.ok ? [] : result.problems;
  const first = plan.layers[0];
  const layer = scene.layers.find(({ id }) => id === first?.layer);
  const runId = plan.run?.id;
  const find = (matches: (problem: PresetProblem) => boolean): PresetProblem | undefined => problems.find(matches);
  return {
    problems,
    cell: (channel, moment) => {
      const slot = `${channel}/${moment}`;
      const key = layer?.tracks[channel]?.find(({ by }) => by?.run === runId && by?.slot === slot);
      return key && formatChannelValue(channel, key.value);
    },
    moment: (id) => {
      const index = preset.moments.findIndex((moment) => moment.id === id);
      const at = first?.moments[index];
      return at === undefined ? undefined : formatFrames(at, scene.rate);
    },
    cellProblem: (channel, moment) =>
      find(({ place }) => place.part === 'cell' && place.channel === channel && place.moment === moment),
    momentProblem: (id) => find(({ place }) => place.part === 'moment' && place.moment === id),
    movementProblem: (id, field) =>
      find(({ place }) => place.part === 'movement' && place.movement === id && place.field === field),
    parameterProblem: (name) => find(({ place }) => place.part === 'parameter' && place.name === name),
  };
}

/** Names that a formula of a preset may read: in a cell of a channel, or in a moment's time. */
export function scopeFor(preset: Preset, channel: ChannelId | null): Scope {
  return channel === null ? momentScope(preset) : cellScope(preset, channel);
}

/** A rate for people: "25 fps". */
export function rateWords({ num, den }: Rate): string {
  return `${Number((num / den).toFixed(3))} fps`;
}
