import { FileDown } from 'lucide-react';
import { type RefObject, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useNotice } from '../../parts/notices.tsx';
import { saveAsPage } from './saveAsPage.ts';

/** Saves what is shown as one file that opens without the app. */
export function SavePage({ part, title }: { part: RefObject<HTMLElement | null>; title: string }) {
  const [busy, setBusy] = useState(false);
  const tell = useNotice();
  const save = async () => {
    if (!part.current) return;
    if (part.current.querySelector('[data-loading]')) return tell('Part of the page is still being worked out: save it once all of it is there');
    setBusy(true);
    try {
      const address = URL.createObjectURL(await saveAsPage(part.current, title));
      const link = document.createElement('a');
      link.href = address;
      link.download = `${title}.html`;
      link.click();
      URL.revokeObjectURL(address);
    } catch (error) {
      tell(error instanceof Error ? error.message : 'The page could not be saved: try again');
    }
    setBusy(false);
  };
  return (
    <Button variant="outline" disabled={busy} onClick={() => void save()}>
      <FileDown size={16} aria-hidden /> One file
    </Button>
  );
}
