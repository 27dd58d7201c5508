import type { Routes } from '@angular/router';

export const routes: Routes = [
  { path: '', pathMatch: 'full', redirectTo: 'scenes' },
  { path: 'scenes', title: 'Scenes', loadComponent: async () => (await import('./scenes/scenes-page')).ScenesPage },
  { path: 'scenes/:id', title: 'Scene', loadComponent: async () => (await import('./scene/scene-page')).ScenePage },
  {
    path: 'library',
    title: 'Library',
    loadComponent: async () => (await import('./library/library-page')).LibraryPage,
  },
  {
    path: 'library/:id',
    title: 'Bench',
    canDeactivate: [(page: { canLeave: () => Promise<boolean> }): Promise<boolean> => page.canLeave()],
    loadComponent: async () => (await import('./bench/bench-page')).BenchPage,
  },
  {
    path: 'shortcuts',
    title: 'Shortcuts',
    loadComponent: async () => (await import('./shortcuts/shortcuts-page')).ShortcutsPage,
  },
  { path: '**', title: 'Not found', loadComponent: async () => (await import('./not-found-page')).NotFoundPage },
];
