import { z } from 'zod';

/** What a connector is, as far as it matters for whether two go together. */
interface ConnectorFacts {
  /** Those of one shape go into each other. */
  shape: string;
  locks: boolean;
  poles: number;
  /** Shapes that its socket takes. */
  takes: readonly string[];
  /** Makers wire it differently, so that one that fits need not work. */
  wiredDifferently: boolean;
}

const FACTS = {
  'mini-jack, 3-pole': { shape: 'mini-jack', locks: false, poles: 3 },
  'mini-jack, 4-pole': { shape: 'mini-jack', locks: false, poles: 4 },
  'locking mini-jack': { shape: 'mini-jack', locks: true, poles: 3 },
  'miniature, 3-pin': { shape: 'miniature, 3-pin', locks: true, poles: 3 },
  'miniature, 4-pin': { shape: 'miniature, 4-pin', locks: true, poles: 4 },
  'jack 6.3 mm': { shape: 'jack 6.3 mm', locks: false, poles: 3 },
  'XLR, 3-pin': { shape: 'XLR, 3-pin', locks: true, poles: 3 },
  radio: { shape: 'radio', locks: true, poles: 0 },
  'combination, XLR and jack': { shape: 'XLR, 3-pin', locks: true, poles: 3, takes: ['XLR, 3-pin', 'jack 6.3 mm'] },
} as const satisfies Record<string, Pick<ConnectorFacts, 'shape' | 'locks' | 'poles'> & { takes?: readonly string[] }>;

export const connectorSchema = z.enum(Object.keys(FACTS) as [keyof typeof FACTS, ...(keyof typeof FACTS)[]]);
export type Connector = z.infer<typeof connectorSchema>;

export function connectorFacts(connector: Connector): ConnectorFacts {
  const facts: Pick<ConnectorFacts, 'shape' | 'locks' | 'poles'> & { takes?: readonly string[] } = FACTS[connector];
  return { ...facts, takes: facts.takes ?? [facts.shape], wiredDifferently: facts.shape === 'mini-jack' || facts.shape.startsWith('miniature') };
}

/** Ways to feed a microphone over its own line. */
export const powerSchema = z.enum(['none', 'plug-in', 'bias', 'phantom 12 V', 'phantom 48 V']);
export type Power = z.infer<typeof powerSchema>;
