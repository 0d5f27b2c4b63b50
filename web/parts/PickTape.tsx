import type { Chain } from '@marvet/core/domain/chain';
import { slateLabel, type Take } from '@marvet/core/domain/take';
import { useAppDispatch, useAppSelector } from '../data/store.ts';
import { inTray, picked, type TrayEntry } from '../data/tray.ts';
import { TapeMark } from './TapeMark.tsx';

const NOTHING: TrayEntry[] = [];

/** A candidate's tape in a take: a press picks it up into the tray, or puts it back. */
export function PickTape({ take, chain, width = 44 }: { take: Pick<Take, 'id' | 'trialId' | 'slate' | 'pass'>; chain: Chain; width?: number }) {
  const dispatch = useAppDispatch();
  const entry = { takeId: take.id, candidateId: chain.id };
  const held = useAppSelector((state) => inTray(state.tray.byTrial[take.trialId] ?? NOTHING, entry));
  return (
    <button
      type="button"
      className="pick-tape"
      aria-pressed={held}
      aria-label={`Take ${slateLabel(take)} ${chain.name} in the tray`}
      title={held ? 'Put back from the tray' : 'Pick up into the tray'}
      onClick={() => dispatch(picked({ trialId: take.trialId, entry }))}
    >
      <TapeMark tape={chain.tape} name="" width={width} />
    </button>
  );
}
