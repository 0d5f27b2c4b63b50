import type { CriterionDraft } from './criterion.ts';
import { criterionDraftSchema } from './criterion.ts';
import type { FactorKind } from './factor.ts';
import type { Control, Design } from './plan.ts';
import type { ScriptDraft } from './script.ts';
import { SCRIPT_CARDS } from './scriptCards.ts';

/** What a common question starts from: criteria with weights, what is varied, what is said. All of it can be changed. */
export interface StartingPoint {
  id: StartingPointId;
  name: string;
  question: string;
  use: string;
  /** Why these criteria, factors and scripts. */
  why: string;
  criteria: CriterionDraft[];
  /** Kinds to vary, with the levels that are ticked at the start; a kind of its own brings its usual levels. */
  factors: { kind: FactorKind; labels: string[] }[];
  scripts: ScriptDraft[];
  controls: Control[];
  design: Design['kind'];
}

export const STARTING_POINT_IDS = [
  'any',
  'hidden lavalier',
  'boom in small rooms',
  'two-channel wireless',
  'camera microphone',
  'headsets for a cast',
  'recorder',
  'fault',
] as const;
export type StartingPointId = (typeof STARTING_POINT_IDS)[number];

const measured = (name: string, measureId: CriterionDraft['measureId'], weight: number, best: number, worst: number, rest: Partial<CriterionDraft> = {}) =>
  criterionDraftSchema.parse({ name, kind: 'measured', measureId, weight, best, worst, ...rest });
const listened = (name: string, weight: number, worstWords: string, bestWords: string) =>
  criterionDraftSchema.parse({ name, kind: 'listened', weight, best: 10, worst: 0, worstWords, bestWords });
const inspected = (name: string, weight: number, worstWords: string, bestWords: string) =>
  criterionDraftSchema.parse({ name, kind: 'inspected', weight, best: 10, worst: 0, worstWords, bestWords });

const HELD: Control[] = [
  { name: 'Clothes', value: '' },
  { name: 'Effort', value: 'normal, to someone at 3 m' },
];

export const STARTING_POINTS: readonly StartingPoint[] = [
  {
    id: 'any',
    name: 'Any question',
    question: '',
    use: '',
    why: 'Two measured, two listened to, one inspected: what nearly every choice of microphones comes down to. Nothing of the plan is changed.',
    criteria: [
      measured('Voice over noise', 'noise.snrDb', 25, 40, 6),
      measured('Practical noise floor', 'noise.practicalFloorDbfsA', 15, -70, -40),
      listened('Words are clear', 30, 'had to guess', 'every word at once'),
      listened('Sounds like the person', 20, 'a telephone', 'as standing there'),
      inspected('Build and connectors', 10, 'broke on the day', 'would survive a drop'),
    ],
    factors: [],
    scripts: [],
    controls: [],
    design: 'full',
  },
  {
    id: 'hidden lavalier',
    name: 'Hide a lavalier',
    question: 'Which lavalier hides under this costume and still blends with the boom?',
    use: 'Medium shots, talker sits and turns, nothing may be seen.',
    why: 'Cloth and height on the chest change the sound more than the model does, so placement is varied, and closeness to the open voice weighs most. Noise is judged at its worst, since the quiet line is the one that fails.',
    criteria: [
      listened('Sounds like the person', 30, 'from under a blanket', 'as standing there'),
      measured('Rustle of cloth', 'events.rustle.perMinute', 10, 0, 12),
      listened('Cloth is not heard', 15, 'rustles through the words', 'silent in every move'),
      measured('Practical noise floor', 'noise.practicalFloorDbfsA', 15, -70, -40, { aggregation: 'worst' }),
      measured('Intelligibility index', 'intelligibility.sii', 15, 0.75, 0.3),
      inspected('Cannot be seen', 15, 'shows in every frame', 'nobody finds it'),
    ],
    factors: [
      { kind: 'placement', labels: ['breastbone', 'collar'] },
      { kind: 'windscreen', labels: ['bare'] },
      { kind: 'distance', labels: ['1 m'] },
    ],
    scripts: [SCRIPT_CARDS.walk, SCRIPT_CARDS.headTurn, SCRIPT_CARDS.whisper],
    controls: HELD,
    design: 'full',
  },
  {
    id: 'boom in small rooms',
    name: 'Choose a boom for small rooms',
    question: 'Which boom microphone do I take into small hard rooms?',
    use: 'Interiors with low ceilings, two talkers, boom from above at 0.6 to 1 m.',
    why: 'Some say an interference tube never belongs indoors, others say listen first: so rooms and orientation are varied and reverberation is measured, rather than settled beforehand.',
    criteria: [
      measured('Reverberation heard', 'character.reverberationS', 20, 0.2, 0.9, { aggregation: 'worst' }),
      listened('Room sounds natural', 25, 'a bathroom', 'as in the room'),
      listened('Colour off axis', 20, 'hollow when turned', 'only quieter'),
      measured('Voice over noise', 'noise.snrDb', 20, 40, 15),
      measured('Handling noise', 'events.handling.perMinute', 5, 0, 6),
      inspected('Handling on the pole', 10, 'every grip is heard', 'silent'),
    ],
    factors: [
      { kind: 'orientation', labels: ['0°', '90°', '180°'] },
      { kind: 'distance', labels: ['1 m'] },
      { kind: 'windscreen', labels: ['bare'] },
    ],
    scripts: [SCRIPT_CARDS.cue, SCRIPT_CARDS.headTurn],
    controls: [
      { name: 'Ceiling', value: '' },
      { name: 'Boom', value: 'from above' },
    ],
    design: 'full',
  },
  {
    id: 'two-channel wireless',
    name: 'Choose a two-channel wireless system',
    question: 'Is a small two-channel system good enough for this work?',
    use: 'Two talkers outdoors, up to 40 m, walking and turned away.',
    why: 'Range at each mark, facing and turned, decides; sound matters only inside it. Break-ups inside the working distance rule out, and so does a voice that drowns at the worst mark: both have a limit.',
    criteria: [
      measured('Break-ups, worst mark', 'events.dropout.perMinute', 25, 0, 6, { aggregation: 'worst', dealbreaker: { side: 'above', limit: 6 } }),
      measured('Voice over noise, worst mark', 'noise.snrDb', 20, 35, 5, { aggregation: 'worst', dealbreaker: { side: 'below', limit: 6 } }),
      measured('Practical noise floor', 'noise.practicalFloorDbfsA', 10, -70, -40),
      listened('Words are clear', 20, 'had to guess', 'every word at once'),
      inspected('Build and connectors', 15, 'broke on the day', 'would survive a drop'),
      inspected('Display and controls outdoors', 10, 'unreadable in sun', 'set with gloves on'),
    ],
    factors: [
      { kind: 'distance', labels: ['1 m', '10 m', '40 m'] },
      { kind: 'orientation', labels: ['0°', '180°'] },
      { kind: 'windscreen', labels: ['foam'] },
    ],
    scripts: [SCRIPT_CARDS.walk, SCRIPT_CARDS.shout],
    controls: HELD,
    design: 'pairs',
  },
  {
    id: 'camera microphone',
    name: 'Camera microphone for one person',
    question: 'Which microphone on the camera carries one person alone?',
    use: 'One person, arm’s length to three metres, no time for post.',
    why: 'Nobody mixes afterwards, so noise reduction in the unit is tested on and off, and wind with and without a screen.',
    criteria: [
      listened('Words are clear', 30, 'had to guess', 'every word at once'),
      measured('Voice over noise', 'noise.snrDb', 25, 35, 8),
      measured('Wind against the voice', 'character.windDb', 20, -20, 5, { aggregation: 'worst' }),
      listened('Sounds untreated', 15, 'metallic, swallowed ends', 'untouched'),
      inspected('Size and handling on the camera', 10, 'in the way', 'forgotten at once'),
    ],
    factors: [
      { kind: 'distance', labels: ['1 m', '3 m'] },
      { kind: 'windscreen', labels: ['bare', 'fur'] },
      { kind: 'processing', labels: ['off', 'on'] },
    ],
    scripts: [SCRIPT_CARDS.walk],
    controls: [
      { name: 'Camera', value: '' },
      { name: 'Automatic level', value: 'off' },
    ],
    design: 'pairs',
  },
  {
    id: 'headsets for a cast',
    name: 'Headsets for a cast',
    question: 'Which headsets do we buy for the whole cast, and who gets which?',
    use: 'Stage, leads and ensemble, costumes with hats, one budget.',
    why: 'Many units of which some will be broken: build and fit weigh as much as sound. Loud voices overload cheap capsules, so effort is varied. Enter roles and budget, so that the verdict can share out.',
    criteria: [
      listened('Sounds like the person', 25, 'a telephone', 'as standing there'),
      measured('Clipped runs', 'levels.clippedRuns', 15, 0, 10, { aggregation: 'worst' }),
      measured('Proximity', 'character.proximityDb', 10, 0, 12),
      inspected('Boom reaches the corner of the mouth and stays', 25, 'slips in a minute', 'stays through a dance'),
      inspected('Cable, clip and connector', 25, 'broke on the day', 'would survive a drop'),
    ],
    factors: [
      { kind: 'effort', labels: ['normal', 'raised'] },
      { kind: 'talker', labels: ['low voice', 'high voice'] },
      { kind: 'distance', labels: ['1 m'] },
      { kind: 'windscreen', labels: ['foam'] },
    ],
    scripts: [SCRIPT_CARDS.shout, SCRIPT_CARDS.ensemble, SCRIPT_CARDS.walk],
    controls: [{ name: 'Side of the face', value: 'left' }],
    design: 'full',
  },
  {
    id: 'recorder',
    name: 'Recorder or preamplifier against another',
    question: 'Is the difference between these inputs heard with my microphones?',
    use: 'The same microphone, split to both, quiet place and loud voice.',
    why: 'A wireless link can hide the difference between two recorders, so one microphone is split and both hear the same moment. Noise decides at the whisper, overload at the shout.',
    criteria: [
      measured('Practical noise floor', 'noise.practicalFloorDbfsA', 35, -75, -50, { aggregation: 'worst' }),
      measured('Clipped runs', 'levels.clippedRuns', 15, 0, 10, { aggregation: 'worst' }),
      listened('Difference is heard', 25, 'plainly worse', 'cannot be told apart'),
      inspected('Menus and meters', 15, 'needs the manual', 'set in the dark'),
      inspected('Power and storage', 10, 'half a day', 'a day and a half'),
    ],
    factors: [
      { kind: 'effort', labels: ['normal', 'raised'] },
      { kind: 'distance', labels: ['1 m'] },
      { kind: 'windscreen', labels: ['bare'] },
    ],
    scripts: [SCRIPT_CARDS.whisper, SCRIPT_CARDS.shout, SCRIPT_CARDS.tone],
    controls: [{ name: 'Microphone', value: 'one, split' }],
    design: 'full',
  },
  {
    id: 'fault',
    name: 'Find a fault',
    question: 'Which link of this chain makes the noise?',
    use: 'A chain that crackles, hums or drops out.',
    why: 'One link is exchanged at a time, half of the suspects per test, so the guilty one is found in the fewest tests. The search stands in Plan; the criteria only say when the chain is sound again.',
    criteria: [
      measured('Practical noise floor', 'noise.practicalFloorDbfsA', 40, -65, -35, { aggregation: 'worst' }),
      listened('Fault is gone', 40, 'as before', 'not once in a minute'),
      measured('Clicks', 'events.click.perMinute', 10, 0, 6),
      inspected('Joint holds when pulled', 10, 'crackles at a touch', 'silent'),
    ],
    factors: [
      { kind: 'distance', labels: ['1 m'] },
      { kind: 'windscreen', labels: ['bare'] },
    ],
    scripts: [SCRIPT_CARDS.cableTap, SCRIPT_CARDS.tone],
    controls: [{ name: 'Place', value: 'where it was first heard' }],
    design: 'one change',
  },
];
