import { describe, expect, it } from 'vitest';
import { newId } from '../domain/identity.ts';
import { placementDraftSchema } from '../domain/placement.ts';
import { rigRecordDraftSchema } from '../domain/rigRecord.ts';
import { heardAs } from './heardAs.ts';

const [candidateId, placementId, rigId] = [newId(), newId(), newId()];
const owned = { trialId: newId(), version: 1, binnedAtMs: null };
const as = (words: string, placement?: object, rig?: object) =>
  heardAs(
    { condition: { station: 's', script: 'x', windscreen: 'bare', distance: '1', ...(placement ? { placement: placementId } : {}), ...(rig ? { rig: rigId } : {}) } as never },
    { id: newId(), candidateId, levels: {} },
    {
      chains: new Map([[candidateId, { rig: { placement: words, onSkin: false } }]]),
      placements: new Map(placement ? [[placementId, { ...placementDraftSchema.parse({ name: 'p', ...placement }), id: placementId, ...owned }]] : []),
      rigs: new Map(rig ? [[rigId, { ...rigRecordDraftSchema.parse({ name: 'r', ...rig }), id: rigId, ...owned }]] : []),
    },
  );

describe('what a setup was recorded with', () => {
  it('is told by the words of its chain where the plan varies nothing', () => {
    expect(as('breastbone, under the jumper')).toMatchObject({ kind: 'worn', spot: 'breastbone high', under: true });
    expect(as('clip behind the button')).toMatchObject({ kind: 'worn', spot: 'behind a button', under: false });
    expect(as('under the brim')).toMatchObject({ kind: 'worn', spot: 'under a brim', under: false });
    expect(as('from above, out of frame')).toMatchObject({ kind: 'boom' });
  });

  it('is told by the placement of the plan before the words', () => {
    expect(as('breastbone', { on: 'boom' })).toMatchObject({ kind: 'boom' });
    expect(as('from above', { on: 'body', spot: 'collar' })).toMatchObject({ kind: 'worn', spot: 'collar' });
    expect(as('', { on: 'body', name: 'shoulder seam' })).toMatchObject({ kind: 'worn', spot: 'shoulder' });
  });

  it('is under cloth by its rig before the words', () => {
    expect(as('breastbone, under the jumper', undefined, {})).toMatchObject({ under: false });
    expect(as('breastbone', undefined, { clothLayers: 1 })).toMatchObject({ under: true });
  });

  it('is not known where neither tells', () => {
    expect(as('in the bag')).toBeNull();
  });
});
