import Form from 'react-bootstrap/Form';
import { Field } from './fields.tsx';

interface FileBoxProps {
  label: string;
  accept: string;
  disabled?: boolean;
  onFile: (file: File) => Promise<void>;
}

/** One file to be read. The same file can be chosen again at once, once it was mended. */
export function FileBox({ label, accept, disabled = false, onFile }: FileBoxProps) {
  return (
    <Field label={label}>
      {(id) => (
        <Form.Control
          id={id}
          type="file"
          accept={accept}
          disabled={disabled}
          onChange={(event) => {
            const input = event.target as HTMLInputElement;
            const file = input.files?.[0];
            if (file)
              void onFile(file).finally(() => {
                input.value = '';
              });
          }}
        />
      )}
    </Field>
  );
}
