import type { ScriptDraft } from './script.ts';

/** Scripts that a new trial starts with: our own lines, one for each thing that a voice shows. */
export const STARTING_SCRIPTS: readonly ScriptDraft[] = [
  {
    name: 'Neutral',
    text: 'The ferry leaves the landing at a quarter to nine. We have carried grain and letters over this water for sixty years.',
    purpose: 'The line that every candidate is compared on: no special sounds, normal effort.',
    talker: '',
    lengthS: 10,
    position: 0,
  },
  {
    name: 'Plosives',
    text: 'Pull the port paddle back, Peter. Both bilge pumps broke before breakfast, but the barge is built to be patched.',
    purpose: 'Breath on the capsule.',
    talker: '',
    lengthS: 10,
    position: 1,
  },
  {
    name: 'Sibilants',
    text: 'Sixteen slack chains slip through the seaweed. Six swans circle as the last mist rises.',
    purpose: 'Sharpness of the top end.',
    talker: '',
    lengthS: 9,
    position: 2,
  },
  {
    name: 'Counting, turn at five',
    text: 'One to ten aloud. Turn round after five, so that the body stands in the way of the radio.',
    purpose: 'Range: facing and turned.',
    talker: '',
    lengthS: 12,
    position: 3,
  },
  { name: 'Room tone', text: 'Ten seconds of silence. Nobody moves.', purpose: 'Noise floor of the place and the chain.', talker: '', lengthS: 10, position: 4 },
];
