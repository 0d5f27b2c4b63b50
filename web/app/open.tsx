import { createRoot } from 'react-dom/client';
import { RouterProvider } from 'react-router';
import { Page } from './Page.tsx';
import { router } from './routes.tsx';

/** Draws the whole program into the page. */
export function open(root: HTMLElement): void {
  createRoot(root).render(
    <Page>
      <RouterProvider router={router} />
    </Page>,
  );
}
