import type { Chain } from '@marvet/core/domain/chain';
import type { Factor, FactorKind } from '@marvet/core/domain/factor';
import type { PlanDraft } from '@marvet/core/domain/plan';
import type { Script } from '@marvet/core/domain/script';
import type { Station } from '@marvet/core/domain/station';
import { Pencil, Plus, Trash2, X } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Sheet } from '../../parts/states.tsx';
import { TapeMark } from '../../parts/TapeMark.tsx';
import { useBin } from '../../parts/useBin.ts';
import { ScriptDialog } from './ScriptDialog.tsx';
import { StationDialog } from './StationDialog.tsx';

interface FactorsProps {
  trialId: string;
  plan: PlanDraft;
  stations: Station[];
  scripts: Script[];
  chains: Chain[];
  onChange: (patch: Partial<PlanDraft>) => void;
}

const SHOWN: FactorKind[] = ['candidate', 'station', 'distance', 'windscreen', 'script'];

/** The factors side by side; the levels that are ticked span the matrix. */
export function Factors({ trialId, plan, stations, scripts, chains, onChange }: FactorsProps) {
  const [station, setStation] = useState<Station | 'new' | null>(null);
  const [script, setScript] = useState<Script | 'new' | null>(null);
  const binStation = useBin(trialId, 'station');
  const binScript = useBin(trialId, 'script');
  const setFactor = (factor: Factor) => onChange({ factors: plan.factors.map((each) => (each.kind === factor.kind ? factor : each)) });
  const levelActions = (kind: FactorKind, id: string, label: string) => {
    const edit =
      kind === 'station'
        ? () => setStation(stations.find((each) => each.id === id) ?? null)
        : kind === 'script'
          ? () => setScript(scripts.find((each) => each.id === id) ?? null)
          : null;
    const remove = kind === 'station' ? binStation : kind === 'script' ? binScript : null;
    if (!edit || !remove) return null;
    return (
      <>
        <Button size="sm" variant="plain" className="icon" aria-label={`Change ${label}`} onClick={edit}>
          <Pencil size={13} aria-hidden />
        </Button>
        <Button size="sm" variant="plain" className="icon" aria-label={`Delete ${label}`} onClick={() => remove(id, label)}>
          <Trash2 size={13} aria-hidden />
        </Button>
      </>
    );
  };
  return (
    <Sheet title="What is varied">
      <div className="factors">
        {SHOWN.map((kind) => {
          const factor = plan.factors.find((each) => each.kind === kind);
          if (!factor) return null;
          return (
            <fieldset key={kind}>
              <legend>{factor.name}</legend>
              {factor.levels.map((level) => {
                const chain = chains.find((each) => each.id === level.id);
                return (
                  <div key={level.id} className="level">
                    <Form.Check
                      id={`${kind}-${level.id}`}
                      checked={level.ticked}
                      onChange={(event) => setFactor({ ...factor, levels: factor.levels.map((each) => (each.id === level.id ? { ...each, ticked: event.target.checked } : each)) })}
                      label={
                        <>
                          {chain && <TapeMark tape={chain.tape} name="" width={38} />} {level.label}
                        </>
                      }
                    />
                    <span className="level-actions">
                      {levelActions(kind, level.id, level.label)}
                      {(kind === 'distance' || kind === 'windscreen') && (
                        <Button
                          size="sm"
                          variant="plain"
                          className="icon"
                          aria-label={`Remove ${level.label}`}
                          onClick={() => setFactor({ ...factor, levels: factor.levels.filter((each) => each.id !== level.id) })}
                        >
                          <X size={13} aria-hidden />
                        </Button>
                      )}
                    </span>
                  </div>
                );
              })}
              {factor.levels.length === 0 && <div className="small soft">{kind === 'candidate' ? 'Candidates come from Kit.' : 'None yet.'}</div>}
              {kind === 'station' && (
                <Button size="sm" variant="outline" onClick={() => setStation('new')}>
                  <Plus size={14} aria-hidden /> Station
                </Button>
              )}
              {kind === 'script' && (
                <Button size="sm" variant="outline" onClick={() => setScript('new')}>
                  <Plus size={14} aria-hidden /> Script
                </Button>
              )}
              {(kind === 'distance' || kind === 'windscreen') && <NewLevel factor={factor} onAdd={setFactor} />}
            </fieldset>
          );
        })}
      </div>
      {station && <StationDialog trialId={trialId} station={station === 'new' ? null : station} position={stations.length} onClose={() => setStation(null)} />}
      {script && <ScriptDialog trialId={trialId} script={script === 'new' ? null : script} position={scripts.length} onClose={() => setScript(null)} />}
    </Sheet>
  );
}

/** A box for one more distance in metres, or one more windscreen by name. */
function NewLevel({ factor, onAdd }: { factor: Factor; onAdd: (factor: Factor) => void }) {
  const [text, setText] = useState('');
  const metres = Number(text.replace(',', '.'));
  const isDistance = factor.kind === 'distance';
  const id = isDistance
    ? String(metres)
    : text
        .trim()
        .toLowerCase()
        .replace(/[^a-z0-9]+/g, '-')
        .slice(0, 40);
  const usable = text.trim() !== '' && id !== '' && !factor.levels.some((level) => level.id === id) && (!isDistance || (metres > 0 && metres <= 10_000));
  return (
    <Form
      className="row-line flex-nowrap"
      onSubmit={(event) => {
        event.preventDefault();
        if (!usable) return;
        const level = { id, label: isDistance ? `${metres} m` : text.trim(), value: isDistance ? metres : null, ticked: true };
        const levels = [...factor.levels, level];
        onAdd({ ...factor, levels: isDistance ? levels.sort((a, b) => (a.value ?? 0) - (b.value ?? 0)) : levels });
        setText('');
      }}
    >
      <Form.Control
        size="sm"
        aria-label={isDistance ? 'New distance in metres' : 'New windscreen'}
        placeholder={isDistance ? 'metres' : 'name'}
        maxLength={40}
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <Button size="sm" variant="outline" type="submit" disabled={!usable} aria-label={isDistance ? 'Add distance' : 'Add windscreen'}>
        <Plus size={14} aria-hidden />
      </Button>
    </Form>
  );
}
