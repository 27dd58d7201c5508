/**
 * What a ready path does where it is put: it ends where the layer rests and comes from beyond the frame, begins there and
 * leaves the frame, or begins and ends there.
 */
export type PathFit = 'in' | 'out' | 'round';

/** A path that ships: its line in px of a frame 1000 wide, the place of rest at 0 0. */
export interface ReadyPath {
  readonly id: string;
  readonly name: string;
  readonly fit: PathFit;
  readonly d: string;
}

const path = (id: string, name: string, fit: PathFit, d: string): ReadyPath => ({ id, name, fit, d });

/** The spiral's arcs shrink by this from half turn to half turn, until the place of rest is all but reached. */
const SPIRAL =
  'M400 0 A360 360 0 0 1 -320 0 A280 280 0 0 1 240 0 A200 200 0 0 1 -160 0 A120 120 0 0 1 80 0 A40 40 0 0 1 0 0';

/** Ready lines are drawn for a frame so wide, in px. */
export const READY_FOR = 1000;

/** The paths that presets can begin with. */
export const READY_PATHS: readonly ReadyPath[] = [
  path('from-left', 'In from the left', 'in', 'M-600 0 C-400 0 -200 0 0 0'),
  path('from-right', 'In from the right', 'in', 'M600 0 C400 0 200 0 0 0'),
  path('from-above', 'In from above', 'in', 'M0 -400 C0 -260 0 -130 0 0'),
  path('from-below', 'In from below', 'in', 'M0 400 C0 260 0 130 0 0'),
  path('arc-left', 'Arc from the left', 'in', 'M-600 0 C-480 -320 -120 -320 0 0'),
  path('arc-right', 'Arc from the right', 'in', 'M600 0 C480 -320 120 -320 0 0'),
  path('hook', 'Hook from below', 'in', 'M-260 400 C-260 -60 -40 -220 60 -120 C120 -60 60 0 0 0'),
  path('zigzag-in', 'Zigzag from the left', 'in', 'M-600 -120 L-480 120 L-360 -120 L-240 120 L-120 -120 L0 0'),
  path('spiral-in', 'Spiral to its place', 'round', SPIRAL),
  path('loop', 'Loop', 'round', 'M0 0 C160 0 160 -220 0 -220 C-160 -220 -160 0 0 0 Z'),
  path(
    'eight',
    'Figure of eight',
    'round',
    'M0 0 C120 -160 260 -100 260 0 C260 100 120 160 0 0 C-120 -160 -260 -100 -260 0 C-260 100 -120 160 0 0 Z',
  ),
  path('out-right', 'Out to the right', 'out', 'M0 0 C200 0 400 0 600 0'),
  path('out-above', 'Out over the top', 'out', 'M0 0 C0 -130 0 -260 0 -400'),
  path('fly-off', 'Fly off in an arc', 'out', 'M0 0 C120 60 260 0 320 -140 C380 -280 480 -360 600 -400'),
];
