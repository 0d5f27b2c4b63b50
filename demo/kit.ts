import { type LinkSettings, NO_SETTINGS } from '@marvet/core/domain/chain';
import type { BundledTrial } from '@marvet/core/formats/bundle';
import type { SimulatedCandidate } from '@marvet/core/simulate/candidate';
import { demoId } from './ids.ts';
import { ITEMS } from './items.ts';

type Chain = BundledTrial['chains'][number];

/** How each candidate is called, what it is made of, and how the simulator hears with it. */
interface DemoCandidate {
  letters: string;
  name: string;
  items: string[];
  gainDb: number;
  placement: string;
  onSkin: boolean;
  remark: string;
  heard: Omit<SimulatedCandidate, 'id'>;
}

const worn = { wornAtM: 0.22, pattern: { pressureShare: 1, tubeM: 0 }, placement: 'breastbone' } as const;

export const CANDIDATES: DemoCandidate[] = [
  {
    letters: 'FT',
    name: 'Fenntide Two',
    items: ['ft-mic', 'fur', 'ft-set', 'ft-rx'],
    gainDb: 12,
    placement: 'clip behind the button',
    onSkin: false,
    remark: 'Two-channel set out of one box.',
    heard: { ...worn, selfNoiseDba: 31, maxSplDb: 104, gainDbfs: -14, topLiftDb: 0, clothLossDb: 5, windSensitivityDb: 4, radio: { reliableToM: 28, noiseDbfs: -76 } },
  },
  {
    letters: 'QO',
    name: 'Quoinholt Osier',
    items: ['qo-mic', 'fur', 'qo-tx', 'qo-rx'],
    gainDb: 18,
    placement: 'breastbone, under the jumper',
    onSkin: true,
    remark: '',
    heard: { ...worn, selfNoiseDba: 26, maxSplDb: 132, gainDbfs: -16, topLiftDb: 5, clothLossDb: 4, windSensitivityDb: -3, radio: { reliableToM: 60, noiseDbfs: -88 } },
  },
  {
    letters: 'LB',
    name: 'Lowbrack Bittern',
    items: ['lb-mic', 'fur', 'lb-tx', 'lb-rx'],
    gainDb: 20,
    placement: 'breastbone, under the jumper',
    onSkin: true,
    remark: 'The one everybody asks for.',
    heard: { ...worn, selfNoiseDba: 24, maxSplDb: 108, gainDbfs: -15, topLiftDb: 0, clothLossDb: 9, windSensitivityDb: 3, radio: { reliableToM: 18, noiseDbfs: -84 } },
  },
  {
    letters: 'WH',
    name: 'Witherley Heron',
    items: ['wh-mic', 'fur', 'wh-tx', 'wh-rx'],
    gainDb: 16,
    placement: 'breastbone, under the jumper',
    onSkin: true,
    remark: '',
    heard: { ...worn, selfNoiseDba: 27, maxSplDb: 136, gainDbfs: -18, topLiftDb: 3, clothLossDb: 5, windSensitivityDb: 0, radio: { reliableToM: 48, noiseDbfs: -86 } },
  },
  {
    letters: 'BM',
    name: 'Brackmoor boom',
    items: ['bm-mic', 'cage', 'bm-pole', 'recorder'],
    gainDb: 38,
    placement: 'from above, out of frame',
    onSkin: false,
    remark: 'Only at 1 m: beyond that the frame is too wide.',
    heard: {
      wornAtM: null,
      pattern: { pressureShare: 0.25, tubeM: 0 },
      placement: 'open',
      selfNoiseDba: 14,
      maxSplDb: 130,
      gainDbfs: 2,
      topLiftDb: 0,
      clothLossDb: 0,
      windSensitivityDb: 5,
      radio: null,
    },
  },
];

export const chainId = (letters: string) => demoId('chain', letters);

/** What is set alike on all, so that no switch decides. */
const SET_ALIKE: Partial<LinkSettings> = { lowCutHz: 80, limiter: false, automaticLevel: false, noiseReduction: false, sampleRateHz: 48_000 };
const RECORDED_IN: Partial<Record<string, Partial<LinkSettings>>> = {
  FT: { wordLength: '24 bit', safetyTrackDb: -12 },
  LB: { wordLength: '32-bit float' },
  BM: { wordLength: '24 bit', power: 'phantom 48 V' },
};

/** The candidates as chains of the demo trial. */
export const CHAINS: Chain[] = CANDIDATES.map((candidate, position) => ({
  id: chainId(candidate.letters),
  name: candidate.name,
  links: candidate.items.map((key) => {
    const amplifies = ITEMS.some((each) => each.id === demoId('item', key) && ['transmitter', 'recorder'].includes(each.kind));
    return {
      itemId: demoId('item', key),
      settings: amplifies ? { ...NO_SETTINGS, ...SET_ALIKE, gainDb: candidate.gainDb, ...RECORDED_IN[candidate.letters] } : NO_SETTINGS,
    };
  }),
  rig: { placement: candidate.placement, onSkin: candidate.onSkin },
  split: null,
  candidate: true,
  tape: { kind: position, letters: candidate.letters },
  remark: candidate.remark,
  position,
}));

export const SIMULATED: ReadonlyMap<string, SimulatedCandidate> = new Map(
  CANDIDATES.map((candidate) => [chainId(candidate.letters), { ...candidate.heard, id: chainId(candidate.letters) }]),
);
