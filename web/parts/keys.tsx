import { createContext, type ReactNode, useCallback, useContext, useEffect, useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Modal from 'react-bootstrap/Modal';
import { useHotkeys } from 'react-hotkeys-hook';
import { cautionsShownAgain } from '../data/look.ts';
import { useAppDispatch } from '../data/store.ts';

/** A key of a screen and what it does. */
export interface KeyHelp {
  keys: string;
  does: string;
}

interface Registry {
  add(list: KeyHelp[]): () => void;
  open(): void;
}
const KeysContext = createContext<Registry>({ add: () => () => undefined, open: () => undefined });

const EVERYWHERE: KeyHelp[] = [
  { keys: '?', does: 'Keys of this screen' },
  { keys: 'Tab', does: 'Next control' },
  { keys: 'Esc', does: 'Close a dialog' },
];

/** For keys of a screen: they rest while a dialog stands before it. */
export const NOT_BEHIND_DIALOG = { ignoreEventWhen: () => document.querySelector('.modal.show') !== null };

/** Collects the keys of the screens that are open and shows them on `?`. */
export function KeysHelp({ children }: { children: ReactNode }) {
  const [lists, setLists] = useState<KeyHelp[][]>([]);
  const [shown, setShown] = useState(false);
  const dispatch = useAppDispatch();
  const add = useCallback((list: KeyHelp[]) => {
    setLists((all) => [...all, list]);
    return () => setLists((all) => all.filter((each) => each !== list));
  }, []);
  const registry = useMemo(() => ({ add, open: () => setShown(true) }), [add]);
  useHotkeys('shift+?', () => setShown(true), { useKey: true });
  return (
    <KeysContext.Provider value={registry}>
      {children}
      <Modal show={shown} onHide={() => setShown(false)} aria-labelledby="keys-title">
        <Modal.Header closeButton>
          <Modal.Title id="keys-title">Keys of this screen</Modal.Title>
        </Modal.Header>
        <Modal.Body>
          <table className="plain">
            <tbody>
              {[...lists.flat(), ...EVERYWHERE].map(({ keys, does }) => (
                <tr key={`${keys} ${does}`}>
                  <td className="mono">{keys}</td>
                  <td>{does}</td>
                </tr>
              ))}
            </tbody>
          </table>
        </Modal.Body>
        <Modal.Footer>
          <Button size="sm" variant="outline" onClick={() => dispatch(cautionsShownAgain())}>
            Show cautions that were put away again
          </Button>
        </Modal.Footer>
      </Modal>
    </KeysContext.Provider>
  );
}

/** Lists the keys of a screen while it is open. The list must be a constant. */
export function useKeyHelp(list: KeyHelp[]): void {
  const { add } = useContext(KeysContext);
  useEffect(() => add(list), [add, list]);
}

export function useOpenKeys(): () => void {
  return useContext(KeysContext).open;
}
