import './looks.ts';
import { createRoot } from 'react-dom/client';
import { Enter } from '../stages/enter/Enter.tsx';
import { Page } from './Page.tsx';

// What a device sees that was not let in: nothing of any trial is in it.
const root = document.getElementById('root');
if (!root) throw new Error('The page has no place to stand');
createRoot(root).render(
  <Page>
    <Enter />
  </Page>,
);
