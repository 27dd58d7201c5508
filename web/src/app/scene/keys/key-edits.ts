import { Injectable, inject } from '@angular/core';
import {
  applyTimeEntry,
  copyKeys,
  countPicks,
  formatFrames,
  movePicks,
  parseTimeEntry,
  pasteKeys,
  pasteWords,
  carryPicks,
  poseAt,
  poseAtEnds,
  poseToRest,
  TICKS_PER_SECOND,
  dialPasteWords,
  isDialLayer,
  pasteDialKeys,
  readKeyClip,
  removePicks,
  setPickedValues,
  setRests,
  withDialLayers,
  type Edit,
  type HandChange,
  type HandPicks,
  type KeyClip,
  type PasteWay,
  type Scene,
  type Ticks,
} from '@wexikine/core';
import { BehaviorSubject, combineLatest, distinctUntilChanged, map, Subject, type Observable } from 'rxjs';
import { Teller } from '../actions/teller';
import { enterMany } from '../../fields/many-entry';
import { SceneStore } from '../scene.store';
import { DialKeys } from './dial-keys';
import { firstOf, keyUnit, stillThere } from './picks';

const NOTHING: HandPicks = new Map();

/** What a typed value is for. */
export type ValueOf = 'keys' | 'rest';

/** Keys of a pose that can be asked for. */
export type Pose = 'as it is' | 'rest' | 'to rest' | 'ends';

const POSE_LABELS: Readonly<Record<Pose, string>> = {
  'as it is': 'Key the pose at the playhead',
  rest: 'Rest at the playhead',
  'to rest': 'From the playhead to rest',
  ends: 'Key the in and out points',
};
/** How long it takes from a pose to rest, where that is asked for in one step. */
const TO_REST = TICKS_PER_SECOND;

function posed(scene: Scene, layers: ReadonlySet<string>, at: Ticks, pose: Pose): HandChange {
  if (pose === 'ends') return poseAtEnds(scene, layers);
  return pose === 'to rest' ? poseToRest(scene, layers, at, TO_REST) : poseAt(scene, layers, at, pose);
}

/** The keys that are picked, in whatever view, and what can be done with them. Each change is one step to undo. */
@Injectable()
export class KeyEdits {
  private readonly store = inject(SceneStore);
  private readonly teller = inject(Teller);
  private readonly dials = inject(DialKeys);
  private readonly picked = new BehaviorSubject<HandPicks>(NOTHING);
  private readonly did = new Subject<void>();
  /** Each change, as it is done. */
  readonly changed$ = this.did.asObservable();
  private readonly copied = new BehaviorSubject<KeyClip | null>(null);
  readonly clip$ = this.copied.asObservable();
  /** What is told of, see `told$`. */
  private readonly told = new BehaviorSubject<HandPicks>(NOTHING);
  /** Picked keys; those that are gone are no longer picked. */
  readonly picks$ = this.stillIn(this.picked);
  /**
   * The same for what only tells about them, a frame after a press: a press that picks a thousand is seen first where it
   * was made. After a change it is told at once where the keys then are.
   */
  readonly told$ = this.stillIn(this.told);

  get scene(): Scene {
    const { scene } = this.store;
    if (!scene) throw new Error('No scene is open.');
    return scene;
  }

  /** The scene with a layer for each dial that has keys: what is done with keys is done with those of dials, too. */
  get keyScene(): Scene {
    return withDialLayers(this.scene);
  }

  get picks(): HandPicks {
    return stillThere(this.keyScene, this.picked.value);
  }

  pick(picks: HandPicks): void {
    this.picked.next(picks);
    requestAnimationFrame(() => this.told.next(this.picked.value));
  }

  unpick(): void {
    this.pick(NOTHING);
  }

  /** What is picked, in words. */
  words(): string {
    const count = countPicks(this.picks);
    return count === 1 ? '1 key' : `${count} keys`;
  }

  /** What a change comes to: edits of layers as they are, those of dials as edits of their runs. */
  editsOf({ edits }: HandChange): readonly Edit[] {
    return this.dials.editsOf(this.scene, edits);
  }

  /** Does a change of picked keys, of layers and of dials in one step, and picks them where they then are. */
  change(label: string, made: HandChange): void {
    const { picks } = made;
    const all = this.editsOf(made);
    if (all.length === 0) return;
    this.store.do(label, all);
    this.picked.next(picks);
    this.told.next(picks);
    this.did.next();
  }

  moveBy(by: Ticks): void {
    this.change(`Move ${this.words()} by ${this.timeWords(by)}`, movePicks(this.keyScene, this.picks, by));
  }

  timeWords(by: Ticks): string {
    return `${by < 0 ? '−' : '+'}${formatFrames(Math.abs(by), this.scene.rate)}`;
  }

  remove(): void {
    this.change(`Remove ${this.words()}`, removePicks(this.keyScene, this.picks));
  }

  /** A time to move by (+8f, −1s), or to which the first picked key goes (1:10). Gives what is wrong with it, or null. */
  typeTime(text: string): string | null {
    const read = parseTimeEntry(text, this.scene.rate);
    if (!read.ok) return 'Write a time such as +8f, -1s or 1:10.';
    const first = firstOf(this.picks);
    this.moveBy(applyTimeEntry(read.entry, first) - first);
    return null;
  }

  /**
   * A value for all picked keys, or how each changes (+20, ×2); or for the rest pose of their layers on their channels.
   * Gives what is wrong with it, or null.
   */
  typeValue(text: string, of: ValueOf = 'keys'): string | null {
    const change = enterMany(text);
    if (!change) return 'Write a number such as 120, or +20 to change each by 20.';
    if (of === 'rest') {
      const made = setRests(this.scene, this.picks, (value, channel) => {
        const per = keyUnit(this.scene, null, channel);
        return change(value * per) / per;
      });
      this.change('Set the rest pose', made);
      return null;
    }
    const scene = this.keyScene;
    const made = setPickedValues(scene, this.picks, (value, channel, { id }) => {
      const per = keyUnit(scene, id, channel);
      return change(value * per) / per;
    });
    this.change(`Set the values of ${this.words()}`, made);
    return null;
  }

  /** Keys at a time, of all layers with picked keys, or of some others where none is picked. */
  pose(pose: Pose, at: Ticks, others: Iterable<string>): void {
    const picked = this.pickedLayers();
    const layers = new Set(picked.length > 0 ? picked : others);
    this.change(POSE_LABELS[pose], posed(this.scene, layers, Math.round(at), pose));
  }

  /** The picked values carried to the next key, or to the one before. */
  carry(to: 'next' | 'previous'): void {
    const label = to === 'next' ? 'Hold until the next key' : 'There from the key before';
    this.change(`${label}: ${this.words()}`, carryPicks(this.keyScene, this.picks, to));
  }

  /** Layers with picked keys. */
  pickedLayers(): string[] {
    return [...this.picks.keys()].filter((id) => !isDialLayer(id));
  }

  /** The picked keys once more, the first of each layer at a time. */
  repeatAt(at: Ticks): void {
    const layers = this.pickedLayers();
    if (this.copy() === null) return;
    this.pasteOnto(layers, { at: { by: 'time', time: Math.round(at) }, values: 'absolute', channel: null });
  }

  /** The picked keys as readable text, kept to be pasted; null where none is picked. */
  copy(): string | null {
    const clip = copyKeys(this.scene, this.picks);
    if (!clip) return null;
    this.copied.next(clip);
    this.teller.tell(`${this.words()} copied.`.replace(/^./, (letter) => letter.toUpperCase()));
    return JSON.stringify(clip, null, 1);
  }

  /** Takes keys from text; says what is wrong with it, and gives null. */
  take(text: string): KeyClip | null {
    const read = readKeyClip(text);
    if (typeof read === 'string') {
      this.teller.tell(read);
      return null;
    }
    this.copied.next(read);
    return read;
  }

  /** Pastes what was copied onto layers, and reports what went where. */
  pasteOnto(targets: readonly string[], way: PasteWay): void {
    const clip = this.copied.value;
    if (!clip) return;
    const dials = this.pastedDials(clip, way);
    const isForLayers = clip.layers.length > 0;
    if (isForLayers && targets.length === 0) {
      return this.teller.tell('Select a layer, or pick some in the sentence, to paste onto.');
    }
    const { edits, report } = isForLayers ? pasteKeys(this.scene, clip, targets, way) : { edits: [], report: [] };
    const all = [...edits, ...dials.edits];
    if (all.length > 0) this.store.do('Paste keys', all);
    this.teller.tell([isForLayers ? pasteWords(this.scene, report) : '', dials.words].join(' ').trim());
  }

  /** Keys of dials go to the time that was asked for, or as long after the scene's beginning as they stood. */
  private pastedDials(clip: KeyClip, { at }: PasteWay): { readonly edits: readonly Edit[]; readonly words: string } {
    const { turned, report } = pasteDialKeys(this.scene, clip, at.by === 'time' ? at.time : 0);
    return { edits: this.dials.turn(turned), words: dialPasteWords(report) };
  }

  private stillIn(picked: Observable<HandPicks>): Observable<HandPicks> {
    return combineLatest([this.store.scene$, picked]).pipe(
      map(([scene, picks]) => (scene ? stillThere(withDialLayers(scene), picks) : NOTHING)),
      distinctUntilChanged(),
    );
  }
}
