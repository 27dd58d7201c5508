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
  perUnit,
  carryPicks,
  poseAt,
  poseAtEnds,
  poseToRest,
  TICKS_PER_SECOND,
  readKeyClip,
  removePicks,
  setPickedValues,
  setRests,
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
import { DialKeys, perDialUnit, type DialsChange } from './dial-keys';
import { firstOf, stillThere } from './picks';

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
  /** Picked keys; those that are gone are no longer picked. */
  readonly picks$: Observable<HandPicks> = combineLatest([this.store.scene$, this.picked]).pipe(
    map(([scene, picks]) => (scene ? stillThere(scene, picks) : NOTHING)),
    distinctUntilChanged(),
  );

  get scene(): Scene {
    const { scene } = this.store;
    if (!scene) throw new Error('No scene is open.');
    return scene;
  }

  get picks(): HandPicks {
    return stillThere(this.scene, this.picked.value);
  }

  pick(picks: HandPicks): void {
    this.picked.next(picks);
  }

  unpick(): void {
    this.picked.next(NOTHING);
    this.dials.pick(NOTHING);
  }

  /** What is picked, in words. */
  words(): string {
    const count = countPicks(this.picks) + countPicks(this.dials.picks);
    return count === 1 ? '1 key' : `${count} keys`;
  }

  /** Does a change of picked keys, of layers and of dials in one step, and picks them where they then are. */
  change(label: string, { edits, picks }: HandChange, dials?: DialsChange): void {
    const all = [...edits, ...(dials?.edits ?? [])];
    if (all.length === 0) return;
    this.store.do(label, all);
    this.pick(picks);
    if (dials) this.dials.pick(dials.picks);
    this.did.next();
  }

  moveBy(by: Ticks): void {
    const dials = this.dials.changed((key) => ({ ...key, at: key.at + by }));
    this.change(`Move ${this.words()} by ${this.timeWords(by)}`, movePicks(this.scene, this.picks, by), dials);
  }

  timeWords(by: Ticks): string {
    return `${by < 0 ? '−' : '+'}${formatFrames(Math.abs(by), this.scene.rate)}`;
  }

  remove(): void {
    const dials = this.dials.changed(() => null);
    this.change(`Remove ${this.words()}`, removePicks(this.scene, this.picks), dials);
  }

  /** A time to move by (+8f, −1s), or to which the first picked key goes (1:10). Gives what is wrong with it, or null. */
  typeTime(text: string): string | null {
    const read = parseTimeEntry(text, this.scene.rate);
    if (!read.ok) return 'Write a time such as +8f, -1s or 1:10.';
    const first = Math.min(firstOf(this.picks), firstOf(this.dials.picks));
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
    const set = of === 'keys' ? setPickedValues : setRests;
    const label = of === 'keys' ? `Set the values of ${this.words()}` : 'Set the rest pose';
    const made = set(this.scene, this.picks, (value, channel) => change(value * perUnit(channel)) / perUnit(channel));
    const { rate } = this.scene;
    const dials = this.dials.changed((key, dial) => {
      const per = perDialUnit(dial, rate);
      return { ...key, value: change(key.value * per) / per };
    });
    this.change(label, made, of === 'keys' ? dials : undefined);
    return null;
  }

  /** Keys at a time, of all layers with picked keys, or of some others where none is picked. */
  pose(pose: Pose, at: Ticks, others: Iterable<string>): void {
    const layers = new Set(this.picks.size > 0 ? this.picks.keys() : others);
    this.change(POSE_LABELS[pose], posed(this.scene, layers, Math.round(at), pose));
  }

  /** The picked values carried to the next key, or to the one before. */
  carry(to: 'next' | 'previous'): void {
    const label = to === 'next' ? 'Hold until the next key' : 'There from the key before';
    this.change(`${label}: ${this.words()}`, carryPicks(this.scene, this.picks, to));
  }

  /** The picked keys once more, the first of each layer at a time. */
  repeatAt(at: Ticks): void {
    const layers = [...this.picks.keys()];
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
    if (targets.length === 0) return this.teller.tell('Select a layer, or pick some in the sentence, to paste onto.');
    const { edits, report } = pasteKeys(this.scene, clip, targets, way);
    if (edits.length > 0) this.store.do('Paste keys', edits);
    this.teller.tell(pasteWords(this.scene, report));
  }
}
