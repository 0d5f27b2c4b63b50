import type { Chain, LinkSettings } from '../domain/chain.ts';
import type { Item } from '../domain/item.ts';
import { recordingHours } from './burden.ts';
import { isActive } from './levels.ts';

/** One thing to check on one unit before going out. */
export interface Check {
  /** Names unit, what and its value: when a setting changes, an old tick no longer counts. */
  key: string;
  unit: string;
  text: string;
  /** Chains that need it. */
  chainIds: string[];
}

type PreflightChain = Pick<Chain, 'id' | 'links'> & { split?: Chain['split'] };

/**
 * What to check before going out, from the settings of the chains and the minutes of the plan: each
 * unit once, whatever chains it is in, and units of one model apart. Gear that has no such setting brings no line.
 * @param planMin minutes of the plan, all of which may have to fit on each card
 */
export function preflightChecks(chains: readonly PreflightChain[], items: ReadonlyMap<string, Item>, planMin: number): Check[] {
  const checks = new Map<string, Check>();
  const units = unitsOf(chains, items);
  for (const chain of chains) {
    for (const [at, { itemId, settings }] of chain.links.entries()) {
      const item = items.get(itemId);
      if (!item) continue;
      const number = units.numberOf(chain.id, at);
      for (const [what, text] of checksOf(item, settings, planMin)) {
        const key = `${itemId}${number > 1 ? `#${number}` : ''}:${what}`;
        const known = checks.get(key);
        if (known) known.chainIds = [...new Set([...known.chainIds, chain.id])];
        else checks.set(key, { key, unit: units.countOf(itemId) > 1 ? `${item.name}, unit ${number}` : item.name, text, chainIds: [chain.id] });
      }
    }
  }
  const byUnit = new Map<string, Check[]>();
  for (const check of checks.values()) byUnit.set(check.unit, [...(byUnit.get(check.unit) ?? []), check]);
  return [...byUnit.values()].flat();
}

/**
 * Which unit of its model each link is, and how many of the model there are. Chains share a unit while it
 * has channels for them; links that a split shares are one; where only one unit is at hand, it is that one.
 * Three transmitters of one model in three chains are three to charge.
 */
function unitsOf(chains: readonly PreflightChain[], items: ReadonlyMap<string, Item>) {
  const uses = new Map<string, number>();
  const most = new Map<string, number>();
  const numbers = new Map<string, number>();
  // Whole lines first: a split takes its first links from one of them, wherever the two stand in the list.
  const wholeFirst = [...chains].sort((a, b) => Number(Boolean(a.split)) - Number(Boolean(b.split)));
  for (const { id, links, split } of wholeFirst) {
    for (const [at, { itemId }] of links.entries()) {
      const shared = split && at < split.links ? numbers.get(`${split.chainId} ${at}`) : undefined;
      const { channels = 1, owned = null } = items.get(itemId) ?? {};
      const before = uses.get(itemId) ?? 0;
      if (shared === undefined) uses.set(itemId, before + 1);
      const number = shared ?? Math.min(Math.floor(before / channels) + 1, owned === null ? Number.POSITIVE_INFINITY : Math.max(1, owned));
      numbers.set(`${id} ${at}`, number);
      most.set(itemId, Math.max(most.get(itemId) ?? 1, number));
    }
  }
  return { numberOf: (chainId: string, at: number) => numbers.get(`${chainId} ${at}`) ?? 1, countOf: (itemId: string) => most.get(itemId) ?? 1 };
}

/** Key part and sentence of each check of a unit as it is set. */
function checksOf(item: Item, settings: LinkSettings, planMin: number): [what: string, text: string][] {
  const checks: [string, string][] = [];
  if (item.kind === 'windscreen') checks.push(['on', 'on, sits tight, nothing loose under it']);
  if (item.batteryCount > 0) checks.push(['power', `charged, and ${item.batteryCount} spare ${item.batteryType || 'batteries'} packed`]);
  if (item.kind === 'transmitter' || item.kind === 'receiver') checks.push(['paired', 'paired, on a frequency that may be used here']);
  if (item.storageGb !== null) checks.push(storageCheck(item, item.storageGb, settings, planMin));
  if (item.kind === 'recorder' || item.kind === 'camera' || item.storageGb !== null) checks.push(['clock', 'clock and timecode set']);
  if (settings.sampleRateHz !== null || settings.wordLength !== null) {
    const text = [settings.sampleRateHz && `${settings.sampleRateHz / 1000} kHz`, settings.wordLength].filter(Boolean).join(', ');
    checks.push([`format=${text}`, `${text}, the same as all others`]);
  }
  if (isActive(item)) checks.push(...switchChecks(settings));
  return checks;
}

function storageCheck(item: Item, storageGb: number, settings: LinkSettings, planMin: number): [string, string] {
  if (settings.sampleRateHz === null || settings.wordLength === null) return ['storage', 'storage free, or set to overwrite'];
  const tracks = item.channels + (settings.safetyTrackDb ? item.channels : 0);
  const neededGb = (storageGb * planMin) / 60 / recordingHours(storageGb, settings.sampleRateHz, settings.wordLength, tracks);
  return [`storage=${neededGb.toFixed(1)}`, `${neededGb.toFixed(1)} GB free of ${storageGb} GB, for ${Math.ceil(planMin)} min`];
}

function switchChecks(settings: LinkSettings): [string, string][] {
  const checks: [string, string][] = [];
  const state = (what: string, name: string, on: boolean | null) => {
    if (on !== null) checks.push([`${what}=${on ? 'on' : 'off'}`, `${name} ${on ? 'on, on purpose' : 'off'}`]);
  };
  state('limiter', 'limiter', settings.limiter);
  state('auto', 'automatic level', settings.automaticLevel);
  state('nr', 'noise reduction', settings.noiseReduction);
  if (settings.lowCutHz !== null)
    checks.push([`lowcut=${settings.lowCutHz}`, settings.lowCutHz > 0 ? `low-cut at ${settings.lowCutHz} Hz, the same as all others` : 'low-cut off']);
  if (settings.safetyTrackDb) checks.push([`safety=${settings.safetyTrackDb}`, `safety track on, ${-settings.safetyTrackDb} dB lower`]);
  if (settings.lineLevel !== null) checks.push([`level=${settings.lineLevel}`, `input at ${settings.lineLevel} level`]);
  if (settings.power !== null) checks.push([`feed=${settings.power}`, settings.power === 'none' ? 'feeds no power' : `feeds ${settings.power}`]);
  if (settings.gainDb !== null) checks.push([`gain=${settings.gainDb}`, `gain ${settings.gainDb} dB${settings.padDb ? `, pad ${settings.padDb} dB` : ''}`]);
  return checks;
}
