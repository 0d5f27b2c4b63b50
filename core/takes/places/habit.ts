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

/**
 * Setups of the channels of a file that were found by name, those that no name says by habit, where the take has the candidate once
 * and no other channel has it.
 */
export function setupsByHabit(found: readonly (string | null)[], setups: readonly { id: string; candidateId: string }[], habit: ReadonlyMap<number, string>): (string | null)[] {
  const taken = new Set(found.filter((id) => id !== null));
  return found.map((id, channelIndex) => {
    if (id !== null) return id;
    const own = setups.filter(({ candidateId }) => candidateId === habit.get(channelIndex));
    const [only] = own;
    if (own.length !== 1 || !only || taken.has(only.id)) return null;
    taken.add(only.id);
    return only.id;
  });
}
