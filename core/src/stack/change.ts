import type { LayerStep, RunRecord, Scene } from '../scene';
import { applyHandEdits } from './hand';
import type { Link, Peeled } from './peel';
import { restack, type Restacked } from './restack';

/** Where a run stands in its scene; −1 where it does not. */
function indexOfRun(scene: Scene, id: string): number {
  return scene.runs.findIndex((run) => run.id === id);
}

/** A link that only carries on what was done by hand. */
function handOnly(link: Link): Link {
  return { ...link, isGone: true };
}

function without({ links }: Peeled, id: string): Link[] {
  return links.map((link) => (link.run.id === id ? handOnly(link) : link));
}

const NOTHING: Restacked = { edits: [], runs: [] };

/** Takes a run out: just its keys go, and what it replaced comes back. What was added by hand stays. */
export function removeRun(scene: Scene, id: string): Restacked {
  const index = indexOfRun(scene, id);
  if (index < 0) return NOTHING;
  return restack(scene, index, scene.runs.toSpliced(index, 1), (peeled) => without(peeled, id));
}

/** The step with the run's own keys as they were changed by hand, so that switching on gives them back. */
function foldHand({ run, step, hand }: Link): LayerStep {
  const prefix = `${run.id}/`;
  const own = new Map(
    [...hand.tracks].map(([channel, { changed, removed }]) => [
      channel,
      {
        changed: new Map([...changed].filter(([key]) => key.startsWith(prefix))),
        removed: new Set([...removed].filter((key) => key.startsWith(prefix))),
        added: [],
      },
    ]),
  );
  return {
    ...step,
    tracks: step.tracks.map((track) => {
      const edits = own.get(track.channel);
      if (!edits) return track;
      const model = { span: { in: hand.in }, rest: {}, tracks: { [track.channel]: track.after } };
      const tracks = new Map([[track.channel, edits]]);
      const { tracks: edited } = applyHandEdits(
        model as never,
        { in: hand.in, span: null, rest: new Map(), tracks },
        () => true,
      );
      return { ...track, after: edited[track.channel] ?? [] };
    }),
  };
}

/** Switches a run off: the scene is as without it, but it stays listed with its keys and what was done to them by hand. */
function switchOff(scene: Scene, index: number): Restacked {
  const run = scene.runs[index];
  const folded = new Map<string, LayerStep>();
  const linksOf = (peeled: Peeled, layer: string): Link[] => {
    const own = peeled.links.find((link) => link.run.id === run.id);
    if (own) folded.set(layer, foldHand(own));
    return without(peeled, run.id);
  };
  const off: RunRecord = { ...run, off: true };
  const { edits, runs } = restack(scene, index, scene.runs.with(index, off), linksOf);
  const steps = run.steps.map((step) => folded.get(step.layer) ?? step);
  const kept: RunRecord = { ...off, steps };
  return {
    edits: edits.map((edit) => (edit.type === 'set-run' && edit.run.id === run.id ? { ...edit, run: kept } : edit)),
    runs: runs.with(index, kept),
  };
}

/** Switches a run on again, in its old place among the others. */
function switchOn(scene: Scene, index: number): Restacked {
  const { off: _off, ...run } = scene.runs[index];
  const steps = new Map(run.steps.map((step) => [step.layer, step]));
  return restack(scene, index, scene.runs.with(index, run), ({ under, links }, layer) => {
    const step = steps.get(layer);
    if (!step) return links;
    const left = step.span?.after.in ?? under.span.in;
    return [{ run, step, hand: { in: left, span: null, rest: new Map(), tracks: new Map() }, isBack: true }, ...links];
  });
}

/** Switches a run off, or on again. */
export function switchRun(scene: Scene, id: string): Restacked {
  const index = indexOfRun(scene, id);
  if (index < 0) return NOTHING;
  return scene.runs[index].off === true ? switchOn(scene, index) : switchOff(scene, index);
}

/** Moves a run to another place among the runs; what both touch then goes to the later one. */
export function moveRun(scene: Scene, id: string, to: number): Restacked {
  const from = indexOfRun(scene, id);
  if (from < 0 || to < 0 || to >= scene.runs.length || from === to) return NOTHING;
  const runs = scene.runs.toSpliced(from, 1).toSpliced(to, 0, scene.runs[from]);
  const places = new Map(runs.map((run, place) => [run.id, place]));
  const placeOf = ({ run }: Link): number => places.get(run.id) ?? 0;
  return restack(scene, Math.min(from, to), runs, ({ links }) => [...links].sort((a, b) => placeOf(a) - placeOf(b)));
}
