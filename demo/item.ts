import { itemDraftSchema } from '@marvet/core/domain/item';
import type { Bundle } from '@marvet/core/formats/bundle';
import { demoId } from './ids.ts';

export type Item = Bundle['items'][number];

/** An item of the demo's library, by the key that chains name it by. */
export const item = (key: string, kind: Item['kind'], name: string, rest: Partial<Item>): Item => ({
  ...itemDraftSchema.parse({ ...COMMON[kind], kind, name, ...rest }),
  id: demoId('item', key),
});

/** What units of a kind have in common in this demo. */
const COMMON: Partial<Record<Item['kind'], Partial<Item>>> = {
  transmitter: { balancedInput: false, sampleRatesHz: [48_000], warrantyMonths: 24 },
  receiver: { sampleRatesHz: [48_000], warrantyMonths: 24 },
  microphone: { frequencyLowHz: 40, frequencyHighHz: 18_000, warrantyMonths: 24 },
};
