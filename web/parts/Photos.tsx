import type { PhotoOwner } from '@marvet/core/domain/photo';
import { Camera, RotateCcw, X } from 'lucide-react';
import { useState } from 'react';
import Button from 'react-bootstrap/Button';
import { useAddPhotoMutation, useBinPhotoMutation, usePhotosQuery, useRestorePhotoMutation } from '../data/records.ts';
import { useNotice } from './notices.tsx';
import { resizedPhoto } from './resizedPhoto.ts';
import { Trouble } from './states.tsx';
import { useTold } from './useTold.ts';

/** Photographs of an item, a station or a rig: taken or chosen, made small in the browser, kept with the record. */
export function Photos({ ownerKind, ownerId, name, legend = 'Photographs' }: { ownerKind: PhotoOwner; ownerId: string; name: string; legend?: string }) {
  const { data: photos } = usePhotosQuery(ownerKind);
  const [add, { error, isLoading }] = useAddPhotoMutation();
  const [bin] = useBinPhotoMutation();
  const [restore] = useRestorePhotoMutation();
  const [trouble, setTrouble] = useState<string | null>(null);
  const tell = useNotice();
  const told = useTold();
  const all = photos?.filter((photo) => photo.ownerId === ownerId) ?? [];
  const own = all.filter((photo) => photo.binnedAtMs === null);
  const binned = all.filter((photo) => photo.binnedAtMs !== null);
  const choose = async (file: File | undefined) => {
    if (!file) return;
    setTrouble(null);
    try {
      await add({ draft: { ownerKind, ownerId, caption: file.name.slice(0, 160) }, image: await resizedPhoto(file) });
    } catch (failure) {
      setTrouble((failure as Error).message);
    }
  };
  return (
    <fieldset>
      <legend className="form-label">{legend}</legend>
      <div className="photos">
        {own.map((photo) => (
          <figure key={photo.id}>
            <a href={`/api/photos/${photo.id}`} target="_blank" rel="noreferrer">
              <img src={`/api/photos/${photo.id}`} alt={`${name}: ${photo.caption}`} loading="lazy" />
            </a>
            <Button
              size="sm"
              variant="plain"
              className="icon"
              aria-label={`Delete the photograph ${photo.caption}`}
              onClick={() => void told(bin(photo.id)).then(({ error: failed }) => !failed && tell('The photograph is in the bin', () => void told(restore(photo.id))))}
            >
              <X size={14} aria-hidden />
            </Button>
          </figure>
        ))}
        <label className="btn btn-outline btn-sm">
          <Camera size={15} aria-hidden /> {isLoading ? 'Keeping it' : 'Add a photograph'}
          <input
            type="file"
            accept="image/*"
            className="visually-hidden"
            disabled={isLoading}
            onChange={(event) => {
              void choose(event.target.files?.[0]);
              event.target.value = '';
            }}
          />
        </label>
      </div>
      {binned.length > 0 && (
        <div className="row-line small">
          <span className="soft">In the bin:</span>
          {binned.map((photo) => (
            <Button key={photo.id} size="sm" variant="plain" onClick={() => void told(restore(photo.id))}>
              <RotateCcw size={13} aria-hidden /> {photo.caption || 'photograph'}
            </Button>
          ))}
        </div>
      )}
      <Trouble error={error} />
      {trouble && (
        <div className="invalid-feedback d-block" role="alert">
          {trouble}
        </div>
      )}
    </fieldset>
  );
}
