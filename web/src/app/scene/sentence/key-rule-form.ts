import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import {
  CHANNEL_IDS,
  channelOf,
  tracksOf,
  runMoments,
  WHICH_KEYS,
  type ChannelId,
  type KeyRule,
  type Phase,
  type Scene,
} from '@wexikine/core';
import { timeCheck } from '../../fields/checks';
import { ValueField } from '../../fields/value-field';

const PHASES: readonly Phase[] = ['entrance', 'accent', 'throughout', 'exit'];
const WHICH_WORDS: Readonly<Record<KeyRule['which'], string>> = {
  all: 'all of them',
  first: 'each layer’s first moment',
  last: 'each layer’s last moment',
  inner: 'what is in between',
  nth: 'one by its place',
};

/** Which keys are meant: whatever is chosen must hold together. One form for all that picks keys by a rule. */
@Component({
  selector: 'wx-key-rule-form',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [ValueField],
  templateUrl: './key-rule-form.html',
  styles: `
    :host {
      display: grid;
      gap: 10px;
    }
    .chips {
      display: flex;
      flex-wrap: wrap;
      gap: 6px;
      font-weight: 400;
    }
    .two {
      display: grid;
      grid-template-columns: 1fr 1fr;
      gap: 8px;
    }
  `,
})
export class KeyRuleForm {
  readonly rule = input.required<Partial<KeyRule>>();
  readonly scene = input.required<Scene>();
  /** With what only some can choose by: place among the moments, values, keys by hand, keys between frames. */
  readonly isWhole = input(true);
  readonly changed = output<Partial<KeyRule>>();

  protected readonly which = WHICH_KEYS;
  protected readonly whichWords = WHICH_WORDS;
  protected readonly phases = PHASES;
  protected readonly check = computed(() => {
    const check = timeCheck(this.scene().rate);
    return (text: string) => (text.trim() === '' ? null : check(text));
  });
  protected readonly numberCheck = (text: string): string | null =>
    text.trim() === '' || Number.isFinite(Number(text)) ? null : 'Write a plain number, such as 120 or −5.';

  protected readonly placeCheck = (text: string): string | null => {
    const place = Number(text);
    return Number.isInteger(place) && place >= 1 && place <= 999 ? null : 'Write a whole number from 1 to 999.';
  };

  /** Moments of the preset of the run that is chosen. */
  protected readonly moments = computed(() => {
    const run = this.scene().runs.find(({ id }) => id === this.rule().run);
    return this.isWhole() && run ? runMoments(run) : [];
  });

  /** Channels that have keys, those of the rule with them. */
  protected readonly channels = computed(() => {
    const keyed = new Set(this.scene().layers.flatMap((layer) => tracksOf(layer).map(([channel]) => channel)));
    for (const channel of this.rule().channels ?? []) keyed.add(channel);
    return CHANNEL_IDS.filter((channel) => keyed.has(channel));
  });

  protected label(channel: ChannelId): string {
    return channelOf(channel).label;
  }

  protected setRule(part: Partial<KeyRule>): void {
    const kept = Object.entries({ ...this.rule(), ...part }).filter(([, value]) => value !== undefined);
    this.changed.emit(Object.fromEntries(kept) as Partial<KeyRule>);
  }

  protected flip<T>(list: readonly T[] | undefined, item: T): T[] | undefined {
    const next = list?.includes(item) ? list.filter((one) => one !== item) : [...(list ?? []), item];
    return next.length > 0 ? next : undefined;
  }

  protected flipChannel(channel: ChannelId): void {
    this.setRule({ channels: this.flip(this.rule().channels, channel) });
  }

  protected flipPhase(phase: Phase): void {
    this.setRule({ phases: this.flip(this.rule().phases, phase) });
  }

  protected setRun(event: Event): void {
    const { value } = event.target as HTMLSelectElement;
    this.setRule(
      value === 'hand'
        ? { run: undefined, byHand: true, moment: undefined }
        : { run: value === '' ? undefined : value, byHand: undefined, moment: undefined },
    );
  }

  protected setMoment(event: Event): void {
    const { value } = event.target as HTMLSelectElement;
    this.setRule({ moment: value === '' ? undefined : value });
  }

  protected setPlace(text: string): void {
    this.setRule({ nth: Number(text) });
  }

  protected setTime(which: 'from' | 'to', text: string): void {
    this.setRule({ [which]: text.trim() === '' ? undefined : text.trim() });
  }

  protected setLimit(which: 'low' | 'high', text: string): void {
    this.setRule({ [which]: text.trim() === '' ? undefined : Number(text) });
  }
}
