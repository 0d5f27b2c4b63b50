import type { CapturedChannel } from '@marvet/core/domain/capture';
import type { Chain } from '@marvet/core/domain/chain';
import { firstSetups, type Take } from '@marvet/core/domain/take';

/** What a channel of the inputs is of: a candidate, by its chain; something else that is recorded along; or nothing. */
export type ChannelUse = { chainId: string } | 'along' | 'off';

/**
 * Channels that are recorded of a take, and of which of its setups each is. A candidate that is in the take twice
 * has its channels in the order of its setups; a channel of a candidate that is not in the take is left out.
 */
export function chosenChannels(
  take: Pick<Take, 'setups'>,
  uses: readonly ChannelUse[],
  chains: readonly Pick<Chain, 'id' | 'tape'>[],
  names: readonly string[],
): (CapturedChannel & { channel: number })[] {
  const free = firstSetups(take);
  return uses.flatMap((use, channel): (CapturedChannel & { channel: number })[] => {
    if (use === 'off') return [];
    if (use === 'along') return [{ channel, name: names[channel] ?? `Channel ${channel + 1}`, setupId: null }];
    const at = free.findIndex(({ candidateId }) => candidateId === use.chainId);
    const [setup] = at < 0 ? [] : free.splice(at, 1);
    const letters = chains.find(({ id }) => id === use.chainId)?.tape.letters ?? '';
    return setup ? [{ channel, name: letters, setupId: setup.id }] : [];
  });
}
