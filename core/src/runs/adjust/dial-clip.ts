import type { Ticks } from '../../basics/time';
import { rigIn } from '../../formulas/rig';
import type { Parameter } from '../../formulas/preset';
import type { Key } from '../../scene/layer';
import type { RigRecipe } from '../../scene/recipe';
import type { RunRecord, Scene } from '../../scene/scene';
import type { DialsTurned } from '../rig';
import { rescaled, type KeyClip } from './clip';

type CopiedDial = NonNullable<KeyClip['dials']>[number];

interface Target {
  readonly run: RunRecord;
  readonly dial: Parameter;
}

/** What became of the copied keys of one dial. */
export interface DialReport {
  readonly label: string;
  readonly keys: number;
  /** The rigs whose dial took them; none where none could. */
  readonly rigs: readonly string[];
}

/** The dials that are called as a copied one and are of its kind: those of the same rig, or else of any. */
function targetsOf({ runs }: Scene, copied: CopiedDial): Target[] {
  const alike = runs.flatMap((run): Target[] => {
    if (run.recipe.operation !== 'rig' || !run.rig) return [];
    const dials = rigIn(run.rig.body)?.dials ?? [];
    return dials
      .filter(({ name, kind }) => name === copied.name && kind === copied.kind)
      .map((dial) => ({ run, dial }));
  });
  const own = alike.filter(({ run }) => run.rig?.name === copied.rig);
  return own.length > 0 ? own : alike;
}

/**
 * Puts copied keys of dials on the dials of that name, the first of all copied keys at a time. A dial without keys has
 * only these then; standing keys at the same times give way.
 */
export function pasteDialKeys(
  scene: Scene,
  clip: KeyClip,
  at: Ticks,
): { readonly turned: readonly DialsTurned[]; readonly report: readonly DialReport[] } {
  const scale = rescaled(clip, scene);
  const turned = new Map<string, DialsTurned>();
  const report = (clip.dials ?? []).map((copied): DialReport => {
    const targets = targetsOf(scene, copied);
    const pasted = copied.keys.map(({ after, value, ease }): Key => ({ at: at + scale(after), value, ease }));
    const taken = new Set(pasted.map((key) => key.at));
    for (const { run, dial } of targets) {
      const recipe = turned.get(run.id)?.recipe ?? (run.recipe as RigRecipe);
      const before = recipe.parameters[dial.name];
      const kept = before?.by === 'keys' ? before.keys.filter((key) => !taken.has(key.at)) : [];
      const keys = [...kept, ...pasted].sort((a, b) => a.at - b.at);
      const parameters = { ...recipe.parameters, [dial.name]: { by: 'keys' as const, keys } };
      turned.set(run.id, { run, recipe: { ...recipe, parameters } });
    }
    return { label: copied.label, keys: copied.keys.length, rigs: targets.map(({ run }) => run.rig?.name ?? '') };
  });
  return { turned: [...turned.values()], report };
}

/** What went where, as a sentence: "2 keys pasted on the dial “Calm” of Carry and settle." */
export function dialPasteWords(report: readonly DialReport[]): string {
  const parts = report.map(({ label, keys, rigs }) =>
    rigs.length > 0
      ? `${keys === 1 ? '1 key' : `${keys} keys`} pasted on the dial “${label}” of ${[...new Set(rigs)].join(', ')}`
      : `the dial “${label}” took none: no rig of this scene has one of that name and kind`,
  );
  const text = parts.join('; ');
  return text === '' ? '' : `${text[0].toUpperCase()}${text.slice(1)}.`;
}
