import type { Chain } from '@marvet/core/domain/chain';
import { quantityText } from '@marvet/core/domain/quantity';
import type { Take } from '@marvet/core/domain/take';
import type { WalkEntry, WalkPress } from '@marvet/core/domain/walk';
import { X } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import type { TrialWords } from '../../data/trialData.ts';
import { KeptNumber } from '../../parts/fields.tsx';

interface WalkLogProps {
  take: Take;
  chains: readonly Chain[];
  words: TrialWords;
  onPress: (press: WalkPress) => void;
  onTakeBack: (entryId: string) => void;
}

const OFTEN_IN_THE_WAY = ['a body', 'a wall', 'a vehicle', 'people', 'power line', 'trees'];
const SHOWN = 5;

/** What stood in the way and what else was on air; and what was pressed last, each to be taken back. */
export function WalkLog({ take, chains, words, onPress, onTakeBack }: WalkLogProps) {
  const [text, setText] = useState('');
  const [levelDbm, setLevelDbm] = useState<number | null>(null);
  const [all, setAll] = useState(false);
  const say = (what: 'in the way' | 'on air', said: string) => {
    if (said.trim() === '') return;
    onPress(what === 'on air' ? { what, text: said.trim(), levelDbm } : { what, text: said.trim() });
    setText('');
    setLevelDbm(null);
  };
  const told = [...take.walk].reverse();
  return (
    <>
      <details className="walk-surroundings">
        <summary>What is in the way, what else is on air</summary>
        <div className="walk-chips">
          {OFTEN_IN_THE_WAY.map((each) => (
            <Button key={each} variant="outline" onClick={() => say('in the way', each)}>
              {each}
            </Button>
          ))}
        </div>
        <div className="walk-said mt-2">
          <Form.Control aria-label="In other words" maxLength={120} value={text} placeholder="access point 3 m off, channel 36" onChange={(event) => setText(event.target.value)} />
          <Button variant="outline" disabled={text.trim() === ''} onClick={() => say('in the way', text)}>
            In the way
          </Button>
          <KeptNumber label="Its radio level, dBm" hideLabel min={-140} max={30} value={levelDbm} placeholder="dBm" onKeep={setLevelDbm} />
          <Button variant="outline" disabled={text.trim() === ''} onClick={() => say('on air', text)}>
            On air
          </Button>
        </div>
      </details>
      {told.length > 0 && (
        <ol className="walk-log" aria-label="Pressed on this walk, the latest first">
          {told.slice(0, all ? undefined : SHOWN).map((entry) => {
            const said = entryWords(entry, take, chains, words);
            return (
              <li key={entry.id}>
                <span className="mono small soft">{take.startedAtMs === null ? '' : `${Math.round((entry.atMs - take.startedAtMs) / 1000)} s`}</span>
                <span className="grow">{said}</span>
                <Button size="sm" variant="plain" className="icon" aria-label={`Take back: ${said}`} onClick={() => onTakeBack(entry.id)}>
                  <X size={15} aria-hidden />
                </Button>
              </li>
            );
          })}
        </ol>
      )}
      {told.length > SHOWN && (
        <Button size="sm" variant="plain" onClick={() => setAll(!all)}>
          {all ? 'Only the latest' : `All ${told.length}`}
        </Button>
      )}
    </>
  );
}

function entryWords(entry: WalkEntry, take: Take, chains: readonly Chain[], words: TrialWords): string {
  switch (entry.what) {
    case 'mark':
      return `at ${Number(entry.distanceM.toFixed(1))} m${entry.by === 'paces' ? ', by paces' : ''}`;
    case 'leg':
      return `${entry.heading}, ${entry.side}`;
    case 'link': {
      const whose = entry.setupIds.length === take.setups.length && take.setups.length > 1 ? 'all' : names(entry.setupIds, take, chains, words);
      return `${whose} ${entry.state}`;
    }
    case 'receiver':
      return 'the receiver stands here';
    default:
      return `${entry.what}: ${entry.text}${entry.what === 'on air' && entry.levelDbm !== null ? `, ${quantityText('radioLevelDbm', entry.levelDbm)}` : ''}`;
  }
}

function names(setupIds: readonly string[], take: Take, chains: readonly Chain[], words: TrialWords): string {
  return take.setups
    .filter(({ id }) => setupIds.includes(id))
    .map((setup) => [chains.find(({ id }) => id === setup.candidateId)?.tape.letters, words.setup(setup)].filter(Boolean).join(' '))
    .join(', ');
}
