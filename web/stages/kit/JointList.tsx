import type { JointFinding } from '@marvet/core/chain/joint.types';
import { checkJoints } from '@marvet/core/chain/joints';
import type { Chain } from '@marvet/core/domain/chain';
import type { Item } from '@marvet/core/domain/item';
import { CircleHelp, TriangleAlert, Unplug } from 'lucide-react';

const MARKS: Record<Exclude<JointFinding['severity'], 'unknown'>, { Icon: typeof Unplug; word: string }> = {
  fault: { Icon: Unplug, word: 'Does not go together' },
  care: { Icon: TriangleAlert, word: 'With care' },
};

/** What is wrong with the joints of a chain, and what to do about it; found at the kitchen table rather than on location. */
export function JointList({ chain, items }: { chain: Chain; items: ReadonlyMap<string, Item> }) {
  const findings = checkJoints(chain, items);
  if (chain.links.length < 2) return null;
  if (findings.length === 0) return <div className="small soft">All joints fit.</div>;
  const unknown = findings.filter(({ severity }) => severity === 'unknown');
  return (
    <ul className="joints small">
      {findings.flatMap(({ severity, joint, sentence, remedy }) => {
        if (severity === 'unknown') return [];
        const { Icon, word } = MARKS[severity];
        return [
          <li key={joint + sentence}>
            <Icon size={15} aria-hidden className={severity === 'fault' ? 'alarm' : 'soft'} />
            <span>
              <b>{word}:</b> {joint}. {sentence} <span className="soft">{remedy}</span>
            </span>
          </li>,
        ];
      })}
      {unknown.length > 0 && (
        <li>
          <CircleHelp size={15} aria-hidden className="soft" />
          <details>
            <summary>
              {unknown.length} {unknown.length === 1 ? 'thing is' : 'things are'} not known about the joints
            </summary>
            {unknown.map(({ sentence }) => (
              <div key={sentence}>{sentence}</div>
            ))}
            <span className="soft">Look, and enter it in the library.</span>
          </details>
        </li>
      )}
    </ul>
  );
}
