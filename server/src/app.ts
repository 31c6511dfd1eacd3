import express, { type Express } from 'express';
import helmet from 'helmet';

/** Serves the built application from `folder`, with headers that keep it to itself. */
export function createApp(folder: string): Express {
  const app = express();
  app.disable('x-powered-by');
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
          workerSrc: ["'self'"],
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'blob:', 'data:'],
          mediaSrc: ["'self'", 'blob:'],
          fontSrc: ["'self'", 'data:'],
          connectSrc: ["'self'", 'blob:'],
          objectSrc: ["'none'"],
          baseUri: ["'none'"],
          formAction: ["'none'"],
          frameAncestors: ["'none'"],
        },
      },
      crossOriginEmbedderPolicy: true,
      crossOriginOpenerPolicy: { policy: 'same-origin' },
      strictTransportSecurity: false,
    }),
  );
  app.use('/assets', express.static(`${folder}assets`, { immutable: true, maxAge: '1y' }));
  app.use(express.static(folder, { index: 'index.html', maxAge: 0 }));
  // The shelf and the projects are the application's own addresses; it finds its screen by itself.
  app.get(['/', '/project/:id', '/project/:id/:step'], (_req, res) => res.sendFile('index.html', { root: folder }));
  app.use((_req, res) => {
    res.status(404).type('text').send('There is nothing here.');
  });
  return app;
}
