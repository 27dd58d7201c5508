import { isPresetRecipe, type Recipe } from '@wexikine/core';

/** What the guide looks at to know that a step is done. */
export interface GuideState {
  readonly recipe: Recipe | null;
  readonly isLive: boolean;
  readonly isPlaying: boolean;
  readonly isApplied: boolean;
  /** How many runs the scene had when the guide began, and has now. */
  readonly runsAtFirst: number;
  readonly runs: number;
}

/** A step of the guided first batch. */
export interface GuideStep {
  readonly title: string;
  readonly text: string;
  /** What to look at, as a CSS selector within the screen. */
  readonly at: string;
  readonly isDone: (now: GuideState, before: GuideState) => boolean;
}

function presetOf({ recipe }: GuideState): string | null {
  return recipe && isPresetRecipe(recipe) ? recipe.preset.id : null;
}

function spacingOf({ recipe }: GuideState): string {
  return recipe && isPresetRecipe(recipe) ? JSON.stringify(recipe.spacing) : '';
}

/** The first batch in five steps; `before` is how things were when the step began. */
export const GUIDE_STEPS: readonly GuideStep[] = [
  {
    title: 'See what the sentence would do',
    text: 'The sentence on top says: this preset, on these twelve layers, one after the other. Press “Dry run on 12”. Nothing is changed by it.',
    at: '.act .main',
    isDone: ({ isLive }) => isLive,
  },
  {
    title: 'Choose another preset',
    text: 'Every underlined part is a field. Click the name of the preset and take another one, such as “Pop in five steps”.',
    at: '[data-field="preset"]',
    isDone: (now, before) => presetOf(now) !== presetOf(before),
  },
  {
    title: 'Change the gap',
    text: 'Click “4 f” and type 8, or drag the number sideways. Each layer now starts 8 frames after the one before.',
    at: '[data-field="spacing"]',
    isDone: (now, before) => spacingOf(now) !== spacingOf(before),
  },
  {
    title: 'Watch it',
    text: 'Close the field with Escape and press Space, or the play button under the picture.',
    at: 'wx-transport .play',
    isDone: ({ isPlaying }) => isPlaying,
  },
  {
    title: 'Apply it',
    text: 'Press “Apply to 12”, or Ctrl and Enter. One undo takes all of it back, and in the panel “Runs” it can be changed at any time.',
    at: '.act .main',
    isDone: ({ runs, runsAtFirst }) => runs > runsAtFirst,
  },
];
