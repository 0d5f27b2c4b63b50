import { checkJoints, type JointFinding } from '@marvet/core/chain/joints';
import type { Chain } from '@marvet/core/domain/chain';
import type { Item } from '@marvet/core/domain/item';
import { CircleHelp, TriangleAlert, Unplug } from 'lucide-react';

const MARKS: Record<JointFinding['severity'], { Icon: typeof Unplug; word: string }> = {
  fault: { Icon: Unplug, word: 'Does not go together' },
  care: { Icon: TriangleAlert, word: 'With care' },
  unknown: { Icon: CircleHelp, word: 'Not known' },
};

/** What is wrong with the joints of a chain, and what to do about it; found at the kitchen table rather than on location. */
export function JointList({ chain, items }: { chain: Chain; items: ReadonlyMap<string, Item> }) {
  const findings = checkJoints(chain, items);
  if (chain.links.length < 2) return null;
  if (findings.length === 0) return <div className="small soft">All joints fit.</div>;
  return (
    <ul className="joints small">
      {findings.map(({ severity, joint, sentence, remedy }) => {
        const { Icon, word } = MARKS[severity];
        return (
          <li key={joint + sentence}>
            <Icon size={15} aria-hidden className={severity === 'fault' ? 'alarm' : 'soft'} />
            <span>
              <b>{word}:</b> {joint}. {sentence} <span className="soft">{remedy}</span>
            </span>
          </li>
        );
      })}
    </ul>
  );
}
