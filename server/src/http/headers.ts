import type { HelmetOptions } from 'helmet';

/** Headers that keep the page to itself: it loads nothing from elsewhere. */
export const HEADERS: HelmetOptions = {
  contentSecurityPolicy: {
    directives: {
      defaultSrc: ["'self'"],
      // Formulas are run as machine code that the page makes itself; that allows no script.
      scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
      styleSrc: ["'self'", "'unsafe-inline'"],
      imgSrc: ["'self'", 'data:', 'blob:'],
      connectSrc: ["'self'", 'data:', 'blob:'],
      workerSrc: ["'self'", 'blob:'],
      fontSrc: ["'self'", 'data:'],
      upgradeInsecureRequests: null,
    },
  },
  strictTransportSecurity: false,
};
