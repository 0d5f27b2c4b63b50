import { createContext, type ReactNode, useCallback, useContext, useMemo, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Toast from 'react-bootstrap/Toast';
import ToastContainer from 'react-bootstrap/ToastContainer';

interface Notice {
  id: number;
  text: string;
  undo: (() => void) | null;
}

type Tell = (text: string, undo?: () => void) => void;
const NoticeContext = createContext<Tell>(() => undefined);
const SHOWN_MS = 12_000;
let lastId = 0;

/** Tells in a corner what was done, with a way back where there is one. */
export function useNotice(): Tell {
  return useContext(NoticeContext);
}

export function Notices({ children }: { children: ReactNode }) {
  const [notices, setNotices] = useState<Notice[]>([]);
  const close = useCallback((id: number) => setNotices((all) => all.filter((notice) => notice.id !== id)), []);
  const tell = useCallback<Tell>((text, undo) => setNotices((all) => [...all.slice(-2), { id: ++lastId, text, undo: undo ?? null }]), []);
  const value = useMemo(() => tell, [tell]);
  return (
    <NoticeContext.Provider value={value}>
      {children}
      <ToastContainer className="notices p-3" containerPosition="fixed">
        {notices.map(({ id, text, undo }) => (
          <Toast key={id} onClose={() => close(id)} delay={SHOWN_MS} autohide>
            <Toast.Body className="row-line apart">
              <span>{text}</span>
              {undo && (
                <Button
                  size="sm"
                  variant="primary"
                  onClick={() => {
                    undo();
                    close(id);
                  }}
                >
                  Undo
                </Button>
              )}
            </Toast.Body>
          </Toast>
        ))}
      </ToastContainer>
    </NoticeContext.Provider>
  );
}
