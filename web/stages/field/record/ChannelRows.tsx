import type { Chain } from '@marvet/core/domain/chain';
import { candidatesOf, type Take } from '@marvet/core/domain/take';
import { useEffect, useState } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { ChannelMeter, dbfsText } from './ChannelMeters.tsx';
import { type ChannelUse, chosenChannels } from './chosenChannels.ts';
import { takeRecorder } from './takeRecorder.ts';
import { keepUses, keptUses, useRecorderState } from './useTakeRecorder.ts';

const wordOf = (use: ChannelUse) => (typeof use === 'string' ? use : use.chainId);
const meantBy = (word: string): ChannelUse => (word === 'along' || word === 'off' ? word : { chainId: word });

/** Channels of the inputs with their meters, and of which candidate each is. */
export function ChannelRows({ trialId, take, chains }: { trialId: string; take: Take; chains: Chain[] }) {
  const { open, levels, recording } = useRecorderState();
  const names = open?.channels ?? [];
  const [uses, setUses] = useState(() => {
    const kept = keptUses(trialId);
    // Until somebody says otherwise the channels are the candidates in their order.
    return names.map((_name, channel): ChannelUse => kept[channel] ?? (chains[channel] ? { chainId: chains[channel].id } : 'off'));
  });
  const change = (channel: number, use: ChannelUse) => {
    setUses(uses.map((each, index) => (index === channel ? use : each)));
  };
  // What stands here is what is recorded, whether somebody chose it or not.
  useEffect(() => keepUses(trialId, uses), [trialId, uses]);
  const inTake = candidatesOf(take);
  const missing = chains.filter(({ id }) => inTake.includes(id) && !uses.some((use) => typeof use !== 'string' && use.chainId === id));
  return (
    <>
      <table className="plain channel-rows" aria-label="Channels">
        <thead>
          <tr>
            <th>Channel</th>
            <th>Level, dBFS</th>
            <th className="num">Highest</th>
            <th>
              <Button size="sm" variant="plain" onClick={() => takeRecorder().resetHolds()}>
                Reset
              </Button>
            </th>
            <th>Is</th>
          </tr>
        </thead>
        <tbody>
          {names.map((name, channel) => {
            const level = levels[channel];
            return (
              <tr key={name}>
                <td>{name}</td>
                <td>{level && <ChannelMeter name={name} level={level} />}</td>
                <td className="num mono">{level && dbfsText(level.highestDbfs)}</td>
                <td>
                  {level?.clipped && <span className="alarm">clipped</span>}
                  {level?.dead && <span className="alarm">nothing comes</span>}
                </td>
                <td>
                  <Form.Select
                    size="sm"
                    aria-label={`${name} is`}
                    disabled={recording !== null}
                    value={wordOf(uses[channel] ?? 'off')}
                    onChange={(event) => change(channel, meantBy(event.target.value))}
                  >
                    {chains.map((chain) => (
                      <option key={chain.id} value={chain.id}>
                        {chain.tape.letters} {chain.name}
                      </option>
                    ))}
                    <option value="along">recorded along, no candidate</option>
                    <option value="off">not recorded</option>
                  </Form.Select>
                </td>
              </tr>
            );
          })}
        </tbody>
      </table>
      {missing.length > 0 && (
        <div className="small soft" role="status">
          {missing.map(({ name }) => name).join(', ')} of this take {missing.length === 1 ? 'has' : 'have'} no channel here.
        </div>
      )}
      {chosenChannels(take, uses, chains, names).length === 0 && (
        <div className="caution" role="status">
          No channel is of a candidate of this take: nothing would be recorded.
        </div>
      )}
    </>
  );
}
