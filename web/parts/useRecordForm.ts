import { useCallback } from 'react';
import type { FieldValues, UseFormReturn } from 'react-hook-form';
import type { Started } from '../data/records.ts';
import { type KeptDraft, useKeptDraft } from './useKeptDraft.ts';
import { type Conflict, useVersioned } from './useVersioned.ts';

interface RecordForm<Values extends FieldValues> {
  form: UseFormReturn<Values>;
  /** The record that is changed; null for a new one. */
  record: (Started & object) | null;
  /** As it is called at the start of a sentence. */
  what: string;
  send(draft: never, from: Started | null): Promise<{ error?: unknown }>;
  onClose(): void;
}

/** What a dialog of one record needs: saving, a change that met another, and a draft that was not saved. */
export interface RecordFormDialog {
  what: string;
  onClose(): void;
  onCancel(): void;
  onSubmit(): void;
  conflict: Conflict | null;
  kept: KeptDraft;
}

/** Saves the form of a record as a whole and keeps what was entered until it is saved. */
export function useRecordForm<Values extends FieldValues>({ form, record, what, send, onClose }: RecordForm<Values>): RecordFormDialog {
  const kept = useKeptDraft(`${what} ${record?.id ?? 'new'}`, form);
  const close = () => {
    kept.done();
    onClose();
  };
  const { save, conflict } = useVersioned<object>(
    useCallback((draft, version) => send(draft as never, record && { id: record.id, version }), [send, record]),
    close,
  );
  const submit = form.handleSubmit(async (draft) => {
    if (record) return save(record, draft, record.version);
    const { error } = await send(draft as never, null);
    if (!error) close();
  });
  return { what, onClose, onCancel: close, onSubmit: () => void submit(), conflict, kept };
}
