import type { Provider } from '@angular/core';
import { ConflictActions } from './actions/conflict-actions';
import { DialActions } from './actions/dial-actions';
import { KeepInLibrary } from './actions/keep-in-library';
import { LayerActions } from './actions/layer-actions';
import { RecipeActions } from './actions/recipe-actions';
import { RunActions } from './actions/run-actions';
import { TableActions } from './actions/table-actions';
import { Teller } from './actions/teller';
import { ArtworkActions } from './artwork/artwork-actions';
import { DraftStore } from './draft.store';
import { DialKeys } from './keys/dial-keys';
import { KeyEdits } from './keys/key-edits';
import { PlayerStore } from './player.store';
import { RunState } from './run-state';
import { SceneStore } from './scene.store';
import { Selection } from './selection';
import { SoundPlayer } from './sound/sound-player';
import { StageActions } from './stage/stage-actions';

/** What the parts of one open scene share: its stores, and what can be done with it. */
export const SCENE_PROVIDERS: Provider[] = [
  SceneStore,
  DraftStore,
  PlayerStore,
  KeyEdits,
  DialKeys,
  RunState,
  Selection,
  Teller,
  RecipeActions,
  RunActions,
  KeepInLibrary,
  TableActions,
  LayerActions,
  DialActions,
  ConflictActions,
  ArtworkActions,
  StageActions,
  SoundPlayer,
];
