import type { LibraryItem, Scene } from '@wexikine/core';
import { Subject, type Observable } from 'rxjs';
import type { FromPlanner, ToPlanner } from './messages';

/** Something to be worked out for a scene. */
export interface Job<T> {
  readonly scene: Scene;
  readonly task: T;
}

/** What came out of a job, with the very scene, task and library that it was done for. */
export interface Done<T, R> extends Job<T> {
  readonly items: readonly LibraryItem[];
  /** Null when the work itself failed, which is a bug. */
  readonly result: R | null;
}

/** The part of a worker that planning needs. */
export type PlanPort = Pick<Worker, 'postMessage' | 'addEventListener' | 'terminate'>;

/**
 * Works in a worker, one job at a time; while one runs, only the newest of those that wait is kept, so that dragging
 * a number never piles up work.
 */
export abstract class WorkerQueue<T, R> {
  private readonly subject = new Subject<Done<T, R>>();
  readonly done$: Observable<Done<T, R>> = this.subject.asObservable();
  private running: (Job<T> & { readonly items: readonly LibraryItem[] }) | null = null;
  private waiting: Job<T> | null = null;
  private sentScene: Scene | null = null;
  private ticket = 0;
  private jobTicket = 0;
  private items: readonly LibraryItem[] = [];
  private port: PlanPort;

  constructor(private readonly open: () => PlanPort) {
    this.port = this.listen();
  }

  setLibrary(items: readonly LibraryItem[]): void {
    this.items = items;
    this.send({ type: 'library', items });
  }

  request(job: Job<T>): void {
    if (this.running) this.waiting = job;
    else this.start(job);
  }

  /** Gives up what runs and what waits: the worker is ended and another one takes its place. */
  cancel(): void {
    this.waiting = null;
    if (!this.running) return;
    this.running = null;
    this.port.terminate();
    this.port = this.listen();
    this.sentScene = null;
    this.send({ type: 'library', items: this.items });
  }

  close(): void {
    this.port.terminate();
    this.subject.complete();
  }

  protected abstract message(ticket: number, task: T): ToPlanner;

  /** The result of the job with a message; undefined while more is to come. */
  protected abstract read(message: FromPlanner): R | null | undefined;

  /** Takes a message that answers none of the queue's jobs. */
  protected takeAside(_message: FromPlanner): boolean {
    return false;
  }

  private listen(): PlanPort {
    const port = this.open();
    port.addEventListener('message', (event) => this.receive(port, (event as MessageEvent<FromPlanner>).data));
    return port;
  }

  private start(job: Job<T>): void {
    this.running = { ...job, items: this.items };
    this.ask(job.scene, this.message((this.jobTicket = this.nextTicket()), job.task));
  }

  /** Sends a question about a scene, and before it the scene where the worker does not have it. */
  protected ask(scene: Scene, message: ToPlanner): void {
    if (this.sentScene !== scene) {
      this.send({ type: 'scene', scene });
      this.sentScene = scene;
    }
    this.send(message);
  }

  protected nextTicket(): number {
    return ++this.ticket;
  }

  private receive(port: PlanPort, message: FromPlanner): void {
    const job = this.running;
    if (port !== this.port || this.takeAside(message)) return;
    if (!job || message.ticket !== this.jobTicket) return;
    const result = message.type === 'failed' ? null : this.read(message);
    if (result === undefined) return;
    this.running = null;
    const next = this.waiting;
    this.waiting = null;
    if (next) this.start(next);
    this.subject.next({ ...job, result });
  }

  private send(message: ToPlanner): void {
    this.port.postMessage(message);
  }
}
