import { useEffect } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { NOT_BEHIND_DIALOG } from '../../parts/keys.tsx';
import { type Acting, actOn } from './takeAct.ts';

/** A button that was pressed by pointer lets go of the focus, so that Space is the start and stop again. */
function letGo(event: MouseEvent): void {
  if (event.detail > 0 && document.activeElement instanceof HTMLButtonElement) document.activeElement.blur();
}

/** Keys that every view of a take has: Space starts, stops and goes on; the arrows go from slate to slate. */
export function useActKeys(acting: Acting, onStep: (step: 1 | -1) => void): void {
  const { take, next } = acting;
  useEffect(() => {
    document.addEventListener('click', letGo);
    return () => document.removeEventListener('click', letGo);
  }, []);
  useHotkeys(
    'space',
    (event) => {
      // A button that has the focus by keyboard is meant itself; links know no Space.
      if ((event.target as HTMLElement).closest('button, summary')) return;
      event.preventDefault();
      actOn(acting);
    },
    NOT_BEHIND_DIALOG,
    [take, next],
  );
  useHotkeys('left', () => onStep(-1), NOT_BEHIND_DIALOG, [take]);
  useHotkeys('right', () => onStep(1), NOT_BEHIND_DIALOG, [take]);
}
