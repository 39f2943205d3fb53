/** The application: its pages, put up in the document. */
import { StrictMode } from 'react';
import { createRoot } from 'react-dom/client';
import { createBrowserRouter, Navigate, RouterProvider } from 'react-router';
import { ShotPage } from './routes/shot-page.tsx';
import { ShelfPage } from './routes/shelf-page.tsx';
import { ShotsPage } from './routes/shots-page.tsx';
import { TipLayer } from './parts/tip-layer.tsx';
import { bringFromBrowser } from './shelf/from-browser.ts';

void bringFromBrowser();

const router = createBrowserRouter([
  { path: '/', element: <ShotsPage /> },
  { path: '/shelf', element: <ShelfPage /> },
  { path: '/shots/:shotId', element: <Navigate to="draw" replace relative="path" /> },
  { path: '/shots/:shotId/:step', element: <ShotPage /> },
  { path: '*', element: <Navigate to="/" replace /> },
]);

const root = document.getElementById('root');
if (root) {
  createRoot(root).render(
    <StrictMode>
      <RouterProvider router={router} />
      <TipLayer />
    </StrictMode>,
  );
}
