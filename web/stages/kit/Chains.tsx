import { batteriesOfDay, chainBurden } from '@marvet/core/chain/burden';
import { checkShared } from '@marvet/core/chain/sharedUnits';
import { chainCautions } from '@marvet/core/domain/caution';
import type { Chain, LinkSettings, StoredChain } from '@marvet/core/domain/chain';
import type { Item } from '@marvet/core/domain/item';
import { nextTape } from '@marvet/core/domain/tape';
import { Copy, Pencil, Plus, Trash2, TriangleAlert } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useSaveChainMutation } from '../../data/records.ts';
import { Cautions } from '../../parts/Cautions.tsx';
import { useNotice } from '../../parts/notices.tsx';
import { Empty, Sheet } from '../../parts/states.tsx';
import { TapeMark } from '../../parts/TapeMark.tsx';
import { useBin } from '../../parts/useBin.ts';
import { useTold } from '../../parts/useTold.ts';
import { ChainDialog } from './ChainDialog.tsx';
import { JointList } from './JointList.tsx';

/** Candidates and chains kept for reference, each with its tape, links and totals. */
export function Chains({ trialId, chains, items }: { trialId: string; chains: StoredChain[]; items: Item[] }) {
  const [editing, setEditing] = useState<StoredChain | 'new' | null>(null);
  const bin = useBin(trialId, 'chain');
  const [save] = useSaveChainMutation();
  const tell = useNotice();
  const told = useTold();
  const copy = ({ id: _id, trialId: _trial, version: _version, binnedAtMs: _binned, ...draft }: StoredChain) => {
    const name = `${draft.name}, copy`.slice(0, 120);
    const tape = nextTape(
      name,
      chains.map((chain) => chain.tape),
    );
    void told(save({ trialId, from: null, draft: { ...draft, name, tape, position: chains.length } })).then(({ data }) => data && tell(`${data.name} was made; say where it sits`));
  };
  const shared = checkShared(
    chains.filter((chain) => chain.candidate),
    new Map(items.map((item) => [item.id, item])),
  );
  const byId = new Map(items.map((item) => [item.id, item]));
  return (
    <Sheet
      title="Candidates"
      aside={
        <Button size="sm" variant={chains.length < 2 ? 'primary' : 'outline'} onClick={() => setEditing('new')}>
          <Plus size={15} aria-hidden /> Candidate
        </Button>
      }
    >
      {chains.length === 0 ? (
        <Empty>A candidate is a whole chain: microphone, windscreen, transmitter, receiver, recorder, in signal order with its settings. Add two or more.</Empty>
      ) : (
        <div className="chain-list">
          {chains.map((chain) => (
            <ChainCard
              key={chain.id}
              chain={chain}
              items={byId}
              splitOf={chains.find((each) => each.id === chain.split?.chainId)}
              onEdit={() => setEditing(chain)}
              onCopy={() => copy(chain)}
              onBin={() => bin(chain.id, chain.name)}
            />
          ))}
        </div>
      )}
      {shared.length > 0 && (
        <ul className="joints small mt-3">
          {shared.map(({ joint, sentence, remedy }) => (
            <li key={joint}>
              <TriangleAlert size={15} aria-hidden className="soft" />
              <span>
                {sentence} <span className="soft">{remedy}</span>
              </span>
            </li>
          ))}
        </ul>
      )}
      <div className="stack mt-3">
        <Cautions cautions={chains.flatMap((chain) => chainCautions(chain, byId))} />
      </div>
      {editing && <ChainDialog trialId={trialId} chain={editing === 'new' ? null : editing} chains={chains} items={items} onClose={() => setEditing(null)} />}
    </Sheet>
  );
}

interface ChainCardProps {
  chain: Chain;
  items: ReadonlyMap<string, Item>;
  /** The chain that this one is split off from. */
  splitOf: Chain | undefined;
  onEdit: () => void;
  onCopy: () => void;
  onBin: () => void;
}

const DAY_H = 10;

function ChainCard({ chain, items, splitOf, onEdit, onCopy, onBin }: ChainCardProps) {
  const day = batteriesOfDay(chain, items, DAY_H);
  const burden = chainBurden(chain, items);
  return (
    <article className="chain-card" aria-label={chain.name}>
      <div className="row-line apart flex-nowrap">
        <span className="row-line">
          <TapeMark tape={chain.tape} width={56} name={chain.name} />
          <h3>{chain.name}</h3>
          {!chain.candidate && <span className="small soft">reference only</span>}
        </span>
        <span className="text-nowrap">
          <Button size="sm" variant="plain" aria-label={`Copy ${chain.name}`} title="Copy: another rig or placement of the same gear" onClick={onCopy}>
            <Copy size={15} aria-hidden />
          </Button>
          <Button size="sm" variant="plain" aria-label={`Change ${chain.name}`} onClick={onEdit}>
            <Pencil size={15} aria-hidden />
          </Button>
          <Button size="sm" variant="plain" aria-label={`Delete ${chain.name}`} onClick={onBin}>
            <Trash2 size={15} aria-hidden />
          </Button>
        </span>
      </div>
      {splitOf && (
        <div className="small">
          Split off from <b>{splitOf.name}</b> after {items.get(splitOf.links[(chain.split?.links ?? 1) - 1]?.itemId ?? '')?.name ?? 'its first link'}: both hear the same moment.
        </div>
      )}
      <ol className="signal">
        {chain.links.map((link, index) => (
          <li key={`${link.itemId}-${index}`}>
            {items.get(link.itemId)?.name ?? 'no longer in the library'}
            <span className="soft small">{settingsText(link.settings)}</span>
          </li>
        ))}
      </ol>
      {chain.rig.placement && (
        <div className="small soft">
          {chain.rig.placement}
          {chain.rig.onSkin ? ', on skin' : ''}
        </div>
      )}
      <dl className="totals">
        <Total name="price" value={burden.price === null ? null : burden.price.toLocaleString('en')} unit={burden.currency ?? ''} />
        <Total name="weight" value={burden.weightG === null ? null : String(burden.weightG)} unit="g" />
        <Total name="runs" value={burden.runningTimeH === null ? null : String(burden.runningTimeH)} unit="h" />
        <Total name="batteries" value={burden.batteries.map(({ type, count }) => `${count} × ${type}`).join(', ') || 'none'} unit="" />
        {day.changes > 0 && <Total name={`changes in ${DAY_H} h`} value={String(day.changes)} unit="" />}
        {burden.recordingHours.map(({ name, hours }) => (
          <Total key={name} name={`records on ${name}`} value={hours >= 10 ? hours.toFixed(0) : hours.toFixed(1)} unit="h" />
        ))}
        {burden.cables > 0 && <Total name="cables" value={String(burden.cables)} unit="" />}
        {burden.adapters > 0 && <Total name="adapters" value={String(burden.adapters)} unit="" />}
      </dl>
      <JointList chain={chain} items={items} />
      {burden.gaps.length > 0 && <div className="small soft">Totals leave out: {burden.gaps.join('; ')}.</div>}
    </article>
  );
}

function Total({ name, value, unit }: { name: string; value: string | null; unit: string }) {
  return (
    <div>
      <dt>{name}</dt>
      <dd className="mono">{value === null ? 'unknown' : `${value} ${unit}`}</dd>
    </div>
  );
}

function settingsText(settings: LinkSettings): string {
  const { gainDb, padDb, lowCutHz, limiter, automaticLevel, noiseReduction, safetyTrackDb, wordLength, sampleRateHz, lineLevel, power, note } = settings;
  const parts = [
    gainDb !== null && `gain ${gainDb} dB`,
    padDb && `pad ${padDb} dB`,
    lowCutHz && `low-cut ${lowCutHz} Hz`,
    limiter !== null && `limiter ${limiter ? 'on' : 'off'}`,
    automaticLevel && 'automatic level on',
    noiseReduction !== null && `noise reduction ${noiseReduction ? 'on' : 'off'}`,
    safetyTrackDb && `safety track ${safetyTrackDb} dB`,
    lineLevel && `${lineLevel} level`,
    power && `feeds ${power}`,
    sampleRateHz && `${sampleRateHz / 1000} kHz`,
    wordLength,
    note,
  ].filter(Boolean);
  return parts.length > 0 ? ` ${parts.join(', ')}` : '';
}
