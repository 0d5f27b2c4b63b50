import { z } from 'zod';

/** One layer of cloth: what a square metre of it weighs, and what it opposes to air that is pressed through. */
export const clothLayerSchema = z.object({
  name: z.string().trim().min(1, 'Say which cloth it is').max(60, 'Use at most 60 characters'),
  gsm: z.number().min(5, 'Cloth weighs 5 to 5,000 g/m²').max(5000, 'Cloth weighs 5 to 5,000 g/m²'),
  /** In Pa·s/m; null lets no air through. */
  flowPaSM: z.number().min(0, 'Flow resistance is 0 to 100,000 Pa·s/m').max(100_000, 'Flow resistance is 0 to 100,000 Pa·s/m').nullable(),
});
export type ClothLayer = z.infer<typeof clothLayerSchema>;

/**
 * Cloths to start from. Weights are those at which such cloths are sold; flow resistances are rounded by hand from what
 * weaves so dense let through, and one that you blow through easily has less. Held to a mouth, a cloth tells: what hardly lets breath
 * through has over 1,000.
 */
export const CLOTHS: readonly ClothLayer[] = [
  { name: 'silk', gsm: 50, flowPaSM: 60 },
  { name: 'linen', gsm: 160, flowPaSM: 100 },
  { name: 'cotton shirt', gsm: 120, flowPaSM: 150 },
  { name: 'jersey', gsm: 180, flowPaSM: 120 },
  { name: 'wool knit', gsm: 350, flowPaSM: 70 },
  { name: 'fleece', gsm: 260, flowPaSM: 90 },
  { name: 'wool coat', gsm: 520, flowPaSM: 500 },
  { name: 'denim', gsm: 400, flowPaSM: 900 },
  { name: 'canvas', gsm: 450, flowPaSM: 1500 },
  { name: 'windproof nylon', gsm: 80, flowPaSM: 8000 },
  { name: 'leather', gsm: 900, flowPaSM: null },
  { name: 'oilskin', gsm: 350, flowPaSM: null },
];
