import { Injectable, inject } from '@angular/core';
import {
  isSeen,
  alignLayers,
  anchorTo,
  copyLayers,
  duplicateLayers,
  groupLayers,
  joinWords,
  placeLayers,
  pasteLayers,
  readLayerClip,
  splitAnew,
  splitBox,
  splitWords,
  spreadLayers,
  stageMoment,
  stepDepth,
  topLayers,
  ungroupLayer,
  withInside,
  type AlignSide,
  type Copied,
  type DepthStep,
  type NodePath,
  type Placement,
  type DragSets,
  type Edit,
  type Layer,
  type Point,
  type Scene,
  type SetOut,
  type SplitWay,
  type StageResult,
} from '@wexikine/core';
import { MatDialog } from '@angular/material/dialog';
import { firstValueFrom } from 'rxjs';
import { piecesOf } from '../../drawing/measure-pieces';
import { Teller } from '../actions/teller';
import { DraftStore } from '../draft.store';
import { SceneStore } from '../scene.store';
import { BackgroundDialog, type Background, type BackgroundAnswer } from './background-dialog';
import { countedName, drawnPath, newShape, type ShapeKind } from './new-shapes';
import { SetOutDialog, type SetOutQuestion } from './set-out-dialog';
import { SplitDialog, type SplitGrid } from './split-dialog';
import type { WayChange } from './way-changes';

/** How far a first duplicate is moved, px. */
const ASIDE = 40;

const newId = (): string => `layer-${crypto.randomUUID().slice(0, 18)}`;

/** Ids that are to be selected after a step; null where nothing was done. */
type Selected = readonly string[] | null;

/** What is done with selected layers as they are set out: grouped, copied, aligned, put in front. Each is one step to undo. */
@Injectable()
export class StageActions {
  private readonly store = inject(SceneStore);
  private readonly draft = inject(DraftStore);
  private readonly teller = inject(Teller);
  private readonly dialog = inject(MatDialog);
  /** What was duplicated last, and its copies: how these were moved since is the way for the next ones. */
  private last: { readonly from: string; readonly to: string; readonly all: string } | null = null;

  group(ids: ReadonlySet<string>): Selected {
    const { scene } = this.store;
    if (!scene) return null;
    const result = groupLayers(scene, ids, newId(), countedName(scene, 'Group'));
    if (!result.ok) return this.refuse(result.message);
    return this.do(`Group ${said(scene, ids)}`, result.edits, result.selected);
  }

  ungroup(ids: ReadonlySet<string>): Selected {
    const { scene } = this.store;
    const [group, ...others] = scene ? topLayers(scene, ids) : [];
    if (!scene || !group) return null;
    if (others.length > 0) return this.refuse('Select one group: what is in it comes out.');
    const result = ungroupLayer(scene, group.id);
    if (!result.ok) return this.refuse(result.message);
    return this.do(`Take “${group.name}” apart`, result.edits, result.selected);
  }

  /** Copies, moved aside; once more, by as much as the copies were moved from the first ones. */
  duplicate(ids: ReadonlySet<string>): Selected {
    const { scene } = this.store;
    if (!scene || ids.size === 0) return null;
    const tops = topLayers(scene, ids).map(({ id }) => id);
    const by =
      this.last?.all === tops.join()
        ? (wayBetween(scene, this.last.from, this.last.to) ?? { x: ASIDE, y: ASIDE })
        : { x: ASIDE, y: ASIDE };
    const copied = duplicateLayers(scene, ids, by, newId);
    const done = this.copied(`Duplicate ${said(scene, ids)}`, copied);
    if (done) this.last = { from: tops[0], to: copied.selected[0], all: copied.selected.join() };
    return done;
  }

  /** Layers as text for the clipboard; null where none are selected. */
  copy(ids: ReadonlySet<string>): string | null {
    const { scene } = this.store;
    const clip = scene ? copyLayers(scene, ids) : null;
    if (!scene || !clip) return null;
    this.teller.tell(
      `${said(scene, ids)} can be pasted, here or in another scene.`.replace(/^./, (sign) => sign.toUpperCase()),
    );
    return JSON.stringify(clip);
  }

  /** Pastes layers from text; undefined where it speaks of something else. */
  paste(text: string): Selected | undefined {
    const clip = readLayerClip(text);
    if (clip === null) return undefined;
    const { scene } = this.store;
    if (typeof clip === 'string') return this.refuse(clip);
    if (!scene) return null;
    const isHere = clip.layers.some(({ id }) => scene.layers.some((layer) => layer.id === id));
    const copied = pasteLayers(scene, clip, isHere ? { x: ASIDE, y: ASIDE } : { x: 0, y: 0 }, newId);
    const what = copied.selected.length === 1 ? `“${clip.layers[0].name}”` : `${copied.selected.length} layers`;
    return this.copied(`Paste ${what}`, copied);
  }

  remove(ids: ReadonlySet<string>): Selected {
    const { scene } = this.store;
    if (!scene || ids.size === 0) return null;
    const gone = withInside(scene, ids).filter(({ locked }) => !locked);
    if (gone.length === 0) return this.refuse('What is locked is not removed. Unlock it in the layer panel first.');
    // What is in a group goes before it.
    const edits = [...gone]
      .sort((a, b) => depthOf(scene, b) - depthOf(scene, a))
      .map((layer): Edit => ({ type: 'remove-layer', layer: layer.id }));
    const what = said(scene, ids);
    const done = this.do(`Remove ${what}`, edits, []);
    if (done)
      this.teller.offerUndo(
        `${what} ${topLayers(scene, ids).length === 1 ? 'was' : 'were'} removed.`.replace(/^./, (sign) =>
          sign.toUpperCase(),
        ),
      );
    return done;
  }

  depth(ids: ReadonlySet<string>, step: DepthStep): void {
    const { scene } = this.store;
    if (!scene) return;
    const words = { front: 'to the front', forward: 'forward', backward: 'backward', back: 'to the back' }[step];
    this.do(`Bring ${said(scene, ids)} ${words}`, stepDepth(scene, ids, step), [], 'It is there already.');
  }

  /** Puts layers elsewhere in depth, into a group or out of one. */
  place(ids: ReadonlySet<string>, to: Placement): Selected {
    const { scene } = this.store;
    if (!scene) return null;
    const result = placeLayers(scene, ids, to);
    if (!result.ok) return this.refuse(result.message);
    const group = scene.layers.find(({ id }) => id === to.parent);
    const isNew = scene.layers.some(({ id, parent }) => ids.has(id) && parent !== to.parent);
    const where = !isNew ? 'in depth' : group ? `into “${group.name}”` : 'out of its group';
    return this.do(`Move ${said(scene, ids)} ${where}`, result.edits, result.selected);
  }

  align(ids: ReadonlySet<string>, side: AlignSide, sets: DragSets, at: number): void {
    const { scene } = this.store;
    if (!scene) return;
    const edits = alignLayers(stageMoment(scene, sets, at), ids, side);
    this.do(`Align ${said(scene, ids)} ${side}`, edits, [], 'They are aligned already.');
  }

  spread(ids: ReadonlySet<string>, way: 'across' | 'down', sets: DragSets, at: number): void {
    const { scene } = this.store;
    if (!scene) return;
    const edits = spreadLayers(stageMoment(scene, sets, at), ids, way);
    this.do(`Spread ${said(scene, ids)} ${way}`, edits, [], 'Select three layers or more whose gaps differ.');
  }

  /** Moves the anchor of each layer to a place of its box; no picture moves. */
  anchor(ids: ReadonlySet<string>, place: Point, at: number): void {
    const { scene } = this.store;
    if (!scene) return;
    const moment = stageMoment(scene, 'rest', at);
    const edits = scene.layers.flatMap((layer, index) =>
      ids.has(layer.id) && !layer.locked ? anchorTo(moment, index, place) : [],
    );
    this.do(`Set the anchor of ${said(scene, ids)}`, edits, [], 'The anchor is there already.');
  }

  /** Every layer that can be taken hold of: not in a group, not locked, not hidden. */
  all(): readonly string[] {
    const layers = this.store.scene?.layers ?? [];
    return layers
      .filter((layer) => isSeen(layer) && layer.parent === null && !layer.locked && !layer.hidden)
      .map(({ id }) => id);
  }

  /** Asks for the background of the frame. */
  async background(): Promise<void> {
    const { scene } = this.store;
    if (!scene) return;
    const asked = this.dialog.open<BackgroundDialog, Background, BackgroundAnswer>(BackgroundDialog, {
      data: scene.background ?? null,
      width: '520px',
    });
    const answer = await firstValueFrom(asked.afterClosed());
    if (answer) this.store.do('Set the background', [{ type: 'set-scene', fields: answer }]);
  }

  /** Locks, hides, or makes guides of layers, all alike: off only where all are on. */
  flip(ids: ReadonlySet<string>, what: 'locked' | 'hidden' | 'guide'): void {
    const { scene } = this.store;
    const layers = scene?.layers.filter(({ id }) => ids.has(id)) ?? [];
    if (!scene || layers.length === 0) return;
    const isOn = (layer: Layer): boolean => (what === 'guide' ? layer.kind === 'guide' : layer[what]);
    const next = !layers.every(isOn);
    const edits = layers.map((layer): Edit => ({
      type: 'set-layer',
      layer: layer.id,
      fields: what === 'guide' ? { kind: next ? 'guide' : kindOf(layer) } : { [what]: next },
    }));
    const words = {
      locked: next ? 'Lock' : 'Unlock',
      hidden: next ? 'Hide' : 'Show',
      guide: next ? 'Make a guide of' : 'Show again',
    }[what];
    this.do(`${words} ${said(scene, ids)}`, edits, []);
  }

  /** Hides all others that are not in or around what is selected; done once more, shows all. */
  onlyThese(ids: ReadonlySet<string>): void {
    const { scene } = this.store;
    if (!scene || ids.size === 0) return;
    const kept = new Set(withInside(scene, ids).map(({ id }) => id));
    for (const layer of scene.layers)
      if (kept.has(layer.id))
        for (let up = layer.parent; up !== null;) {
          kept.add(up);
          up = scene.layers.find(({ id }) => id === up)?.parent ?? null;
        }
    const others = scene.layers.filter(({ id }) => !kept.has(id));
    const isAlone = others.every(({ hidden }) => hidden);
    const edits = others
      .filter(({ hidden }) => hidden === isAlone)
      .map((layer): Edit => ({ type: 'set-layer', layer: layer.id, fields: { hidden: !isAlone } }));
    this.do(isAlone ? 'Show all layers' : `Show only ${said(scene, ids)}`, edits, []);
  }

  add(kind: ShapeKind, at: Point | null): Selected {
    const { scene } = this.store;
    if (!scene) return null;
    const layer = newShape(scene, kind, at ?? { x: scene.width / 2, y: scene.height / 2 }, newId());
    return this.do(`Add “${layer.name}”`, [{ type: 'add-layer', index: scene.layers.length, layer }], [layer.id]);
  }

  /** A path that was drawn by pen, as a layer of its own on top. */
  addPath(path: NodePath): Selected {
    const { scene } = this.store;
    const layer = scene ? drawnPath(scene, path, newId()) : null;
    if (!scene || !layer) return null;
    return this.do(`Draw “${layer.name}”`, [{ type: 'add-layer', index: scene.layers.length, layer }], [layer.id]);
  }

  /** Words into letters, words or lines; each part stands where it stood. */
  split(ids: ReadonlySet<string>, by: SplitWay): Selected {
    const { scene } = this.store;
    const [layer, ...others] = scene ? topLayers(scene, ids) : [];
    if (!scene || !layer) return null;
    if (others.length > 0 || layer.source.type !== 'text') return this.refuse('Select one layer of words.');
    const result = splitWords(scene, layer.id, by, piecesOf(layer, layer.source, by));
    const done = this.stage(`Split “${layer.name}” into ${by}`, result);
    // The sentence is about the parts, whatever the words will say.
    if (done) this.draft.pick({ by: 'group', group: layer.id });
    return done;
  }

  /** A picture or a card into columns and rows. */
  async splitBox(ids: ReadonlySet<string>): Promise<Selected> {
    const { scene } = this.store;
    const [layer, ...others] = scene ? topLayers(scene, ids) : [];
    if (!scene || !layer) return null;
    if (others.length > 0) return this.refuse('Select one picture or one card.');
    const asked = this.dialog.open<SplitDialog, undefined, SplitGrid>(SplitDialog, { width: '420px' });
    const grid = await firstValueFrom(asked.afterClosed());
    if (!grid) return null;
    const { columns, rows } = grid;
    return this.stage(
      `Split “${layer.name}” into ${columns} × ${rows}`,
      splitBox(this.store.scene ?? scene, layer.id, columns, rows),
    );
  }

  /** Changes the ways along which layers go, all of them together. */
  changeWays(ids: ReadonlySet<string>, { label, edits }: WayChange): void {
    const { scene } = this.store;
    if (!scene) return;
    const what = said(scene, ids);
    const nothing = 'No way was changed. That needs keys of the position, and layers that are not locked.';
    this.do(`${label}: the way of ${what}`, edits(scene, ids), [], nothing);
  }

  /** Asks how layers are to stand in the frame and in time. */
  async setOut(ids: ReadonlySet<string>): Promise<void> {
    const { scene } = this.store;
    if (!scene) return;
    const layers = topLayers(scene, ids).filter(({ locked, kind }) => !locked && kind !== 'sound');
    if (layers.length < 2) return void this.refuse('Select two layers or more that are not locked.');
    const kind = layers.every(({ source }) => source.type === 'picture') ? 'pictures' : 'layers';
    const data = { scene, ids: new Set(layers.map(({ id }) => id)), what: `${layers.length} ${kind}` };
    const asked = this.dialog.open<SetOutDialog, SetOutQuestion, SetOut>(SetOutDialog, {
      data,
      width: '720px',
      maxWidth: '94vw',
    });
    const made = await firstValueFrom(asked.afterClosed());
    if (made) this.do(`Set out ${data.what}`, made.edits, []);
  }

  /** Puts words together again that were split. */
  join(ids: ReadonlySet<string>): Selected {
    const { scene } = this.store;
    const [group] = scene ? topLayers(scene, ids) : [];
    if (!scene || !group) return null;
    const pieces = group.split ? piecesOf(group, group.split.source, group.split.by) : [];
    return this.stage(`Join “${group.name}” again`, joinWords(scene, group.id, pieces));
  }

  /** Writes words anew: of a layer, or of a group that words were split into, whose parts follow. */
  write(id: string, text: string): void {
    const { scene } = this.store;
    const layer = scene?.layers.find((one) => one.id === id);
    if (!scene || !layer) return;
    if (layer.source.type === 'text') {
      if (layer.source.text === text) return;
      const source = { ...layer.source, text };
      this.do(`Set the words of “${layer.name}”`, [{ type: 'set-layer', layer: id, fields: { source } }], []);
    } else if (layer.split && layer.split.source.text !== text) {
      const source = { ...layer.split.source, text };
      this.stage(
        `Set the words of “${layer.name}”`,
        splitAnew(scene, id, source, piecesOf(layer, source, layer.split.by)),
      );
    }
  }

  private stage(label: string, result: StageResult): Selected {
    return result.ok ? this.do(label, result.edits, result.selected) : this.refuse(result.message);
  }

  private copied(label: string, { edits, selected }: Copied): Selected {
    return this.do(label, edits, selected);
  }

  private refuse(message: string): null {
    this.teller.tell(message);
    return null;
  }

  private do(label: string, edits: readonly Edit[], selected: readonly string[], nothing = ''): Selected {
    if (edits.length === 0) return nothing === '' ? null : this.refuse(nothing);
    return this.store.do(label, edits) ? selected : null;
  }
}

/** Layers by name, or how many. */
function said(scene: Scene, ids: ReadonlySet<string>): string {
  const tops = topLayers(scene, ids);
  return tops.length === 1 ? `“${tops[0].name}”` : `${tops.length} layers`;
}

function depthOf({ layers }: Scene, layer: Layer): number {
  let depth = 0;
  for (let up = layer.parent; up !== null; depth++) up = layers.find(({ id }) => id === up)?.parent ?? null;
  return depth;
}

/** What a layer is by what it shows. */
function kindOf({ source }: Layer): Layer['kind'] {
  return source.type === 'text'
    ? 'word'
    : source.type === 'picture'
      ? 'picture'
      : source.type === 'none'
        ? 'group'
        : 'card';
}

function wayBetween({ layers }: Scene, from: string, to: string): Point | null {
  const [a, b] = [from, to].map((id) => layers.find((layer) => layer.id === id));
  if (!a || !b) return null;
  const by = (id: 'position.x' | 'position.y'): number => (b.rest[id] ?? 0) - (a.rest[id] ?? 0);
  const way = { x: by('position.x'), y: by('position.y') };
  return way.x === 0 && way.y === 0 ? null : way;
}
