import type { ReactNode } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';
import { Trouble } from './states.tsx';

interface RecordDialogProps {
  title: string;
  onClose: () => void;
  onSubmit: () => void;
  error: unknown;
  saving: boolean;
  size?: 'lg' | 'xl';
  children: ReactNode;
  saveLabel?: string;
}

/** A form in a dialog. What was entered stays until it was saved or given up. */
export function RecordDialog({ title, onClose, onSubmit, error, saving, size, children, saveLabel = 'Save' }: RecordDialogProps) {
  return (
    <Modal show onHide={onClose} aria-labelledby="record-title" backdrop="static" scrollable {...(size ? { size } : {})}>
      <Form
        noValidate
        className="d-flex flex-column overflow-hidden"
        onSubmit={(event) => {
          event.preventDefault();
          event.stopPropagation();
          onSubmit();
        }}
      >
        <Modal.Header closeButton>
          <Modal.Title id="record-title">{title}</Modal.Title>
        </Modal.Header>
        <Modal.Body className="stack">
          {children}
          <Trouble error={error} />
        </Modal.Body>
        <Modal.Footer>
          <Button variant="outline" onClick={onClose}>
            Cancel
          </Button>
          <Button type="submit" disabled={saving}>
            {saveLabel}
          </Button>
        </Modal.Footer>
      </Form>
    </Modal>
  );
}
