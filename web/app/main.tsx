import '@fontsource/atkinson-hyperlegible-next/400.css';
import '@fontsource/atkinson-hyperlegible-next/600.css';
import '@fontsource/atkinson-hyperlegible-next/700.css';
import '@fontsource/atkinson-hyperlegible-mono/400.css';
import '@fontsource/atkinson-hyperlegible-mono/700.css';
import 'bootstrap/dist/css/bootstrap.min.css';
import './styles/tokens.css';
import './styles/base.css';
import './styles/shell.css';
import './styles/stages.css';
import './styles/work.css';
import { StrictMode, useEffect } from 'react';
import { createRoot } from 'react-dom/client';
import { Provider } from 'react-redux';
import { RouterProvider } from 'react-router';
import { store, useAppSelector } from '../data/store.ts';
import { KeysHelp } from '../parts/keys.tsx';
import { Notices } from '../parts/notices.tsx';
import { router } from './routes.tsx';

function Page() {
  const theme = useAppSelector((state) => state.look.theme);
  useEffect(() => {
    document.documentElement.dataset.bsTheme = theme === 'dusk' ? 'dark' : 'light';
  }, [theme]);
  return <RouterProvider router={router} />;
}

const root = document.getElementById('root');
if (!root) throw new Error('The page has no place to stand');
createRoot(root).render(
  <StrictMode>
    <Provider store={store}>
      <Notices>
        <KeysHelp>
          <Page />
        </KeysHelp>
      </Notices>
    </Provider>
  </StrictMode>,
);
