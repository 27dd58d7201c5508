import { bootstrapApplication } from '@angular/platform-browser';
import { App } from './app/app';
import { appConfig } from './app/app.config';
import { fetchScreen } from './app/app.routes';

// The screen's code is on its way while the application starts.
fetchScreen(location.pathname);

bootstrapApplication(App, appConfig).catch((error: unknown) => console.error(error));
