import { z } from 'zod';
import { connectorSchema, powerSchema } from './connector.ts';
import { idSchema, instantMsSchema, nameSchema, remarkSchema, versionSchema } from './identity.ts';

export const itemKindSchema = z.enum(['microphone', 'transmitter', 'receiver', 'recorder', 'camera', 'windscreen', 'cable', 'adapter']);

export const pickupPatternSchema = z.enum(['omnidirectional', 'subcardioid', 'cardioid', 'supercardioid', 'hypercardioid', 'interference tube', 'figure of eight']);

/** ISO 4217 code. Marvet does not convert; sums are made only within one currency. */
export const currencySchema = z
  .string()
  .trim()
  .toUpperCase()
  .regex(/^[A-Z]{3}$/, 'Use the three-letter code, for example EUR');

const optionalNumber = (low: number, high: number, why: string) => z.number().min(low, why).max(high, why).nullable().default(null);

const shortText = z.string().trim().max(160, 'Use at most 160 characters').default('');

/** How a sample is stored; float cannot clip in the recorder, but what comes before it can. */
export const wordLengthSchema = z.enum(['16 bit', '24 bit', '32-bit float']);
export type WordLength = z.infer<typeof wordLengthSchema>;

/** One piece of equipment. A figure that is not known is null, never 0. */
export const itemDraftSchema = z
  .object({
    kind: itemKindSchema,
    name: nameSchema,
    price: optionalNumber(0, 1_000_000, 'A price is 0 to 1,000,000'),
    currency: currencySchema.default('EUR'),
    weightG: optionalNumber(0, 50_000, 'A weight is 0 to 50,000 g'),
    pattern: pickupPatternSchema.nullable().default(null),
    selfNoiseDba: optionalNumber(-10, 80, 'Self-noise is -10 to 80 dB A'),
    sensitivityMvPerPa: optionalNumber(0.01, 1000, 'Sensitivity is 0.01 to 1,000 mV/Pa'),
    maxSplDb: optionalNumber(60, 200, 'Maximum SPL is 60 to 200 dB'),
    /** Level that reaches full scale, or the clipping of an analogue input, at 0 dB gain and without a pad. */
    inputMaxDbu: optionalNumber(-80, 40, 'The largest input is -80 to 40 dBu'),
    /** The same of a line input that is apart from the microphone input; null where there is none. */
    lineInputMaxDbu: optionalNumber(-80, 40, 'The largest line input is -80 to 40 dBu'),
    /** Noise of its converter re full scale, A-weighted; gain before it lifts the voice over it. */
    converterNoiseDbfsA: optionalNumber(-160, -40, 'Converter noise is -160 to -40 dBFS A'),
    /** What a cable, an adapter or a splitter takes away. */
    lossDb: optionalNumber(0, 60, 'A loss is 0 to 60 dB'),
    /** Radio system that a transmitter or a receiver belongs to, as its papers call it. */
    radioSystem: z.string().trim().max(60, 'Use at most 60 characters').default(''),
    /** Equivalent input noise, A-weighted, at the gain that speech needs; of a receiver: noise of the radio path re full scale. */
    inputNoiseDbuA: optionalNumber(-160, 0, 'Input noise is -160 to 0 dBu A'),
    gainMinDb: optionalNumber(-60, 90, 'Gain is -60 to 90 dB'),
    gainMaxDb: optionalNumber(-60, 90, 'Gain is -60 to 90 dB'),
    /** Level at the analogue output for full scale. */
    outputMaxDbu: optionalNumber(-80, 40, 'The largest output is -80 to 40 dBu'),
    inputConnector: connectorSchema.nullable().default(null),
    outputConnector: connectorSchema.nullable().default(null),
    /** How a miniature connector is wired, in the words of its papers; two that differ do not go together. */
    wiring: z.string().trim().max(60, 'Use at most 60 characters').default(''),
    /** Of an adapter or a cable with two different ends: how the other end is wired. */
    outputWiring: z.string().trim().max(60, 'Use at most 60 characters').default(''),
    /** What a microphone has to be fed with over its line, and what a unit feeds; null is not known. */
    powerNeeds: powerSchema.nullable().default(null),
    powerGives: powerSchema.nullable().default(null),
    /** Whether its line carries the signal twice, in opposite polarity; null is not known. */
    balancedInput: z.boolean().nullable().default(null),
    balancedOutput: z.boolean().nullable().default(null),
    /** Channels that it takes at once. */
    channels: z.number().int().min(1, 'Channels are 1 to 64').max(64, 'Channels are 1 to 64').default(1),
    /** Units of it at hand; while it is not known, nothing is said to be short. */
    owned: z.number().int().min(0, 'Units are 0 to 99').max(99, 'Units are 0 to 99').nullable().default(null),
    sampleRatesHz: z.array(z.number().int().min(8000, 'Rates are 8,000 to 384,000 Hz').max(384_000, 'Rates are 8,000 to 384,000 Hz')).max(12).default([]),
    wordLengths: z.array(wordLengthSchema).max(4).default([]),
    storageGb: optionalNumber(0.1, 100_000, 'Storage is 0.1 to 100,000 GB'),
    frequencyLowHz: optionalNumber(1, 1000, 'The low end is 1 to 1,000 Hz'),
    frequencyHighHz: optionalNumber(1000, 200_000, 'The high end is 1 to 200 kHz'),
    /** Low-cuts, pads and caps that it has, in its papers' words. */
    switches: shortText,
    sizeMm: shortText,
    cable: shortText,
    moisture: shortText,
    address: z.enum(['side', 'end']).nullable().default(null),
    inTheBox: z.string().trim().max(300, 'Use at most 300 characters').default(''),
    warrantyMonths: optionalNumber(0, 600, 'A warranty is 0 to 600 months'),
    /** Price of adapters that are sold apart. */
    adapterPrice: optionalNumber(0, 100_000, 'A price is 0 to 100,000'),
    batteryType: z.string().trim().max(60, 'Use at most 60 characters').default(''),
    batteryCount: z.number().int().min(0, 'Batteries are 0 or more').max(24, 'At most 24 batteries').default(0),
    /** Of one that is thrown away, in the currency of the item; 0 where it is charged again. */
    batteryPrice: optionalNumber(0, 1000, 'A battery costs 0 to 1,000'),
    runningTimeH: optionalNumber(0, 1000, 'Running time is 0 to 1,000 h'),
    remark: remarkSchema,
  })
  .refine(({ gainMinDb, gainMaxDb }) => gainMinDb === null || gainMaxDb === null || gainMinDb <= gainMaxDb, {
    path: ['gainMaxDb'],
    message: 'The most gain is less than the least: exchange the two',
  });
export type ItemDraft = z.infer<typeof itemDraftSchema>;

export const itemSchema = z.object({ ...itemDraftSchema.shape, id: idSchema, version: versionSchema, binnedAtMs: instantMsSchema.nullable() });
/** As it is stored and answered. */
export type StoredItem = z.infer<typeof itemSchema>;
export type Item = ItemDraft & { id: string };
