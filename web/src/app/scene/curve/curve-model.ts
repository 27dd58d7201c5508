import { computed, type Signal } from '@angular/core';
import {
  channelOf,
  formatChannelValue,
  formatShort,
  isDialLayer,
  type ChannelId,
  type CompiledRigs,
  type HandChange,
  type HandPicks,
  type Scene,
  type Ticks,
} from '@wexikine/core';
import type { TimeAxis } from '../sheet/time-axis';
import { curveLines, MOST_OTHERS, type CurveLine } from './curve-lines';
import {
  createScale,
  gridLines,
  handleMarks,
  hasOneUnit,
  scalesFor,
  speedPath,
  speedRange,
  speedsOf,
  upWords,
  valuePath,
  type HandleMark,
  type ValueRange,
} from './curve-shape';

/** Room to the left, for the names of values; to the right; and below, for the ruler, px. */
export const ROOM = { left: 66, right: 12, below: 20 } as const;
const GRID_PX = 32;

/** What is drawn of the curves. */
export type CurveShow = 'value' | 'speed' | 'both';

/** A key on its line. */
export interface KeyMark {
  readonly id: string;
  readonly line: CurveLine;
  readonly at: Ticks;
  readonly x: number;
  readonly y: number;
  readonly isPicked: boolean;
  readonly isNew: boolean;
  readonly label: string;
}

/** A change that is tried while the pointer is down. */
export interface Tried {
  readonly label: string;
  readonly change: HandChange;
  readonly scene: Scene;
}

/** What the picture of curves is made of. */
export interface CurveSource {
  readonly scene: Signal<Scene>;
  readonly selected: Signal<string | null>;
  readonly channels: Signal<readonly ChannelId[]>;
  readonly rigs: Signal<CompiledRigs | null>;
  /** The run whose keys are marked as new. */
  readonly runId: Signal<string | null>;
  readonly show: Signal<CurveShow>;
  readonly isEach: Signal<boolean>;
  readonly canEdit: Signal<boolean>;
  readonly range: Signal<ValueRange | null>;
  readonly picks: Signal<HandPicks>;
  readonly trial: Signal<Tried | null>;
  /** Whether other layers with picked keys are drawn behind the selected one. */
  readonly hasOthers: Signal<boolean>;
  readonly size: Signal<{ readonly width: number; readonly height: number }>;
  readonly axis: TimeAxis;
}

/** The picture of curves: lines, scales, speeds, keys and handles, as they are drawn. */
export class CurveModel {
  constructor(private readonly source: CurveSource) {}

  private readonly drawn = computed(() => this.source.trial()?.scene ?? this.source.scene());
  private readonly shownPicks = computed(() => this.source.trial()?.change.picks ?? this.source.picks());

  readonly room = computed(() => ({
    width: Math.max(10, this.source.size().width - ROOM.left - ROOM.right),
    height: Math.max(20, this.source.size().height - ROOM.below),
    window: this.source.axis.window(),
  }));
  readonly lines = computed(() => this.linesOf(this.drawn(), this.shownPicks(), this.source.trial() === null));
  private readonly standingLines = computed(() => this.linesOf(this.source.scene(), this.source.picks(), true));

  private linesOf(scene: Scene, picks: HandPicks, hasRigs: boolean): CurveLine[] {
    const { selected, channels, rigs, hasOthers } = this.source;
    const most = hasOthers() ? MOST_OTHERS : 0;
    return curveLines(scene, selected(), picks, channels(), hasRigs ? rigs() : null, most);
  }

  readonly isEachOwn = computed(() => this.source.isEach() || !hasOneUnit(this.lines()));
  /** The scales stay where they are while something is dragged. */
  readonly scales = computed(() =>
    scalesFor(
      this.source.trial() ? this.standingLines() : this.lines(),
      this.room(),
      this.isEachOwn(),
      this.source.range(),
    ),
  );
  readonly lead = computed(() => this.lines().find(({ isOwn }) => isOwn) ?? this.lines().at(-1) ?? null);
  /** Each own line, and all others of a channel as one: hundreds of elements would keep the page waiting. */
  readonly paths = computed(() => {
    if (this.source.show() === 'speed') return [];
    const lines = this.lines();
    const others = new Map<ChannelId, string>();
    const own: { id: string; isOwn: boolean; family: string; d: string }[] = [];
    for (const line of lines) {
      const scale = this.scales().get(line.id);
      if (!scale) continue;
      const d = valuePath(line, scale, this.room(), lines.length);
      if (line.isOwn) own.push({ id: line.id, isOwn: true, family: familyOf(line.channel), d });
      else others.set(line.channel, (others.get(line.channel) ?? '') + d);
    }
    const behind = [...others].map(([channel, d]) => ({ id: channel, isOwn: false, family: familyOf(channel), d }));
    return [...behind, ...own];
  });
  /** What the keys alone give, where a rig drives a line: drawn behind it. */
  readonly alone = computed(() =>
    this.source.show() === 'speed'
      ? []
      : this.lines().flatMap(({ id, drawn, keys, ...line }) => {
          const scale = this.scales().get(id);
          if (!scale || !line.isOwn || keys.length === 0 || drawn === keys) return [];
          return [{ id, d: valuePath({ ...line, id, keys, drawn: keys }, scale, this.room()) }];
        }),
  );
  private readonly speeds = computed(() =>
    this.source.show() === 'value'
      ? []
      : this.lines()
          .filter(({ isOwn }) => isOwn)
          .map((line) => ({ line, speeds: speedsOf(line, this.room()) })),
  );
  /** Speeds on one scale about 0 where they have one unit, else each on its own. */
  private readonly speedScales = computed(() => {
    const all = this.speeds();
    const most = (list: typeof all): number =>
      Math.max(1e-9, ...list.flatMap(({ speeds }) => speeds.map(([, v]) => Math.abs(v))));
    return all.map((one) => {
      const range = speedRange(most(this.isEachOwn() ? [one] : all), this.room());
      // What rises on screen rises in speed, too.
      const isDown = this.scales().get(one.line.id)?.isDown === true;
      return createScale(range, this.room().height, isDown);
    });
  });
  readonly speedPaths = computed(() =>
    this.speeds().map(({ line, speeds }, i) => ({
      id: line.id,
      family: familyOf(line.channel),
      d: speedPath(speeds, this.speedScales()[i], this.room()),
    })),
  );
  readonly grid = computed(() => {
    const lead = this.lead();
    const count = Math.max(2, Math.floor(this.room().height / GRID_PX));
    if (!lead) return [];
    if (this.source.show() === 'speed') {
      const scale = this.speedScales()[0];
      return scale ? gridLines(lead.channel, scale, count, '/s') : [];
    }
    const scale = this.scales().get(lead.id);
    return scale ? gridLines(lead.channel, scale, count) : [];
  });
  /** The greatest speed of what is seen, where speeds are drawn over values. */
  readonly fastest = computed(() => {
    const [first] = this.speeds();
    if (!first || this.source.show() !== 'both') return '';
    const most = Math.max(...first.speeds.map(([, speed]) => Math.abs(speed)));
    return `dashed: speed, at most ${formatChannelValue(first.line.channel, most)}/s`;
  });
  readonly up = computed(() =>
    this.source.show() === 'speed'
      ? '↑ speed'
      : upWords(
          this.lines().filter(({ isOwn }) => isOwn),
          this.scales(),
        ),
  );

  /** The keys of the selected layer. */
  readonly marks = computed((): KeyMark[] => {
    if (this.source.show() === 'speed') return [];
    return this.lines().flatMap((line) => {
      const scale = this.scales().get(line.id);
      if (!scale || !line.isOwn) return [];
      const picked = this.shownPicks().get(line.layer.id)?.get(line.channel);
      return line.keys.flatMap(({ at, value, by }): KeyMark[] => {
        const [x, isPicked] = [this.source.axis.xAt(at), picked?.has(at) === true];
        if (x < -8 || x > this.room().width + 8) return [];
        const isNew = this.source.runId() !== null && by?.run === this.source.runId();
        const name = isDialLayer(line.layer.id)
          ? line.layer.name
          : `${line.layer.name}, ${channelOf(line.channel).label}`;
        const label = `${name} at ${formatShort(at, this.source.scene().rate)}: ${formatChannelValue(line.channel, value)}`;
        return [{ id: `${line.id} ${at}`, line, at, x, y: scale.yOf(value), isPicked, isNew, label }];
      });
    });
  });
  /** The picked keys of other layers, as one path of points. */
  readonly otherKeys = computed(() => {
    if (this.source.show() === 'speed') return '';
    return this.lines()
      .filter(({ isOwn }) => !isOwn)
      .flatMap(({ id, layer, channel, keys }) => {
        const [scale, picked] = [this.scales().get(id), this.shownPicks().get(layer.id)?.get(channel)];
        if (!scale || !picked) return [];
        return keys
          .filter(({ at }) => picked.has(at))
          .map(({ at, value }) => `M${this.source.axis.xAt(at).toFixed(1)} ${scale.yOf(value).toFixed(1)}h0`);
      })
      .join('');
  });
  readonly handles = computed((): HandleMark[] => {
    if (!this.source.canEdit() || this.source.show() === 'speed') return [];
    return this.lines().flatMap((line) => {
      const scale = this.scales().get(line.id);
      const picked = this.shownPicks().get(line.layer.id)?.get(line.channel);
      return scale && picked && line.isOwn ? handleMarks(line, picked, scale, this.room()) : [];
    });
  });
}

function familyOf(channel: ChannelId): string {
  return channelOf(channel).family.replace(' ', '-');
}
