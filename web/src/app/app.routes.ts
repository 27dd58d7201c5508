import type { Routes } from '@angular/router';
import { sceneAddress } from './api/scene-address';

/** Every screen and its address. */
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
  { path: 'files', title: 'Files', loadComponent: async () => (await import('./files-page/files-page')).FilesPage },
  {
    path: 'shortcuts',
    title: 'Shortcuts',
    loadComponent: async () => (await import('./shortcuts/shortcuts-page')).ShortcutsPage,
  },
  { path: 'help', title: 'Help', loadComponent: async () => (await import('./help/help-page')).HelpPage },
  { path: '**', title: 'Not found', loadComponent: async () => (await import('./not-found-page')).NotFoundPage },
];

/** Begins to fetch the code and the data of the screen at an address; the router and the screen take them from there. */
export function fetchScreen(address: string): void {
  // What is no id is left to the screen, which says so.
  const [, scene] = /^\/scenes\/([\w-]+)$/.exec(address) ?? [];
  if (scene !== undefined) fetchAhead(sceneAddress(scene));
  const parts = address.split('/').filter((part) => part !== '');
  const screen = routes.find(({ path = '' }) => {
    const pattern = path.split('/');
    return pattern.length === parts.length && pattern.every((part, i) => part.startsWith(':') || part === parts[i]);
  });
  // The router asks again and says what is wrong.
  Promise.resolve(screen?.loadComponent?.()).catch(() => undefined);
}

/** Asks for data that is asked for again a moment later, and then is on its way already. */
function fetchAhead(address: string): void {
  const link = document.createElement('link');
  Object.assign(link, { rel: 'preload', as: 'fetch', crossOrigin: 'anonymous', href: address });
  document.head.append(link);
}
