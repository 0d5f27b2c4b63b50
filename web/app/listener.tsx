import './looks.ts';
import { createRoot } from 'react-dom/client';
import { Blind } from '../stages/listen/Blind.tsx';
import { Page } from './Page.tsx';

// The listener's page is an entry of its own: nothing of the trial is in it, neither words nor code.
const root = document.getElementById('root');
if (!root) throw new Error('The page has no place to stand');
createRoot(root).render(
  <Page>
    <Blind listenerId={window.location.pathname.split('/')[2] ?? ''} />
  </Page>,
);
