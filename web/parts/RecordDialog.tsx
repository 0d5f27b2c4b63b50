import type { ReactNode } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';
import { SaveTrouble } from './SaveTrouble.tsx';
import type { RecordFormDialog } from './useRecordForm.ts';

interface RecordDialogProps extends Partial<RecordFormDialog> {
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
export function RecordDialog({ title, what = title, onClose, onCancel = onClose, onSubmit, conflict, kept, error, saving, size, children, saveLabel = 'Save' }: RecordDialogProps) {
  return (
    <Modal
      show
      onHide={onClose}
      // Escape during a drag ends the drag, not the dialog.
      onEscapeKeyDown={(event) => document.body.dataset.dragging && event.preventDefault()}
      aria-labelledby="record-title"
      backdrop="static"
      scrollable
      {...(size ? { size } : {})}
    >
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
          {kept?.offered && (
            <div className="caution row-line" role="status">
              <span className="grow">What you entered here last time was not saved.</span>
              <Button size="sm" onClick={kept.takeUp}>
                Take it up again
              </Button>
              <Button size="sm" variant="outline" onClick={kept.discard}>
                Discard it
              </Button>
            </div>
          )}
          {children}
          <SaveTrouble what={what} conflict={conflict ?? null} error={error} />
        </Modal.Body>
        <Modal.Footer>
          <Button variant="outline" onClick={onCancel}>
            Cancel
          </Button>
          <Button type="submit" disabled={saving || !!conflict}>
            {saveLabel}
          </Button>
        </Modal.Footer>
      </Form>
    </Modal>
  );
}
