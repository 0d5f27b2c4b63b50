import type { Chain } from '@marvet/core/domain/chain';
import { EXTRA_KINDS, type ExtraKind, type Factor, type FactorKind, type Level } from '@marvet/core/domain/factor';
import type { PlanDraft } from '@marvet/core/domain/plan';
import { readNumber } from '@marvet/core/domain/readNumber';
import type { StoredScript } from '@marvet/core/domain/script';
import type { StoredStation } from '@marvet/core/domain/station';
import { levelIdOf, newFactor } from '@marvet/core/plan/followRecords';
import { Pencil, Plus, RotateCcw, Ruler, Trash2, X } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Link } from 'react-router';
import { Sheet } from '../../parts/states.tsx';
import { TapeMark } from '../../parts/TapeMark.tsx';
import { useBin } from '../../parts/useBin.ts';
import { LevelsOfKit } from './LevelsOfKit.tsx';
import type { ChangePlan } from './planPart.ts';
import { ScriptCards } from './ScriptCards.tsx';
import { ScriptDialog } from './ScriptDialog.tsx';
import { StationDialog } from './StationDialog.tsx';

interface FactorsProps {
  trialId: string;
  plan: PlanDraft;
  stations: StoredStation[];
  scripts: StoredScript[];
  chains: Chain[];
  onChange: ChangePlan;
}

const FIRST: FactorKind[] = ['candidate', 'station', 'distance', 'windscreen', 'script'];
/** Kinds whose levels are records of their own; all others are entered here. */
const RECORDS: FactorKind[] = ['candidate', 'station', 'script'];

/** The factors side by side; the levels that are ticked span the matrix. */
export function Factors({ trialId, plan, stations, scripts, chains, onChange }: FactorsProps) {
  const [station, setStation] = useState<StoredStation | 'new' | null>(null);
  const [script, setScript] = useState<StoredScript | 'new' | null>(null);
  const binStation = useBin(trialId, 'station');
  const binScript = useBin(trialId, 'script');
  const extras = EXTRA_KINDS.filter((kind) => plan.factors.some((factor) => factor.kind === kind));
  const removeFactor = (factor: Factor) => onChange({ factors: plan.factors.filter((each) => each.kind !== factor.kind) }, `${factor.name} is no longer varied`);
  const setFactor = (factor: Factor, told?: string) => onChange({ factors: plan.factors.map((each) => (each.kind === factor.kind ? factor : each)) }, told);
  const removeLevel = (factor: Factor, level: Level) =>
    onChange(
      {
        factors: plan.factors.map((each) => (each.kind === factor.kind ? { ...factor, levels: factor.levels.filter((other) => other.id !== level.id) } : each)),
        // Takes may speak of it; it can come back as what it was.
        removedLevels: [...plan.removedLevels.filter((each) => each.kind !== factor.kind || each.level.id !== level.id), { kind: factor.kind, level }],
      },
      `${level.label} is no longer in the plan`,
    );
  const bringBack = (factor: Factor, level: Level) =>
    onChange({
      factors: plan.factors.map((each) => (each.kind === factor.kind ? inOrder({ ...factor, levels: [...factor.levels, { ...level, ticked: true }] }) : each)),
      removedLevels: plan.removedLevels.filter((each) => each.kind !== factor.kind || each.level.id !== level.id),
    });
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
        {kind === 'station' && (
          <Link className="btn btn-sm btn-plain icon" to={`../placing?part=rooms&station=${id}`} aria-label={`${label}, drawn in Placing`} title="Drawn in Placing">
            <Ruler size={13} aria-hidden />
          </Link>
        )}
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
    <Sheet title="What is varied" aside={<NewFactor has={extras} onAdd={(kind) => onChange({ factors: [...plan.factors, newFactor(kind)] })} />}>
      <div className="factors">
        {[...FIRST, ...extras].map((kind) => {
          const factor = plan.factors.find((each) => each.kind === kind);
          if (!factor) return null;
          return (
            <fieldset key={kind}>
              <legend>
                {factor.name}
                {factor.unit && `, ${factor.unit}`}
                {extras.includes(kind as ExtraKind) && (
                  <Button size="sm" variant="plain" className="icon" aria-label={`Vary ${factor.name} no longer`} onClick={() => removeFactor(factor)}>
                    <X size={13} aria-hidden />
                  </Button>
                )}
              </legend>
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
                      {!RECORDS.includes(kind) && (
                        <Button size="sm" variant="plain" className="icon" aria-label={`Remove ${level.label}`} onClick={() => removeLevel(factor, level)}>
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
                <>
                  <Button size="sm" variant="outline" onClick={() => setScript('new')}>
                    <Plus size={14} aria-hidden /> Script
                  </Button>
                  <ScriptCards trialId={trialId} scripts={scripts} />
                </>
              )}
              {(kind === 'placement' || kind === 'rig') && <LevelsOfKit trialId={trialId} factor={factor} onAdd={setFactor} />}
              {!RECORDS.includes(kind) && <NewLevel factor={factor} onAdd={setFactor} />}
              {plan.removedLevels
                .filter((each) => each.kind === kind && !factor.levels.some((level) => level.id === each.level.id))
                .map(({ level }) => (
                  <Button key={level.id} size="sm" variant="plain" className="small" onClick={() => bringBack(factor, level)}>
                    <RotateCcw size={13} aria-hidden /> {level.label} back
                  </Button>
                ))}
            </fieldset>
          );
        })}
      </div>
      {station && <StationDialog trialId={trialId} station={station === 'new' ? null : station} position={stations.length} onClose={() => setStation(null)} />}
      {script && <ScriptDialog trialId={trialId} script={script === 'new' ? null : script} position={scripts.length} onClose={() => setScript(null)} />}
    </Sheet>
  );
}

/** Levels that are numbers stand in the order of their numbers. */
function inOrder(factor: Factor): Factor {
  const numeric = factor.levels.every((level) => level.value !== null);
  return numeric ? { ...factor, levels: [...factor.levels].sort((a, b) => (a.value as number) - (b.value as number)) } : factor;
}

const HINTS: Record<ExtraKind, string> = {
  talker: 'low and high voices',
  rig: 'exposed, hidden, through a knit',
  placement: 'breastbone, collar, brim',
  orientation: 'facing, turned, over the shoulder',
  noise: 'rungs of a ladder, quiet to loud',
  processing: 'noise reduction on, off',
  speed: 'standing, walking, at half throttle',
  effort: 'whisper, normal, projected',
  other: 'something else',
};

/** Takes one more kind of factor into the plan, with its usual levels. */
function NewFactor({ has, onAdd }: { has: readonly ExtraKind[]; onAdd: (kind: ExtraKind) => void }) {
  const free = EXTRA_KINDS.filter((kind) => !has.includes(kind));
  if (free.length === 0) return null;
  return (
    <Form.Select size="sm" className="w-auto" aria-label="Vary something else" value="" onChange={(event) => event.target.value && onAdd(event.target.value as ExtraKind)}>
      <option value="">Vary something else</option>
      {free.map((kind) => (
        <option key={kind} value={kind}>
          {newFactor(kind).name}: {HINTS[kind]}
        </option>
      ))}
    </Form.Select>
  );
}

/** A box for one more level: a number in the factor's unit, or a name. */
function NewLevel({ factor, onAdd }: { factor: Factor; onAdd: (factor: Factor) => void }) {
  const [text, setText] = useState('');
  const isDistance = factor.kind === 'distance';
  const read = readNumber(text, isDistance ? { min: 0.01, max: 10_000 } : {});
  const isNumber = read.kind === 'number';
  const number = isNumber ? read.value : Number.NaN;
  const id = isDistance ? String(number) : levelIdOf(text);
  const usable = text.trim() !== '' && id !== '' && !factor.levels.some((level) => level.id === id) && (!isDistance || (number > 0 && number <= 10_000));
  const what = isDistance ? 'distance' : factor.name.toLowerCase();
  const label = isNumber && factor.unit ? `${number}${factor.unit === 'degrees' ? '°' : ` ${factor.unit}`}` : text.trim();
  return (
    <Form
      className="row-line flex-nowrap"
      onSubmit={(event) => {
        event.preventDefault();
        if (!usable) return;
        const level = { id, label, value: isNumber ? number : null, ticked: true };
        onAdd(inOrder({ ...factor, levels: [...factor.levels, level] }));
        setText('');
      }}
    >
      <Form.Control
        size="sm"
        aria-label={isDistance ? 'New distance in metres' : `New ${what}`}
        placeholder={isDistance ? 'metres' : factor.unit || 'name'}
        maxLength={40}
        value={text}
        onChange={(event) => setText(event.target.value)}
      />
      <Button size="sm" variant="outline" type="submit" disabled={!usable} aria-label={`Add ${what}`}>
        <Plus size={14} aria-hidden />
      </Button>
    </Form>
  );
}
