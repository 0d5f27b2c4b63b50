import { chainBurden } from '@marvet/core/chain/burden';
import { chainCautions } from '@marvet/core/domain/caution';
import type { Chain } from '@marvet/core/domain/chain';
import type { Item } from '@marvet/core/domain/item';
import { Pencil, Plus, Trash2 } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { Cautions } from '../../parts/Cautions.tsx';
import { Empty, Sheet } from '../../parts/states.tsx';
import { TapeMark } from '../../parts/TapeMark.tsx';
import { useBin } from '../../parts/useBin.ts';
import { ChainDialog } from './ChainDialog.tsx';
import { JointList } from './JointList.tsx';

/** Candidates and chains kept for reference, each with its tape, links and totals. */
export function Chains({ trialId, chains, items }: { trialId: string; chains: Chain[]; items: Item[] }) {
  const [editing, setEditing] = useState<Chain | 'new' | null>(null);
  const bin = useBin(trialId, 'chain');
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
            <ChainCard key={chain.id} chain={chain} items={byId} onEdit={() => setEditing(chain)} onBin={() => bin(chain.id, chain.name)} />
          ))}
        </div>
      )}
      <div className="stack mt-3">
        <Cautions cautions={chains.flatMap((chain) => chainCautions(chain, byId))} />
      </div>
      {editing && <ChainDialog trialId={trialId} chain={editing === 'new' ? null : editing} chains={chains} items={items} onClose={() => setEditing(null)} />}
    </Sheet>
  );
}

function ChainCard({ chain, items, onEdit, onBin }: { chain: Chain; items: ReadonlyMap<string, Item>; onEdit: () => void; onBin: () => void }) {
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
          <Button size="sm" variant="plain" aria-label={`Change ${chain.name}`} onClick={onEdit}>
            <Pencil size={15} aria-hidden />
          </Button>
          <Button size="sm" variant="plain" aria-label={`Delete ${chain.name}`} onClick={onBin}>
            <Trash2 size={15} aria-hidden />
          </Button>
        </span>
      </div>
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

function settingsText({ gainDb, padDb, lowCutHz, limiter, note }: Chain['links'][number]['settings']): string {
  const parts = [
    gainDb !== null && `gain ${gainDb} dB`,
    padDb && `pad ${padDb} dB`,
    lowCutHz && `low-cut ${lowCutHz} Hz`,
    limiter !== null && `limiter ${limiter ? 'on' : 'off'}`,
    note,
  ].filter(Boolean);
  return parts.length > 0 ? ` ${parts.join(', ')}` : '';
}
