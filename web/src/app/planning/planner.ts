import type { Finding, Plan, RunUpdate } from '@wexikine/core';
import type { FromPlanner, PlanTask, ToPlanner, UpdateTask } from './messages';
import { unpackRun, type PackedRun } from './packed';
import { assemblePlan } from './plan-task';
import type { PlannedRun } from './planned-run';
import { WorkerQueue, type Done, type Job } from './worker-queue';

type Message<T extends FromPlanner['type']> = Extract<FromPlanner, { type: T }>;

/** A dry run that is shown, and as it came: the checker is given it so. */
export interface ShownRun extends PlannedRun {
  readonly packed: PackedRun;
}

/** A planned task with its result. */
export type Planned = Done<PlanTask, ShownRun>;

/** A whole plan that is waited for. */
interface Wish {
  readonly ticket: number;
  readonly job: Job<PlanTask>;
  readonly isAhead: boolean;
  readonly grant: (plan: Plan | null) => void;
  head: Message<'plan'> | null;
  readonly parts: Message<'plan-part'>[];
}

/** Plans recipes: as they are shown, and on demand with all that applying them takes. */
export class Planner extends WorkerQueue<PlanTask, ShownRun> {
  private wishes: readonly Wish[] = [];

  /** The whole plan of a job; null where planning is given up or fails. One that is made ahead is not waited for by anybody yet. */
  whole(job: Job<PlanTask>, isAhead = false): Promise<Plan | null> {
    const ticket = this.nextTicket();
    return new Promise((grant) => {
      this.wishes = [...this.wishes, { ticket, job, isAhead, grant, head: null, parts: [] }];
      this.ask(job.scene, { type: 'plan', ticket, task: job.task });
    });
  }

  override cancel(): void {
    super.cancel();
    this.refuseWishes();
  }

  override close(): void {
    super.close();
    this.refuseWishes();
  }

  protected override message(ticket: number, task: PlanTask): ToPlanner {
    return { type: 'show', ticket, task };
  }

  protected override read(message: FromPlanner): ShownRun | undefined {
    return message.type === 'shown' ? { ...unpackRun(message.packed), packed: message.packed } : undefined;
  }

  protected override isAwaited(ticket: number): boolean {
    return !this.wishes.some((wish) => wish.ticket === ticket && wish.isAhead);
  }

  protected override takeAside(message: FromPlanner): boolean {
    const wish = this.wishes.find(({ ticket }) => ticket === message.ticket);
    if (!wish) return false;
    if (message.type === 'failed') this.grant(message.ticket, null);
    if (message.type === 'plan') wish.head = message;
    if (message.type === 'plan-part') wish.parts.push(message);
    const { head, parts } = wish;
    if (head && parts.length >= head.parts) {
      const plan = assemblePlan(head.plan, parts);
      this.remember(plan.edits, message.ticket);
      this.grant(message.ticket, plan);
    }
    return true;
  }

  private refuseWishes(): void {
    for (const { ticket } of this.wishes) this.grant(ticket, null);
  }

  private grant(ticket: number, plan: Plan | null): void {
    const wish = this.wishes.find((entry) => entry.ticket === ticket);
    this.wishes = this.wishes.filter((entry) => entry !== wish);
    wish?.grant(plan);
  }
}

/** Looks over scenes and dry runs, which are not planned once more for it. */
export class Checker extends WorkerQueue<PackedRun | null, readonly Finding[]> {
  protected override message(ticket: number, run: PackedRun | null): ToPlanner {
    return { type: 'check', ticket, run };
  }

  /** What is looked at is about to change: nobody waits for what would be found, and others need the processor. */
  stop(): void {
    this.giveUp();
  }

  protected override read(message: FromPlanner): readonly Finding[] | undefined {
    return message.type === 'findings' ? message.findings : undefined;
  }
}

/** Brings several runs up to date. */
export class Updater extends WorkerQueue<UpdateTask, readonly RunUpdate[]> {
  protected override message(ticket: number, task: UpdateTask): ToPlanner {
    return { type: 'update', ticket, task };
  }

  protected override read(message: FromPlanner): readonly RunUpdate[] | undefined {
    return message.type === 'updates' ? message.updates : undefined;
  }
}
