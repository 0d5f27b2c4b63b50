import type { Item, ItemDraft } from '@marvet/core/domain/item';
import { type ItemList, readItemList } from '@marvet/core/formats/itemList';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import Modal from 'react-bootstrap/Modal';
import { useImportItemsMutation, useUndoImportMutation } from '../../data/records.ts';
import { Field } from '../../parts/fields.tsx';
import { useNotice } from '../../parts/notices.tsx';
import { Trouble } from '../../parts/states.tsx';
import { useTold } from '../../parts/useTold.ts';

/** Brings items in from CSV or JSON: first a look at every row, then those that are right. */
export function ItemImport({ items, onClose }: { items: Item[]; onClose: () => void }) {
  const [list, setList] = useState<ItemList | null>(null);
  const [bring, { error, isLoading }] = useImportItemsMutation();
  const [undo] = useUndoImportMutation();
  const tell = useNotice();
  const told = useTold();
  const right = list?.rows.flatMap((row) => row.draft ?? []) ?? [];
  const wrong = list?.rows.filter((row) => !row.draft) ?? [];
  const known = (draft: ItemDraft) => items.some((item) => item.kind === draft.kind && item.name === draft.name);
  return (
    <Modal show onHide={onClose} size="lg" scrollable aria-labelledby="import-title">
      <Modal.Header closeButton>
        <Modal.Title id="import-title">Bring items in</Modal.Title>
      </Modal.Header>
      <Modal.Body className="stack">
        <Field label="A list as CSV or JSON" help="As the library writes them: a column for each datum, kind and name at least. Nothing is kept before you say so.">
          {(id) => (
            <Form.Control
              id={id}
              type="file"
              accept=".csv,.json,text/csv,application/json"
              onChange={(event) => {
                const file = (event.target as HTMLInputElement).files?.[0];
                if (file) void file.text().then((text) => setList(readItemList(text)));
              }}
            />
          )}
        </Field>
        {list?.trouble && (
          <div className="trouble" role="alert">
            {list.trouble}
          </div>
        )}
        {list && list.strangeColumns.length > 0 && <p className="small soft mb-0">Left out, since they mean nothing here: {list.strangeColumns.join(', ')}.</p>}
        {list && list.rows.length > 0 && (
          <table className="plain">
            <thead>
              <tr>
                <th className="num">Row</th>
                <th>Item</th>
                <th>What becomes of it</th>
              </tr>
            </thead>
            <tbody>
              {list.rows.map(({ row, name, draft, errors }) => (
                <tr key={row}>
                  <td className="num">{row}</td>
                  <td>
                    {name || <span className="soft">no name</span>} <span className="soft small">{draft?.kind}</span>
                  </td>
                  <td>
                    {draft
                      ? known(draft)
                        ? 'replaces the one of this name'
                        : 'new'
                      : errors.map((each) => (
                          <div key={each.field + each.message} className="alarm small">
                            {each.field}: {each.message}
                          </div>
                        ))}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        )}
        <Trouble error={error} />
      </Modal.Body>
      <Modal.Footer>
        {wrong.length > 0 && (
          <span className="small soft grow">
            {wrong.length} {wrong.length === 1 ? 'row stays' : 'rows stay'} out. Mend the file and bring it in again; what is there already is replaced.
          </span>
        )}
        <Button variant="outline" onClick={onClose}>
          Cancel
        </Button>
        <Button
          disabled={right.length === 0 || isLoading}
          onClick={() =>
            void bring(right).then(({ data }) => {
              if (!data) return;
              const { added, ...done } = data;
              tell(`${added} added, ${done.replaced.length} replaced`, () => void told(undo(done)));
              onClose();
            })
          }
        >
          Bring in {right.length}
        </Button>
      </Modal.Footer>
    </Modal>
  );
}
