import type { StoredItem } from '@marvet/core/domain/item';
import type { Photo } from '@marvet/core/domain/photo';
import { Copy, FileUp, Pencil, Plus, RotateCcw, Trash2 } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useBinItemMutation, useBinnedItemsQuery, usePhotosQuery, useRestoreItemMutation, useSaveItemMutation } from '../../data/records.ts';
import { useNotice } from '../../parts/notices.tsx';
import { Empty, Sheet } from '../../parts/states.tsx';
import { useTold } from '../../parts/useTold.ts';
import { ItemDialog } from './ItemDialog.tsx';
import { ItemImport } from './ItemImport.tsx';

/** The library of items, shared by all trials. */
export function Items({ items }: { items: StoredItem[] }) {
  const [editing, setEditing] = useState<StoredItem | 'new' | null>(null);
  const [importing, setImporting] = useState(false);
  const [save] = useSaveItemMutation();
  const { data: photos } = usePhotosQuery('item');
  const { data: binned } = useBinnedItemsQuery();
  const [bin] = useBinItemMutation();
  const [restore] = useRestoreItemMutation();
  const tell = useNotice();
  const told = useTold();
  const remove = (item: StoredItem) =>
    void told(bin(item.id)).then(({ error }) => {
      if (!error) tell(`${item.name} is in the bin`, () => void told(restore(item.id)));
    });
  const copy = ({ id: _id, version: _version, binnedAtMs: _binned, ...draft }: StoredItem) =>
    void told(save({ from: null, draft: { ...draft, name: `${draft.name} (copy)`.slice(0, 120) } })).then(({ data }) => data && tell(`${data.name} was made`));
  return (
    <Sheet
      title="Library, shared by all trials"
      aside={
        <span className="row-line">
          <a className="btn btn-outline btn-sm" href="/api/items/library.csv" download>
            CSV
          </a>
          <a className="btn btn-outline btn-sm" href="/api/items/library.json" download>
            JSON
          </a>
          <Button size="sm" variant="outline" onClick={() => setImporting(true)}>
            <FileUp size={15} aria-hidden /> Bring in
          </Button>
          <Button size="sm" variant={items.length === 0 ? 'primary' : 'outline'} onClick={() => setEditing('new')}>
            <Plus size={15} aria-hidden /> Item
          </Button>
        </span>
      }
    >
      {items.length === 0 ? (
        <Empty>Nothing in the library yet. Enter what you own or have on loan: microphones, transmitters, receivers, recorders, windscreens. Leave out what you do not know.</Empty>
      ) : (
        <div className="sheet-scroll">
          <table className="plain">
            <thead>
              <tr>
                <th style={{ minWidth: 210 }}>Item</th>
                <th>Kind</th>
                <th>Pattern</th>
                <th className="num">Price</th>
                <th className="num">Weight g</th>
                <th className="num">Self-noise dB A</th>
                <th className="num">Sensitivity mV/Pa</th>
                <th className="num">Max SPL dB</th>
                <th>Batteries</th>
                <th>
                  <span className="visually-hidden">Actions</span>
                </th>
              </tr>
            </thead>
            <tbody>
              {items.map((item) => (
                <tr key={item.id}>
                  <td>
                    <span className="row-line flex-nowrap">
                      <Thumbnail photo={photos?.find((photo) => photo.ownerId === item.id && photo.binnedAtMs === null)} />
                      <b>{item.name}</b>
                    </span>
                    {item.remark && <div className="small soft">{item.remark}</div>}
                  </td>
                  <td>{item.kind}</td>
                  <td>{item.pattern}</td>
                  <td className="num">{item.price === null ? '' : `${item.price.toLocaleString('en')} ${item.currency}`}</td>
                  <td className="num">{item.weightG}</td>
                  <td className="num">{item.selfNoiseDba}</td>
                  <td className="num">{item.sensitivityMvPerPa}</td>
                  <td className="num">{item.maxSplDb}</td>
                  <td className="small">
                    {item.batteryCount > 0 && `${item.batteryCount} × ${item.batteryType || 'type not stated'}`}
                    {item.runningTimeH !== null && `, ${item.runningTimeH} h`}
                  </td>
                  <td className="text-end text-nowrap">
                    <Button size="sm" variant="plain" aria-label={`Copy ${item.name}`} title="Copy" onClick={() => copy(item)}>
                      <Copy size={15} aria-hidden />
                    </Button>
                    <Button size="sm" variant="plain" aria-label={`Change ${item.name}`} onClick={() => setEditing(item)}>
                      <Pencil size={15} aria-hidden />
                    </Button>
                    <Button size="sm" variant="plain" aria-label={`Delete ${item.name}`} onClick={() => remove(item)}>
                      <Trash2 size={15} aria-hidden />
                    </Button>
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
        </div>
      )}
      {binned && binned.length > 0 && (
        <div className="row-line mt-2 small">
          <span className="soft">In the bin:</span>
          {binned.map((item) => (
            <Button key={item.id} size="sm" variant="plain" onClick={() => void told(restore(item.id))}>
              <RotateCcw size={13} aria-hidden /> {item.name}
            </Button>
          ))}
        </div>
      )}
      {importing && <ItemImport items={items} onClose={() => setImporting(false)} />}
      {editing && <ItemDialog item={editing === 'new' ? null : editing} onClose={() => setEditing(null)} />}
    </Sheet>
  );
}

function Thumbnail({ photo }: { photo: Photo | undefined }) {
  return photo ? <img className="thumbnail" src={`/api/photos/${photo.id}`} alt="" loading="lazy" /> : null;
}
