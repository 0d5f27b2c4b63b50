/** A channel of a file of a recorder that is tied already, and the candidate that it is of. */
export interface TiedChannel {
  channelIndex: number;
  candidateId: string;
}

/**
 * Which candidate each channel of a recorder is of, as its other files have it: a transmitter stays on its microphone. A channel
 * that was of two candidates is of neither.
 */
export function habitOf(tied: readonly TiedChannel[]): Map<number, string> {
  const habit = new Map<number, string | null>();
  for (const { channelIndex, candidateId } of tied) {
    const known = habit.get(channelIndex);
    habit.set(channelIndex, known === undefined || known === candidateId ? candidateId : null);
  }
  return new Map([...habit].filter((entry): entry is [number, string] => entry[1] !== null));
}

/** The setup of each channel by the candidate that it is of; null where that is not known, or the take has the candidate not just once. */
export function setupsOf(channels: number, setups: readonly { id: string; candidateId: string }[], candidateOf: ReadonlyMap<number, string>): (string | null)[] {
  return Array.from({ length: channels }, (_, channel) => {
    const [only, ...others] = setups.filter(({ candidateId }) => candidateId === candidateOf.get(channel));
    return only && others.length === 0 ? only.id : null;
  });
}

/**
 * Setups of channels by several ways of knowing them, the best first: each channel has that of the first way that knows one. No setup is
 * given twice.
 * @example firstKnown([[null, 'b'], ['b', 'a'], ['a', null]]) // ['a', 'b']
 */
export function firstKnown(ways: readonly (readonly (string | null)[])[]): (string | null)[] {
  const taken = new Set<string>();
  return ways.reduce<(string | null)[]>((found, way) => {
    for (const id of found) if (id !== null) taken.add(id);
    return way.map((id, channel) => {
      const known = found[channel] ?? null;
      if (known !== null || id === null || taken.has(id)) return known;
      taken.add(id);
      return id;
    });
  }, []);
}
