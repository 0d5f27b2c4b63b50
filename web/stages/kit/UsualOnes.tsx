interface UsualOnesProps<Draft> {
  drafts: readonly Draft[];
  onChoose(draft: Draft): void;
}

/** Usual records to start a new one from. */
export function UsualOnes<Draft extends { name: string }>({ drafts, onChoose }: UsualOnesProps<Draft>) {
  return (
    <div className="row-line small">
      <span className="soft">Usual:</span>
      {drafts.map((draft) => (
        <button key={draft.name} type="button" className="btn btn-plain btn-sm" onClick={() => onChoose(draft)}>
          {draft.name}
        </button>
      ))}
    </div>
  );
}
