import type { ReactNode } from 'react';
import Button from 'react-bootstrap/Button';
import Spinner from 'react-bootstrap/Spinner';
import { type ApiTrouble, troubleText } from '../data/api.ts';

/** What went wrong, where it happened, with a way to try again. */
export function Trouble({ error, again }: { error: unknown; again?: () => void }) {
  const text = troubleText(error);
  if (!text) return null;
  return (
    <div className="trouble row-line apart" role="alert">
      <span>{text}</span>
      {again && (
        <Button size="sm" variant="outline" onClick={again}>
          Try again
        </Button>
      )}
    </div>
  );
}

interface Asked {
  data?: unknown;
  isLoading: boolean;
  error?: unknown;
  refetch: () => unknown;
}

/**
 * Loading and error states of one or more queries, `waiting` in place of the usual one; `children` once all have their data. Data that was
 * there before an error stays on the page, with a word that it may be old; that a device was put out is said at the top of the page.
 */
export function Loaded({ of, children, waiting }: { of: Asked[]; children: () => ReactNode; waiting?: ReactNode }) {
  const failed = of.find((query) => query.error);
  if (failed && of.every((query) => query.data !== undefined)) {
    return (
      <>
        {(failed.error as Partial<ApiTrouble>).status !== 401 && (
          <div className="caution no-print" role="status">
            {troubleText(failed.error)} What you see is as it was.
          </div>
        )}
        {children()}
      </>
    );
  }
  if (failed) return <Trouble error={failed.error} again={() => void failed.refetch()} />;
  if (of.some((query) => query.isLoading)) {
    return waiting ?? <Waiting />;
  }
  return <>{children()}</>;
}

/** Something is on its way. */
export function Waiting() {
  return (
    <div className="row-line soft" role="status" data-loading>
      <Spinner size="sm" /> Loading
    </div>
  );
}

/** An empty list: what it is for and what to do next. */
export function Empty({ children }: { children: ReactNode }) {
  return <div className="empty">{children}</div>;
}

/** A card with its heading. */
export function Sheet({ title, aside, children, id }: { title: string; aside?: ReactNode; children: ReactNode; id?: string }) {
  return (
    <section className="sheet" aria-label={title} id={id}>
      <header>
        <h2>{title}</h2>
        {aside}
      </header>
      {children}
    </section>
  );
}
