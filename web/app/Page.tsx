import { type ReactNode, StrictMode, useEffect } from 'react';
import { Provider } from 'react-redux';
import { store, useAppSelector } from '../data/store.ts';
import { KeysHelp } from '../parts/keys.tsx';
import { Notices } from '../parts/notices.tsx';

function Themed({ children }: { children: ReactNode }) {
  const theme = useAppSelector((state) => state.look.theme);
  useEffect(() => {
    document.documentElement.dataset.bsTheme = theme === 'dusk' ? 'dark' : 'light';
  }, [theme]);
  return children;
}

/** What every page stands in: the store, notices, the list of keys, and the theme. */
export function Page({ children }: { children: ReactNode }) {
  return (
    <StrictMode>
      <Provider store={store}>
        <Notices>
          <KeysHelp>
            <Themed>{children}</Themed>
          </KeysHelp>
        </Notices>
      </Provider>
    </StrictMode>
  );
}
