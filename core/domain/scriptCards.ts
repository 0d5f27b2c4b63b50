import type { ScriptDraft } from './script.ts';

const card = (name: string, text: string, purpose: string, lengthS: number): ScriptDraft => ({ name, text, purpose, lengthS, talker: '', position: 0 });

/** Script cards beyond those that every trial starts with: our own lines and actions, one for each thing that they show. */
export const SCRIPT_CARDS = {
  whisper: card('Whisper', 'Keep the lamp low. The tide has turned, and they are still on the bank.', 'Noise of the chain under the quietest voice.', 8),
  shout: card('Projected', 'Cast off forward! Hold the stern line! Stand clear of the chain!', 'Overload at the first stage; what the limiter does.', 7),
  walk: card('Walk and turn', 'Walk ten steps away, turn, walk back, swing the arms. Say the days of the week.', 'Cloth, cable and handling noise; level while moving.', 20),
  headTurn: card(
    'Head turn',
    'Speak straight on, then over the left shoulder, then over the right: The gate is shut, the gate is wide, the gate is shut again.',
    'What is lost when the talker turns away.',
    12,
  ),
  cableTap: card('Cable and clip', 'Tap the cable, the clip and the unit three times each, with a pause between.', 'Handling noise, apart from the voice.', 12),
  cue: card('Cue between two', 'One line each in turn. The boom swings from one to the other and back.', 'Handling of the boom and colour off axis.', 15),
  ensemble: card('All at once', 'Everyone counts to twenty, each from another number.', 'Crosstalk between the microphones of a cast.', 15),
  tone: card('Steady tone', 'A steady tone into every input at the same level.', 'Noise and gain without the voice.', 10),
} as const satisfies Record<string, ScriptDraft>;
