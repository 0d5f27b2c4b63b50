import { Keyboard, Moon, Sun } from 'lucide-react';
import type { ReactNode } from 'react';
import Button from 'react-bootstrap/Button';
import { themeChosen } from '../data/look.ts';
import { useAppDispatch, useAppSelector } from '../data/store.ts';
import { useOpenKeys } from './keys.tsx';

/** Theme and keys, and what else a page has at its foot. */
export function RailFoot({ children }: { children?: ReactNode }) {
  const dispatch = useAppDispatch();
  const theme = useAppSelector((state) => state.look.theme);
  const openKeys = useOpenKeys();
  const other = theme === 'daylight' ? 'dusk' : 'daylight';
  return (
    <div className="rail-foot">
      <Button size="sm" variant="plain" onClick={() => dispatch(themeChosen(other))} title={`Change to ${other}`}>
        {theme === 'daylight' ? <Moon size={15} aria-hidden /> : <Sun size={15} aria-hidden />} {other === 'dusk' ? 'Dusk' : 'Daylight'}
      </Button>
      <Button size="sm" variant="plain" onClick={openKeys} title="Keys of this screen">
        <Keyboard size={15} aria-hidden /> Keys
      </Button>
      {children}
    </div>
  );
}
