import type { Layer } from '@wexikine/core';
import { STRIP_HEIGHT } from '../sheet/strip-paths';
import type { TimeWindow } from '../sheet/time-window';
import type { SoundState } from './sounds';
import { wavePath } from './wave';

/** Height of sounds behind the ruler, px. */
const RULER_WAVE = 24;

/** How loud a sound is over the stretch of time that is seen, as SVG path data. */
export interface SheetWave {
  readonly id: string;
  readonly name: string;
  /** Across the ruler. */
  readonly d: string;
  /** In the row of its layer. */
  readonly row: string;
}

/** The waves of the sounds of a scene that are at hand. */
export function sheetWaves(
  layers: readonly Layer[],
  sounds: ReadonlyMap<string, SoundState>,
  shown: TimeWindow,
  width: number,
): readonly SheetWave[] {
  return layers.flatMap((layer) => {
    const state = layer.source.type === 'sound' ? sounds.get(layer.source.href) : undefined;
    if (!state || state === 'loading' || 'problem' in state) return [];
    const [d, row] = [RULER_WAVE, STRIP_HEIGHT].map((height) => wavePath(layer, state.peaks, shown, width, height));
    return [{ id: layer.id, name: layer.name, d, row }];
  });
}
