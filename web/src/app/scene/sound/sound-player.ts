import { Injectable, inject, type OnDestroy } from '@angular/core';
import { secondsFromTicks, type Layer, type Ticks } from '@wexikine/core';
import { Subscription } from 'rxjs';
import { PlayerStore } from '../player.store';
import { Sounds, type SoundState } from './sounds';

/** A sound that lies further from the playhead than this is put right, seconds. */
const OFF = 0.1;

interface Playing {
  readonly node: AudioBufferSourceNode;
  readonly gain: GainNode;
  /** Time of the context at which second 0 of the file was, or would have been, heard. */
  readonly zero: number;
}

/** Plays the sounds of a scene along with the playhead: at its pace, and not where it runs back. */
@Injectable()
export class SoundPlayer implements OnDestroy {
  private readonly player = inject(PlayerStore);
  private readonly sounds = inject(Sounds);
  private context: AudioContext | null = null;
  private layers: readonly Layer[] = [];
  private states: ReadonlyMap<string, SoundState> = new Map();
  private readonly playing = new Map<string, Playing>();
  private isOn = false;
  private pace = 1;
  private last: Ticks = 0;
  private readonly all = new Subscription();

  constructor() {
    this.all.add(this.sounds.states$.subscribe((states) => (this.states = states)));
    this.all.add(
      this.player.way$.subscribe(({ pace }) => {
        this.pace = pace;
        this.stop();
      }),
    );
    this.all.add(
      this.player.isPlaying$.subscribe((isOn) => {
        this.isOn = isOn;
        if (!isOn) return this.stop();
        this.context ??= this.layers.length > 0 ? new AudioContext() : null;
        void this.context?.resume();
        this.last = this.player.time;
        this.hear(this.player.time);
      }),
    );
    this.all.add(this.player.time$.subscribe((time) => this.hear(time)));
  }

  ngOnDestroy(): void {
    this.all.unsubscribe();
    this.stop();
    void this.context?.close();
  }

  /** The layers of the scene that are heard. */
  setLayers(layers: readonly Layer[]): void {
    const heard = layers.filter(({ source, hidden }) => source.type === 'sound' && !hidden);
    if (heard.length === this.layers.length && heard.every((layer, i) => layer === this.layers[i])) return;
    this.layers = heard;
    this.sounds.want(this.layers.flatMap(({ source }) => (source.type === 'sound' ? [source.href] : [])));
    this.stop();
    if (this.isOn) this.hear(this.player.time);
  }

  private hear(time: Ticks): void {
    const isBack = time < this.last;
    this.last = time;
    if (!this.isOn || !this.context) return;
    for (const layer of this.layers) {
      const isWithin = time >= layer.span.in && time < layer.span.out;
      if (!isWithin || isBack) this.end(layer.id);
      else this.keepUp(layer, time, this.context);
    }
  }

  private keepUp(layer: Layer, time: Ticks, context: AudioContext): void {
    const { source } = layer;
    const state = source.type === 'sound' ? this.states.get(source.href) : undefined;
    if (source.type !== 'sound' || !state || state === 'loading' || 'problem' in state) return;
    const within = secondsFromTicks(source.from + time - layer.span.in);
    const known = this.playing.get(layer.id);
    if (known && Math.abs((context.currentTime - known.zero) * this.pace - within) < OFF) return;
    this.end(layer.id);
    if (within >= state.buffer.duration) return;
    const [node, gain] = [context.createBufferSource(), context.createGain()];
    node.buffer = state.buffer;
    node.playbackRate.value = this.pace;
    gain.gain.value = source.gain;
    node.connect(gain).connect(context.destination);
    node.start(0, within);
    this.playing.set(layer.id, { node, gain, zero: context.currentTime - within / this.pace });
  }

  private end(layer: string): void {
    const known = this.playing.get(layer);
    if (!known) return;
    known.node.stop();
    known.gain.disconnect();
    this.playing.delete(layer);
  }

  private stop(): void {
    for (const layer of [...this.playing.keys()]) this.end(layer);
  }
}
