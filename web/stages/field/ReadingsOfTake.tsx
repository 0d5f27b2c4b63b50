import { type Quantity, quantityText } from '@marvet/core/domain/quantity';
import type { Take } from '@marvet/core/domain/take';
import { useTakeReadingsQuery } from '../../data/devices.ts';

/** Of these a least and a most say nothing. */
const NOT_SUMMED: readonly Quantity[] = ['latitudeDeg', 'longitudeDeg', 'altitudeM', 'timecodeS'];

/** What devices told while a take ran: the least, the mean and the most of each channel. */
export function ReadingsOfTake({ take }: { take: Take }) {
  const { data } = useTakeReadingsQuery({ trialId: take.trialId, takeId: take.id }, { skip: take.status !== 'done' });
  const rows = (data?.devices ?? []).flatMap((device) =>
    device.channels
      .filter(({ channel }) => !NOT_SUMMED.includes(channel.quantity))
      .map(({ channel, sum }) => ({ key: `${device.deviceId} ${channel.id}`, device: device.name, channel, sum })),
  );
  if (take.status !== 'done' || rows.length === 0) return null;
  return (
    <details className="readings">
      <summary>What devices told while it ran</summary>
      <table className="plain small">
        <thead>
          <tr>
            <th>Device</th>
            <th>Channel</th>
            <th className="num">least</th>
            <th className="num">mean</th>
            <th className="num">most</th>
          </tr>
        </thead>
        <tbody>
          {rows.map(({ key, device, channel, sum }) => (
            <tr key={key}>
              <td>{device}</td>
              <td>{[channel.group, channel.name].filter(Boolean).join(' ')}</td>
              <td className="num">{quantityText(channel.quantity, sum.least)}</td>
              <td className="num">{channel.quantity === 'muted' ? `${Math.round(100 * sum.mean)} %` : quantityText(channel.quantity, sum.mean)}</td>
              <td className="num">{quantityText(channel.quantity, sum.most)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </details>
  );
}
