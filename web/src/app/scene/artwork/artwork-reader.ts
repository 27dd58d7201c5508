import type { FontAtHand } from '@wexikine/core/drawing';
import { createArtworkWorker } from './artwork-worker.factory';
import type { BroughtFile, DrawingWanted, DrawnLayers, FromReader, Heard, ToReader } from './messages';

/** Reading was given up by who asked for it. */
export class Cancelled extends Error {}

type Answer = BroughtFile | DrawnLayers | Heard;

interface Waiting {
  readonly done: (answer: Answer) => void;
  readonly failed: (error: Error) => void;
}

type Asked<T> = T extends unknown ? Omit<T, 'ticket'> : never;

/** Reads files in a worker of its own, which keeps the drawings that it read until it is closed. */
export class ArtworkReader {
  private readonly worker = createArtworkWorker();
  private readonly waiting = new Map<number, Waiting>();
  private tickets = 0;

  constructor() {
    this.worker.onmessage = ({ data }: MessageEvent<FromReader>) => {
      const waiting = this.waiting.get(data.ticket);
      this.waiting.delete(data.ticket);
      if (data.ok) waiting?.done(data.answer);
      else waiting?.failed(new Error(data.message));
    };
    this.worker.onerror = () => this.end(new Error('Reading stopped in this window. Drop the files once more.'));
  }

  read(file: File, fonts: readonly FontAtHand[]): Promise<BroughtFile> {
    return this.ask<BroughtFile>({ type: 'read', file, fonts });
  }

  draw(wanted: DrawingWanted): Promise<DrawnLayers> {
    return this.ask<DrawnLayers>({ type: 'draw', wanted });
  }

  /** Listens to samples of one channel, which are handed over. */
  hear(samples: Float32Array, rate: number): Promise<Heard> {
    return this.ask<Heard>({ type: 'hear', samples, rate }, [samples.buffer]);
  }

  /** Ends the worker, and with it whatever it was doing. */
  close(): void {
    this.end(new Cancelled());
  }

  private end(why: Error): void {
    this.worker.terminate();
    for (const { failed } of this.waiting.values()) failed(why);
    this.waiting.clear();
  }

  private ask<T extends Answer>(question: Asked<ToReader>, handed: Transferable[] = []): Promise<T> {
    const ticket = ++this.tickets;
    return new Promise<T>((done, failed) => {
      this.waiting.set(ticket, { done: done as Waiting['done'], failed });
      this.worker.postMessage({ ...question, ticket }, handed);
    });
  }
}
