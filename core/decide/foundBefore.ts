import type { Chain } from '../domain/chain.ts';
import type { Criterion } from '../domain/criterion.ts';
import type { Item } from '../domain/item.ts';
import { listed } from '../domain/listed.ts';
import { isSpoiled, type Take } from '../domain/take.ts';
import { MEASURES, signed } from '../measure/catalogue.ts';
import { goodAndBad } from './candidateTold.ts';
import type { VerdictRow } from './verdict.ts';
import { criterionUnit } from './verdictCsv.ts';

/** What one trial found of a candidate, kept for the next time. It is of its conditions, and of no others. */
export interface FoundBefore {
  trialId: string;
  trialName: string;
  /** When its last take was made; null where none was timed. */
  atMs: number | null;
  candidateId: string;
  candidateName: string;
  itemIds: string[];
  /** Where it sat, as Kit says it; empty where nobody said. */
  placement: string;
  /** Stations at which it was recorded, and in how many takes. */
  stations: string[];
  takes: number;
  rank: number | null;
  of: number;
  score: number | null;
  /** Criteria whose limit it broke, on which it was the best, and the worst. */
  ruledOut: string[];
  best: string[];
  worst: string[];
  figures: { name: string; text: string; conditions: number }[];
}

export interface FoundFrom {
  trial: { id: string; name: string };
  criteria: readonly Criterion[];
  rows: readonly VerdictRow[];
  chains: readonly Pick<Chain, 'id' | 'links' | 'rig'>[];
  takes: readonly Take[];
  /** Setups of which there is a recording. */
  recorded: ReadonlySet<string>;
  stationName(id: string): string | null;
}

/** What a trial with an open verdict found, candidate by candidate; nothing of those that were never recorded. */
export function foundBefore({ trial, criteria, rows, chains, takes, recorded, stationName }: FoundFrom): FoundBefore[] {
  const heard = takes.filter((take) => !isSpoiled(take));
  const nameOf = (id: string) => criteria.find((criterion) => criterion.id === id)?.name ?? '';
  return rows.flatMap((row): FoundBefore[] => {
    const { candidate, cells, rank, score, ruledOut } = row;
    const own = heard.filter(({ setups }) => setups.some(({ id, candidateId }) => candidateId === candidate.id && recorded.has(id)));
    const chain = chains.find(({ id }) => id === candidate.id);
    if (!chain || own.length === 0) return [];
    const times = own.flatMap(({ startedAtMs }) => startedAtMs ?? []);
    const { good, bad } = goodAndBad(rows, criteria, candidate.id);
    return [
      {
        trialId: trial.id,
        trialName: trial.name,
        atMs: times.length > 0 ? Math.max(...times) : null,
        candidateId: candidate.id,
        candidateName: candidate.name,
        itemIds: chain.links.map(({ itemId }) => itemId),
        placement: chain.rig.placement,
        stations: [...new Set(own.flatMap(({ condition }) => stationName(condition.station) ?? []))],
        takes: own.length,
        rank,
        of: rows.length,
        score,
        ruledOut: ruledOut.map(({ criterionId }) => nameOf(criterionId)),
        best: good.map(({ criterionId }) => nameOf(criterionId)),
        worst: bad.map(({ criterionId }) => nameOf(criterionId)),
        figures: cells.flatMap(({ criterionId, value, count }) => {
          const criterion = criteria.find(({ id }) => id === criterionId);
          if (!criterion || value === null) return [];
          const digits = criterion.measureId ? MEASURES[criterion.measureId].digits : 1;
          return [{ name: criterion.name, text: `${signed(value, digits)} ${criterionUnit(criterion)}`.trim(), conditions: count }];
        }),
      },
    ];
  });
}

/** What was found, in sentences. */
export function foundTexts({ rank, of, score, ruledOut, best, worst, stations, takes, placement }: FoundBefore): string[] {
  const place = rank === null ? (ruledOut.length > 0 ? `ruled out by ${listed(ruledOut)}` : 'without a place') : `place ${rank} of ${of}`;
  const where = stations.length > 0 ? ` at ${listed(stations)}` : '';
  return [
    `${place.charAt(0).toUpperCase()}${place.slice(1)}${score === null ? '' : `, ${Math.round(score)} points of 100`}, in ${takes} ${takes === 1 ? 'take' : 'takes'}${where}${placement ? `; ${placement}` : ''}.`,
    ...(best.length > 0 ? [`Best of all in ${listed(best)}.`] : []),
    ...(worst.length > 0 ? [`Worst of all in ${listed(worst)}.`] : []),
  ];
}

/** What goes along with any chain says nothing of one: a cover, a cable. */
const ALONG: ReadonlySet<Item['kind']> = new Set(['windscreen', 'cable', 'adapter', 'recorder', 'camera']);

/** What is believed of a chain from other trials: what they found of chains with the same microphone, transmitter or receiver, those that share most first. */
export function believedOf(
  chain: Pick<Chain, 'trialId' | 'links'>,
  found: readonly FoundBefore[],
  items: ReadonlyMap<string, Pick<Item, 'kind' | 'name'>>,
): { found: FoundBefore; shared: string[] }[] {
  const own = new Set(chain.links.flatMap(({ itemId }) => (ALONG.has(items.get(itemId)?.kind ?? 'cable') ? [] : [itemId])));
  return found
    .filter(({ trialId }) => trialId !== chain.trialId)
    .flatMap((each) => {
      const shared = each.itemIds.flatMap((id) => (own.has(id) ? [items.get(id)?.name ?? ''] : []));
      return shared.length > 0 ? [{ found: each, shared }] : [];
    })
    .sort((a, b) => b.shared.length - a.shared.length || (b.found.atMs ?? 0) - (a.found.atMs ?? 0));
}
