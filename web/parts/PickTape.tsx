import type { Chain } from '@marvet/core/domain/chain';
import { slateLabel, type Take, type TakeSetup } from '@marvet/core/domain/take';
import { useAppDispatch, useAppSelector } from '../data/store.ts';
import { inTray, picked, type TrayEntry } from '../data/tray.ts';
import { TapeMark } from './TapeMark.tsx';

const NOTHING: TrayEntry[] = [];

interface PickTapeProps {
  take: Pick<Take, 'id' | 'trialId' | 'slate' | 'pass'>;
  setup: Pick<TakeSetup, 'id'>;
  chain: Chain;
  /** What this setup has that others of the take have not. */
  levels?: string;
  width?: number;
}

/** The tape of a setup in a take: a press picks it up into the tray, or puts it back. */
export function PickTape({ take, setup, chain, levels = '', width = 44 }: PickTapeProps) {
  const dispatch = useAppDispatch();
  const entry = { takeId: take.id, setupId: setup.id };
  const held = useAppSelector((state) => inTray(state.tray.byTrial[take.trialId] ?? NOTHING, entry));
  return (
    <button
      type="button"
      className="pick-tape"
      aria-pressed={held}
      aria-label={`Take ${slateLabel(take)} ${[chain.name, levels].filter(Boolean).join(', ')} in the tray`}
      title={held ? 'Put back from the tray' : 'Pick up into the tray'}
      onClick={() => dispatch(picked({ trialId: take.trialId, entry }))}
    >
      <TapeMark tape={chain.tape} name="" width={width} />
      {levels && <span className="small">{levels}</span>}
    </button>
  );
}
