import './looks.ts';
import { createRoot } from 'react-dom/client';
import { RouterProvider } from 'react-router';
import { Page } from './Page.tsx';
import { router } from './routes.tsx';

const root = document.getElementById('root');
if (!root) throw new Error('The page has no place to stand');
createRoot(root).render(
  <Page>
    <RouterProvider router={router} />
  </Page>,
);
