import { Upload as UploadIcon } from 'lucide-react';
import { type ReactNode, useRef, useState } from 'react';
import Button from 'react-bootstrap/Button';
import { ACCEPTED, soundFiles } from './soundFiles.ts';

/** Reads folders out of what is dropped. It is fetched when something is first dragged over: few pages need it at once. */
const fetchSelector = () => import('file-selector');
type Selector = Awaited<ReturnType<typeof fetchSelector>>;

/** What is read, in words. */
export const READ_FORMATS = "WAV, FLAC, AIFF, MP3, AAC, Ogg, or the sound of a camera's MP4 or MOV";

interface FileDropProps {
  /** What it is for, to those who do not see it. */
  label: string;
  /** What stands beside the buttons. */
  said: string;
  /** Files with sound that were dropped or chosen; what else lay in a folder is left out and told. */
  onFiles(files: File[]): void;
  children?: ReactNode;
}

/** A place to drop sound files and folders on, or to choose them. */
export function FileDrop({ label, said, onFiles, children }: FileDropProps) {
  const [over, setOver] = useState(false);
  const input = useRef<HTMLInputElement>(null);
  const folder = useRef<HTMLInputElement>(null);
  const [leftOut, setLeftOut] = useState(0);
  const selector = useRef<Selector | null>(null);
  /** One file is always tried; of many, as a folder holds them, those with sound. */
  const take = (files: File[]) => {
    const found = files.length > 1 ? soundFiles(files) : { sound: files, leftOut: 0 };
    setLeftOut(found.leftOut);
    if (found.sound.length > 0) onFiles(found.sound);
  };
  return (
    <section
      className={`drop ${over ? 'over' : ''}`}
      aria-label={label}
      onDragEnter={() =>
        void fetchSelector().then(
          (fetched) => {
            selector.current = fetched;
          },
          (error: unknown) => console.warn('Folders cannot be dropped, files can:', error),
        )
      }
      onDragOver={(event) => {
        event.preventDefault();
        setOver(true);
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(event) => {
        event.preventDefault();
        setOver(false);
        // What is dropped can be read during the event only: who was quicker than the selector drops files, and no folders.
        if (selector.current) void selector.current.fromEvent(event.nativeEvent).then((found) => take(found.flatMap((each) => (each instanceof File ? [each] : []))));
        else take([...event.dataTransfer.files]);
      }}
    >
      <input
        ref={input}
        type="file"
        multiple
        accept={ACCEPTED}
        className="visually-hidden"
        tabIndex={-1}
        aria-label="Sound files"
        onChange={(event) => {
          if (event.target.files) onFiles([...event.target.files]);
          // Else the same file could not be chosen again after it failed.
          event.target.value = '';
        }}
      />
      <input
        ref={folder}
        type="file"
        multiple
        className="visually-hidden"
        tabIndex={-1}
        aria-label="A folder with sound"
        {...{ webkitdirectory: '' }}
        onChange={(event) => {
          take([...(event.target.files ?? [])]);
          event.target.value = '';
        }}
      />
      <div className="row-line justify-content-center">
        <UploadIcon size={18} aria-hidden /> {said}
        <Button size="sm" variant="outline" onClick={() => input.current?.click()}>
          Choose files
        </Button>
        <Button size="sm" variant="outline" onClick={() => folder.current?.click()}>
          Choose a folder
        </Button>
      </div>
      {leftOut > 0 && (
        <div className="small soft mt-2" role="status">
          {leftOut} {leftOut === 1 ? 'file holds' : 'files hold'} no sound by {leftOut === 1 ? 'its ending' : 'their endings'} and {leftOut === 1 ? 'was' : 'were'} left out. Choose{' '}
          {leftOut === 1 ? 'it' : 'one'} by itself to try it all the same.
        </div>
      )}
      {children}
    </section>
  );
}
