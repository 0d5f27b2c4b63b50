import { wearerCautions } from '@marvet/core/domain/caution';
import type { StoredChain } from '@marvet/core/domain/chain';
import type { StoredFrame } from '@marvet/core/domain/frame';
import type { StoredItem } from '@marvet/core/domain/item';
import { type Placement, spotByName } from '@marvet/core/domain/placement';
import type { Plan } from '@marvet/core/domain/plan';
import type { RigRecord } from '@marvet/core/domain/rigRecord';
import type { BodyPlace } from '@marvet/core/domain/spot';
import type { StoredStation } from '@marvet/core/domain/station';
import type { StoredWearer } from '@marvet/core/domain/wearer';
import type { LearnedSpot } from '@marvet/core/place/learned';
import { placeOnBody } from '@marvet/core/place/nearMouth';
import { useMemo, useState } from 'react';
import { Link } from 'react-router';
import { Cautions } from '../../parts/Cautions.tsx';
import { Empty, Sheet } from '../../parts/states.tsx';
import { useAddress } from '../../parts/useAddress.ts';
import { useBin } from '../../parts/useBin.ts';
import { BesideChoice } from './BesideChoice.tsx';
import { AddSpot, NewRig, RigChoice, RigLevel, WearerChoice } from './BodyChoices.tsx';
import { BodyDrawing } from './BodyDrawing.tsx';
import { BodySpot } from './BodySpot.tsx';
import { ColourChart } from './ColourChart.tsx';
import { HearWorn } from './HearWorn.tsx';
import { RigFields } from './RigFields.tsx';
import { Sights } from './Sights.tsx';
import { useAddLevel } from './useAddLevel.ts';
import { WearerFields } from './WearerFields.tsx';
import { WornReasons } from './WornReasons.tsx';
import { WornTable } from './WornTable.tsx';
import { type BesideBoom, colourOfRow, wornRows } from './wornRows.ts';

interface BodyDeskProps {
  trialId: string;
  wearers: readonly StoredWearer[];
  placements: readonly Placement[];
  rigs: readonly RigRecord[];
  frames: readonly StoredFrame[];
  chains: readonly StoredChain[];
  items: readonly StoredItem[];
  stations: readonly StoredStation[];
  plan: Plan;
  learned: readonly LearnedSpot[];
  fetching: { wearers: boolean; placements: boolean; rigs: boolean };
}

const USUAL_BOOM: BesideBoom = { name: 'boom', distanceM: 0.6, offAxisDeg: 30 };

/** The body with its spots, the rig over them, and what both let through. */
export function BodyDesk(props: BodyDeskProps) {
  const { trialId, wearers, placements, rigs, frames, chains, items, stations, plan, learned, fetching } = props;
  const [search, changeAddress] = useAddress();
  const [shown, setShown] = useState<{ id: string; at: BodyPlace } | null>(null);
  const [boom, setBoom] = useState<BesideBoom>(USUAL_BOOM);
  const wearer = wearers.find(({ id }) => id === search.get('wearer')) ?? (wearers[0] as StoredWearer);
  const chosen = placements.find(({ id }) => id === search.get('placement')) ?? placements[0] ?? null;
  const rig = rigs.find(({ id }) => id === search.get('rig')) ?? rigs[0] ?? null;
  const other = rigs.find(({ id }) => id === search.get('other')) ?? null;
  const bin = useBin(trialId, 'placement');
  const addLevel = useAddLevel(trialId, plan);
  const choose = (id: string) => changeAddress({ placement: id });
  const given = useMemo(() => ({ lettersOf: (placement: Placement, index: number) => lettersOf(placement, index, chains), learned, shown }), [chains, learned, shown]);
  const rows = useMemo(() => wornRows(placements, rig, boom, given), [placements, rig, boom, given]);
  const otherRows = useMemo(() => (other ? wornRows(placements, other, boom, given) : []), [placements, other, boom, given]);
  const row = rows.find(({ placement }) => placement.id === chosen?.id);
  const otherRow = otherRows.find(({ placement }) => placement.id === chosen?.id);
  const chosenAt = chosen && (shown?.id === chosen.id ? shown.at : placeOnBody(chosen));
  return (
    <>
      <Cautions cautions={wearerCautions(wearer, rig)} foldable />
      <div className="columns">
        <div className="stack">
          <Sheet title="The body, to scale" aside={<AddSpot trialId={trialId} heightM={wearer.heightM} onAdded={choose} />}>
            <BodyDrawing wearer={wearer} chosenAt={chosenAt}>
              {placements.map((placement, index) => (
                <BodySpot
                  key={placement.id}
                  trialId={trialId}
                  placement={placement}
                  fetching={fetching.placements}
                  letters={lettersOf(placement, index, chains)}
                  tape={chainAt(placement, chains)?.tape ?? null}
                  chosen={placement.id === chosen?.id}
                  onChoose={() => choose(placement.id)}
                  onShown={(at) => setShown({ id: placement.id, at })}
                />
              ))}
            </BodyDrawing>
          </Sheet>
          <Sheet title="What is to be expected" aside={<BesideChoice boom={boom} frames={frames} onChoose={setBoom} />}>
            {rows.length === 0 ? <Empty>No spot yet: add one over the drawing.</Empty> : <WornTable rows={rows} chosenId={chosen?.id ?? null} onChoose={choose} />}
            {row && (
              <WornReasons
                row={row}
                onLevel={() => void addLevel('placement', { id: row.placement.id, label: row.placement.name, value: null })}
                onDelete={() => bin(row.placement.id, row.placement.name)}
              />
            )}
            <p className="small soft mb-0 mt-2">
              Computed: the mouth as a piston in a sphere heard from near, the trunk as a sphere, cloth as a sheet with mass and pores; breath, rub and cable by rule. Learned where{' '}
              at least three takes have a lavalier there and a boom. <Link to="/methods#body">How each is worked out</Link>
            </p>
          </Sheet>
          {row?.figures && (
            <Sheet
              title={`Colour at ${row.placement.name}`}
              aside={<span className="small soft">{row.learned ? `learned from ${row.learned.takes} takes of ${row.learned.trials} trials` : 'computed'}</span>}
            >
              <ColourChart
                lines={[
                  { name: rig?.name ?? 'open', colourDb: colourOfRow(row) },
                  ...(row.learned ? [{ name: 'computed', colourDb: row.figures.colourDb }] : []),
                  ...(otherRow?.figures && other ? [{ name: other.name, colourDb: colourOfRow(otherRow) }] : []),
                ]}
              />
            </Sheet>
          )}
        </div>
        <div className="stack">
          <Sheet title="The rig over it" aside={rig && <RigLevel rig={rig} onLevel={() => void addLevel('rig', { id: rig.id, label: rig.name, value: null })} />}>
            <div className="stack">
              <div className="row-line align-items-end">
                <RigChoice label="Rig" rigs={rigs} value={rig?.id ?? ''} onChoose={(id) => changeAddress({ rig: id })} />
                <RigChoice
                  label="Beside it"
                  rigs={rigs.filter(({ id }) => id !== rig?.id)}
                  value={other?.id ?? ''}
                  none="none"
                  onChoose={(id) => changeAddress({ other: id || null })}
                />
                <NewRig trialId={trialId} count={rigs.length} onMade={(id) => changeAddress({ rig: id })} />
              </div>
              {rig ? <RigFields key={rig.id} saved={rig} fetching={fetching.rigs} /> : <Empty>No rig yet: make one.</Empty>}
            </div>
          </Sheet>
          <HearWorn
            rows={[...rows, ...otherRows]}
            chosenId={chosen?.id ?? null}
            boom={boom}
            wearer={wearer}
            stations={stations}
            selfNoiseOf={(placement) => selfNoiseOf(chainAt(placement, chains), items)}
          />
          <Sheet title="Who wears it" aside={<WearerChoice trialId={trialId} wearers={wearers} chosen={wearer} onChoose={(id) => changeAddress({ wearer: id })} />}>
            <WearerFields key={wearer.id} saved={wearer} fetching={fetching.wearers} />
          </Sheet>
          {chosen && <Sights trialId={trialId} placement={chosen} rigs={rigs} rigId={rig?.id ?? null} frames={frames} />}
        </div>
      </div>
    </>
  );
}

/** The candidate that sits at a placement: by the words of its rig, or by the spot that they mean. */
function chainAt(placement: Placement, chains: readonly StoredChain[]): StoredChain | undefined {
  const worn = chains.filter((chain) => chain.candidate && chain.rig.placement !== '');
  return (
    worn.find(({ rig }) => rig.placement.toLowerCase() === placement.name.toLowerCase()) ??
    worn.find(({ rig }) => placement.spot !== null && spotByName(rig.placement) === placement.spot)
  );
}

/** Of the microphone of a candidate that sits there; null where no data of one are known. */
function selfNoiseOf(chain: StoredChain | undefined, items: readonly StoredItem[]): number | null {
  const links = chain?.links.map(({ itemId }) => items.find(({ id }) => id === itemId)) ?? [];
  return links.find((item) => item?.kind === 'microphone')?.selfNoiseDba ?? null;
}

const lettersOf = (placement: Placement, index: number, chains: readonly StoredChain[]) => chainAt(placement, chains)?.tape.letters ?? String(index + 1);
