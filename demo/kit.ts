import { type LinkSettings, NO_SETTINGS } from '@marvet/core/domain/chain';
import { itemDraftSchema } from '@marvet/core/domain/item';
import type { Bundle, BundledTrial } from '@marvet/core/formats/bundle';
import type { SimulatedCandidate } from '@marvet/core/simulate/candidate';
import { demoId } from './ids.ts';

type Item = Bundle['items'][number];
type Chain = BundledTrial['chains'][number];

const item = (key: string, kind: Item['kind'], name: string, rest: Partial<Item>): Item => ({
  ...itemDraftSchema.parse({ ...COMMON[kind], kind, name, ...rest }),
  id: demoId('item', key),
});

/** What units of a kind have in common in this demo. */
const COMMON: Partial<Record<Item['kind'], Partial<Item>>> = {
  transmitter: { balancedInput: false, sampleRatesHz: [48_000], warrantyMonths: 24 },
  receiver: { sampleRatesHz: [48_000], warrantyMonths: 24 },
  microphone: { frequencyLowHz: 40, frequencyHighHz: 18_000, warrantyMonths: 24 },
};

/** Equipment of the demo. Makers and models are invented. */
export const ITEMS: Item[] = [
  item('ft-mic', 'microphone', 'Fenntide Sprat lavalier', {
    price: 60,
    weightG: 9,
    pattern: 'omnidirectional',
    selfNoiseDba: 31,
    sensitivityMvPerPa: 12,
    maxSplDb: 118,
    remark: 'Plug does not lock.',
    inTheBox: 'foam, clip, pouch',
    cable: '1.2 m, fixed',
    warrantyMonths: 12,
    outputConnector: 'mini-jack, 3-pole',
    powerNeeds: 'plug-in',
  }),
  item('ft-set', 'transmitter', 'Fenntide Two transmitter', {
    storageGb: 8,
    wordLengths: ['24 bit'],
    owned: 2,
    price: 140,
    weightG: 32,
    batteryType: 'built-in',
    batteryCount: 1,
    runningTimeH: 6,
    inputMaxDbu: -14,
    inputNoiseDbuA: -112,
    gainMinDb: 0,
    gainMaxDb: 24,
    inputConnector: 'mini-jack, 3-pole',
    outputConnector: 'radio',
    powerGives: 'plug-in',
  }),
  item('ft-rx', 'receiver', 'Fenntide Two receiver', {
    channels: 2,
    balancedOutput: false,
    price: 160,
    weightG: 36,
    batteryType: 'built-in',
    batteryCount: 1,
    runningTimeH: 6,
    inputNoiseDbuA: -76,
    outputMaxDbu: -20,
    inputConnector: 'radio',
    outputConnector: 'mini-jack, 3-pole',
  }),
  item('qo-mic', 'microphone', 'Quoinholt Osier lavalier', {
    switches: 'cap +6 dB above 8 kHz',
    moisture: 'splash-proof',
    cable: '1.6 m, fixed',
    sizeMm: '3.2 x 9',
    owned: 2,
    price: 240,
    weightG: 6,
    pattern: 'omnidirectional',
    selfNoiseDba: 26,
    sensitivityMvPerPa: 8,
    maxSplDb: 134,
    outputConnector: 'locking mini-jack',
    powerNeeds: 'bias',
  }),
  item('qo-tx', 'transmitter', 'Quoinholt Weir transmitter', {
    price: 430,
    weightG: 82,
    batteryType: 'AA',
    batteryCount: 2,
    runningTimeH: 7,
    inputMaxDbu: -6,
    inputNoiseDbuA: -122,
    gainMinDb: 0,
    gainMaxDb: 36,
    inputConnector: 'locking mini-jack',
    outputConnector: 'radio',
    powerGives: 'bias',
  }),
  item('qo-rx', 'receiver', 'Quoinholt Weir receiver', {
    price: 480,
    weightG: 110,
    batteryType: 'AA',
    batteryCount: 2,
    runningTimeH: 7,
    inputNoiseDbuA: -88,
    outputMaxDbu: 4,
    inputConnector: 'radio',
    outputConnector: 'locking mini-jack',
  }),
  item('lb-mic', 'microphone', 'Lowbrack Bittern lavalier', {
    price: 520,
    weightG: 5,
    pattern: 'omnidirectional',
    selfNoiseDba: 24,
    sensitivityMvPerPa: 17,
    maxSplDb: 112,
    outputConnector: 'miniature, 3-pin',
    wiring: 'pin 3 signal',
    powerNeeds: 'bias',
  }),
  item('lb-tx', 'transmitter', 'Lowbrack Mere transmitter', {
    storageGb: 16,
    wordLengths: ['24 bit', '32-bit float'],
    price: 1480,
    weightG: 70,
    batteryType: 'AA',
    batteryCount: 1,
    runningTimeH: 4,
    inputMaxDbu: 1,
    inputNoiseDbuA: -124,
    gainMinDb: 0,
    gainMaxDb: 40,
    inputConnector: 'miniature, 3-pin',
    outputConnector: 'radio',
    wiring: 'pin 3 signal',
    powerGives: 'bias',
  }),
  item('lb-rx', 'receiver', 'Lowbrack Mere receiver', {
    price: 1890,
    weightG: 150,
    batteryType: 'AA',
    batteryCount: 4,
    runningTimeH: 5,
    inputNoiseDbuA: -84,
    outputMaxDbu: 18,
    inputConnector: 'radio',
    outputConnector: 'XLR, 3-pin',
  }),
  item('wh-mic', 'microphone', 'Witherley Heron lavalier', {
    price: 310,
    weightG: 7,
    pattern: 'omnidirectional',
    selfNoiseDba: 27,
    sensitivityMvPerPa: 6,
    maxSplDb: 140,
    outputConnector: 'miniature, 4-pin',
    powerNeeds: 'bias',
  }),
  item('wh-tx', 'transmitter', 'Witherley Reach transmitter', {
    price: 690,
    weightG: 88,
    batteryType: 'AA',
    batteryCount: 2,
    runningTimeH: 8,
    inputMaxDbu: -8,
    inputNoiseDbuA: -118,
    gainMinDb: 0,
    gainMaxDb: 30,
    inputConnector: 'miniature, 4-pin',
    outputConnector: 'radio',
    powerGives: 'bias',
  }),
  item('wh-rx', 'receiver', 'Witherley Reach receiver', {
    price: 820,
    weightG: 132,
    batteryType: 'AA',
    batteryCount: 2,
    runningTimeH: 8,
    inputNoiseDbuA: -86,
    outputMaxDbu: 8,
    inputConnector: 'radio',
    outputConnector: 'XLR, 3-pin',
  }),
  item('bm-mic', 'microphone', 'Brackmoor Spit short boom microphone', {
    address: 'end',
    balancedOutput: true,
    switches: 'low-cut 80 Hz, pad 10 dB',
    sizeMm: '19 x 130',
    price: 760,
    weightG: 105,
    pattern: 'supercardioid',
    selfNoiseDba: 14,
    sensitivityMvPerPa: 20,
    maxSplDb: 130,
    outputConnector: 'XLR, 3-pin',
    powerNeeds: 'phantom 48 V',
  }),
  item('bm-tube', 'microphone', 'Brackmoor Groyne tube microphone', {
    address: 'end',
    balancedOutput: true,
    price: 990,
    weightG: 165,
    pattern: 'interference tube',
    selfNoiseDba: 12,
    sensitivityMvPerPa: 28,
    maxSplDb: 126,
    outputConnector: 'XLR, 3-pin',
    powerNeeds: 'phantom 48 V',
  }),
  item('bm-pole', 'cable', 'Cabled pole, 3 m', { owned: 2, price: 280, weightG: 690, inputConnector: 'XLR, 3-pin', outputConnector: 'XLR, 3-pin' }),
  item('fur', 'windscreen', 'Fur cover for lavaliers', { price: 18, weightG: 2 }),
  item('cage', 'windscreen', 'Suspended cage with fur', { price: 340, weightG: 420 }),
  item('recorder', 'recorder', 'Marshgate Eight recorder', {
    channels: 8,
    storageGb: 256,
    sampleRatesHz: [48_000, 96_000, 192_000],
    wordLengths: ['24 bit', '32-bit float'],
    balancedInput: true,
    balancedOutput: true,
    price: 1650,
    weightG: 980,
    batteryType: 'NP block',
    batteryCount: 1,
    runningTimeH: 6,
    inputMaxDbu: 4,
    inputNoiseDbuA: -128,
    gainMinDb: 0,
    gainMaxDb: 76,
    outputMaxDbu: 18,
    inputConnector: 'XLR, 3-pin',
    powerGives: 'phantom 48 V',
  }),
  item('camera', 'camera', 'Marshgate Reel camera', {
    price: 1400,
    weightG: 640,
    storageGb: 128,
    sampleRatesHz: [44_100, 48_000],
    wordLengths: ['16 bit', '24 bit'],
    batteryType: 'camera block',
    batteryCount: 1,
    runningTimeH: 2,
    inputMaxDbu: -26,
    inputNoiseDbuA: -110,
    gainMinDb: 0,
    gainMaxDb: 30,
    inputConnector: 'mini-jack, 3-pole',
    balancedInput: false,
    powerGives: 'plug-in',
    adapterPrice: 35,
    inTheBox: 'strap, one battery; adapter to XLR sold apart',
  }),
  item('adapter', 'adapter', 'Miniature connector to locking jack', { price: 45, weightG: 14, inputConnector: 'miniature, 3-pin', outputConnector: 'locking mini-jack' }),
];

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

const worn = { wornAtM: 0.22, directivity: 1 };

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
    heard: { wornAtM: null, directivity: 4, selfNoiseDba: 14, maxSplDb: 130, gainDbfs: 2, topLiftDb: 0, clothLossDb: 0, windSensitivityDb: 5, radio: null },
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
