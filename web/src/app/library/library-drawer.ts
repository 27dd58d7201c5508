import { DatePipe } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, inject, input, linkedSignal, signal } from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { Router } from '@angular/router';
import { literalWords, type LibraryItem, type Parameter, type SceneSummary } from '@wexikine/core';
import { ApiService, type ApiProblem } from '../api/api.service';
import { GhostTrail } from '../drawing/ghost-trail';
import { readLiteral, writeLiteral } from '../fields/literal';
import { Icon } from '../icons/icon';

/** The specimen's rate, at which the drawer counts frames. */
const RATE = { num: 25, den: 1 };

interface Slider {
  readonly parameter: Parameter;
  readonly text: string;
  readonly words: string;
  readonly unit: string;
  readonly number: number;
  readonly from: number;
  readonly to: number;
  readonly step: number;
}

function numberOf(text: string | undefined): number | null {
  return text === undefined ? null : (readLiteral(text, RATE)?.number ?? null);
}

/** One preset in the drawer: its motion with parameters that can be tried at once, and where to use it. */
@Component({
  selector: 'wx-library-drawer',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DatePipe, GhostTrail, Icon, MatMenuModule],
  templateUrl: './library-drawer.html',
  styleUrl: './library-drawer.scss',
})
export class LibraryDrawer {
  readonly item = input.required<LibraryItem>();

  private readonly api = inject(ApiService);
  private readonly router = inject(Router);
  protected readonly isPlaying = signal(false);
  protected readonly scenes = signal<readonly SceneSummary[]>([]);
  protected readonly problem = signal<string | null>(null);

  /** What was tried, by parameter; forgotten when another preset is chosen. */
  protected readonly tried = linkedSignal<LibraryItem, Readonly<Record<string, string>>>({
    source: this.item,
    computation: () => ({}),
  });

  protected readonly sliders = computed((): Slider[] =>
    this.item().body.parameters.map((parameter) => {
      const text = this.tried()[parameter.name] ?? parameter.default;
      const literal = readLiteral(text, RATE);
      return {
        parameter,
        text,
        words: literalWords(text),
        unit: literal?.unit ?? '',
        number: literal?.number ?? 0,
        from: numberOf(parameter.from ?? parameter.min) ?? 0,
        to: numberOf(parameter.to ?? parameter.max) ?? 100,
        step: numberOf(parameter.step) ?? 1,
      };
    }),
  );

  protected readonly isTried = computed(() => Object.keys(this.tried()).length > 0);

  protected try(name: string, text: string): void {
    this.tried.update((tried) => ({ ...tried, [name]: text }));
  }

  protected slide({ parameter, unit }: Slider, event: Event): void {
    this.try(parameter.name, writeLiteral({ number: Number((event.target as HTMLInputElement).value), unit }));
  }

  protected reset(): void {
    this.tried.set({});
  }

  protected loadScenes(): void {
    this.problem.set(null);
    this.api.scenes().subscribe({
      next: (scenes) => this.scenes.set(scenes),
      error: ({ message }: ApiProblem) => this.problem.set(message),
    });
  }

  protected async useIn(scene: SceneSummary): Promise<void> {
    await this.router.navigate(['/scenes', scene.id], { queryParams: { preset: this.item().id } });
  }
}
