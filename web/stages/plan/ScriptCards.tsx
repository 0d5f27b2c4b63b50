import type { Script } from '@marvet/core/domain/script';
import { SCRIPT_CARDS } from '@marvet/core/domain/scriptCards';
import { STARTING_SCRIPTS } from '@marvet/core/domain/startingScripts';
import Form from 'react-bootstrap/Form';
import { useSaveScriptMutation } from '../../data/records.ts';
import { useTold } from '../../parts/useTold.ts';

/** Script cards that this trial has not got: each with what it shows. */
export function ScriptCards({ trialId, scripts }: { trialId: string; scripts: Script[] }) {
  const [save] = useSaveScriptMutation();
  const told = useTold();
  const cards = [...STARTING_SCRIPTS, ...Object.values(SCRIPT_CARDS)].filter((card) => !scripts.some((script) => script.name === card.name));
  if (cards.length === 0) return null;
  return (
    <Form.Select
      size="sm"
      className="mt-1"
      aria-label="Add a script card"
      value=""
      onChange={(event) => {
        const card = cards.find((each) => each.name === event.target.value);
        if (card) void told(save({ trialId, from: null, draft: { ...card, position: scripts.length } }));
      }}
    >
      <option value="">Add a card</option>
      {cards.map((card) => (
        <option key={card.name} value={card.name}>
          {card.name}: {card.purpose}
        </option>
      ))}
    </Form.Select>
  );
}
