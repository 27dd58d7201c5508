import { Injectable } from '@angular/core';
import { ticksFromSeconds, type Ticks } from '@wexikine/core';
import { BehaviorSubject } from 'rxjs';
import { ask } from '../../files/ask';
import { keepFile } from '../../files/keep-file';
import { ArtworkReader } from '../artwork/artwork-reader';
import type { Heard } from '../artwork/messages';

/** A sound that was decoded, and what was heard in it. */
export interface DecodedSound extends Heard {
  readonly buffer: AudioBuffer;
}

/** What became of a sound: still being decoded, at hand, or why it is not. */
export type SoundState = DecodedSound | 'loading' | { readonly problem: string };

const RATE = 44_100;
const MOST_SECONDS = 3_600;

async function decode(bytes: ArrayBuffer): Promise<AudioBuffer> {
  try {
    return await new OfflineAudioContext(1, 1, RATE).decodeAudioData(bytes);
  } catch {
    throw new Error('this browser cannot decode it. Save it as WAV, MP3, Ogg or FLAC');
  }
}

/** One channel of a sound: the mean of all. */
function mono(buffer: AudioBuffer): Float32Array {
  const mean = new Float32Array(buffer.length);
  for (let channel = 0; channel < buffer.numberOfChannels; channel++) {
    const samples = buffer.getChannelData(channel);
    for (let i = 0; i < mean.length; i++) mean[i] += samples[i] / buffer.numberOfChannels;
  }
  return mean;
}

/** Sounds that scenes use, decoded once, with their loudness and their beats. */
@Injectable({ providedIn: 'root' })
export class Sounds {
  private readonly states = new BehaviorSubject<ReadonlyMap<string, SoundState>>(new Map());
  /** What is known of each sound, by its address. */
  readonly states$ = this.states.asObservable();

  /** Keeps a file that was brought. Gives its address and how long it is; throws with the reason. */
  async keep(file: File, name: string): Promise<{ readonly href: string; readonly length: Ticks }> {
    const buffer = await decode(await file.arrayBuffer());
    if (buffer.duration > MOST_SECONDS) throw new Error('it is longer than an hour. Cut it first');
    const href = await keepFile(file, name, {});
    return { href, length: Math.max(1, ticksFromSeconds(buffer.duration)) };
  }

  /** Sees to it that sounds are decoded; each is asked for once. */
  want(addresses: readonly string[]): void {
    for (const href of addresses) if (!this.states.value.has(href)) void this.load(href);
  }

  private async load(href: string): Promise<void> {
    this.set(href, 'loading');
    const reader = new ArtworkReader();
    try {
      const answer = await ask(`/api/${href}`);
      if (!answer.ok) throw new Error('its file is gone. Bring it in once more');
      const buffer = await decode(await answer.arrayBuffer());
      this.set(href, { buffer, ...(await reader.hear(mono(buffer), buffer.sampleRate)) });
    } catch (error) {
      this.set(href, { problem: error instanceof Error ? error.message : 'it cannot be read' });
    } finally {
      reader.close();
    }
  }

  private set(href: string, state: SoundState): void {
    this.states.next(new Map(this.states.value).set(href, state));
  }
}
