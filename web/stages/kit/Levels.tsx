import { adviseGains } from '@marvet/core/chain/gainAdvice';
import { type LevelRun, runLevels } from '@marvet/core/chain/levels';
import { PEAK_OVER_AVERAGE_DB, VOCAL_EFFORTS, voiceDbSpl } from '@marvet/core/chain/voice';
import type { StoredChain } from '@marvet/core/domain/chain';
import type { Item } from '@marvet/core/domain/item';
import { signed } from '@marvet/core/measure/catalogue';
import { lazy, Suspense } from 'react';
import Button from 'react-bootstrap/Button';
import Form from 'react-bootstrap/Form';
import { Link } from 'react-router';
import { useSaveChainMutation } from '../../data/records.ts';
import { Field } from '../../parts/fields.tsx';
import { useNotice } from '../../parts/notices.tsx';
import { Empty, Sheet } from '../../parts/states.tsx';
import { useAddress } from '../../parts/useAddress.ts';
import { useTold } from '../../parts/useTold.ts';
import { LevelTable } from './LevelTable.tsx';

const LevelDiagram = lazy(() => import('./LevelDiagram.tsx'));
const DISTANCES_M = [0.02, 0.1, 0.2, 0.3, 0.5, 0.7, 1, 1.5, 2, 3];
const HEADROOMS_DB = [3, 6, 9, 12];
/** Average speech at the recorder that most mixers aim at: 18 to 26 dB under full scale. */
const TARGET_DBFS = -20;
const PRACTICAL_TARGET_LUFS = -23;

/** A voice through one chain: what arrives at each link, what limits noise and level, and which gains would suit. */
export function Levels({ trialId, chains, items }: { trialId: string; chains: StoredChain[]; items: ReadonlyMap<string, Item> }) {
  const [search, changeAddress] = useAddress();
  const [save] = useSaveChainMutation();
  const told = useTold();
  const tell = useNotice();
  const chain = chains.find((each) => each.id === search.get('chain')) ?? chains[0];
  if (!chain) return null;
  const effort = VOCAL_EFFORTS.find((each) => each.id === search.get('voice')) ?? VOCAL_EFFORTS[2]!;
  const distanceM = oneOf(DISTANCES_M, search.get('at'), 0.2);
  const headroomDb = oneOf(HEADROOMS_DB, search.get('headroom'), 6);
  const voice = { voiceDbSpl: voiceDbSpl(effort.dbSplAt1M, distanceM), peakOverAverageDb: PEAK_OVER_AVERAGE_DB, targetLufs: PRACTICAL_TARGET_LUFS };
  const run = runLevels(chain, items, voice);
  const advice = adviseGains(chain, items, voice, { averageDbfs: TARGET_DBFS, headroomDb });
  const different = advice.gainsDb.some((gainDb, index) => gainDb !== null && gainDb !== (chain.links[index]?.settings.gainDb ?? 0));
  const take = () => {
    const { id, trialId: _trial, version, binnedAtMs: _binned, ...draft } = chain;
    const links = draft.links.map((link, index) => ({ ...link, settings: { ...link.settings, gainDb: advice.gainsDb[index] ?? link.settings.gainDb } }));
    void told(save({ trialId, from: { id, version }, draft: { ...draft, links } })).then(({ data, error }) => {
      if (!error) tell(`Gains of ${chain.name} are set`, () => void told(save({ trialId, from: { id, version: data.version }, draft })));
    });
  };
  const choose = (name: string, label: string, value: string, options: readonly (readonly [value: string, text: string])[]) => (
    <Field label={label}>
      {(id) => (
        <Form.Select id={id} size="sm" value={value} onChange={(event) => changeAddress({ [name]: event.target.value })}>
          {options.map(([each, text]) => (
            <option key={each} value={each}>
              {text}
            </option>
          ))}
        </Form.Select>
      )}
    </Field>
  );
  return (
    <Sheet title="Levels through the chain">
      <div className="filters mb-2">
        {choose(
          'chain',
          'Chain',
          chain.id,
          chains.map((each) => [each.id, `${each.tape.letters} ${each.name}`] as const),
        )}
        {choose(
          'voice',
          'Voice',
          effort.id,
          VOCAL_EFFORTS.map((each) => [each.id, `${each.label}, ${each.dbSplAt1M} dB A at 1 m`] as const),
        )}
        {choose(
          'at',
          'Distance',
          String(distanceM),
          DISTANCES_M.map((each) => [String(each), `${each} m`] as const),
        )}
        {choose(
          'headroom',
          'Early links leave',
          String(headroomDb),
          HEADROOMS_DB.map((each) => [String(each), `${each} dB over peaks`] as const),
        )}
      </div>
      {chain.links.length === 0 ? (
        <Empty>This chain has no links yet.</Empty>
      ) : (
        <>
          <p className="mb-2">{sentence(run)}</p>
          <Suspense fallback={<div style={{ height: 300 }} />}>
            <LevelDiagram run={run} />
          </Suspense>
          <LevelTable run={run} />
          <div className="row-line apart mt-3">
            <span>
              {advice.gainsDb.some((gainDb) => gainDb !== null) && (
                <>
                  For {signed(TARGET_DBFS, 0)} dBFS on average, {headroomDb} dB over the peaks in early links:{' '}
                  {chain.links
                    .flatMap((link, index) =>
                      advice.gainsDb[index] === null ? [] : [`${items.get(link.itemId)?.name ?? 'link'} ${signed(advice.gainsDb[index] as number, 0)} dB`],
                    )
                    .join(', ')}
                  .{' '}
                </>
              )}
              {advice.reached ? ['That can be reached', ...advice.why].join('; ') : `It cannot be reached: ${advice.why.join('; ')}`}.
            </span>
            <Button variant="outline" disabled={!different} onClick={take}>
              {different ? 'Set these gains' : 'Set as advised'}
            </Button>
          </div>
          {run.gaps.length > 0 && <div className="small soft mt-2">Not known: {run.gaps.join('; ')}.</div>}
          <div className="small soft mt-2">
            Voice levels after ISO 9921, in the open: 6 dB less for every doubling of the distance; a room adds to that. Peaks are taken {PEAK_OVER_AVERAGE_DB} dB over the average.
            Levels are on the scale of Takes: a full-scale sine has −3 dBFS. Noise adds by powers. <Link to="/methods#chain">How this is worked out</Link>
          </div>
        </>
      )}
    </Sheet>
  );
}

function oneOf(values: readonly number[], asked: string | null, otherwise: number): number {
  return values.find((value) => String(value) === asked) ?? otherwise;
}

const headroomText = (db: number) => `${Math.abs(db).toFixed(0)} dB ${db < 0 ? 'too little for' : 'over'}`;

function sentence(run: LevelRun): string {
  const parts: string[] = [];
  if (run.averageDbfs !== null && run.peakDbfs !== null) {
    const over = run.clipsFirst === null ? null : run.stages[run.clipsFirst];
    parts.push(`The voice lies at ${signed(run.averageDbfs, 0)} dBFS on average, its peaks at ${signed(run.peakDbfs, 0)} dBFS.`);
    if (over && over.peakHeadroomDb !== null) {
      parts.push(
        over.peakHeadroomDb < 0
          ? `${over.name} clips: peaks are ${(-over.peakHeadroomDb).toFixed(0)} dB too high for it, and no later gain repairs that.`
          : `${over.name} would clip first, ${over.peakHeadroomDb.toFixed(0)} dB above these peaks.`,
      );
    }
  }
  for (const { name, peakHeadroomDb, limited } of run.stages) {
    if (limited && peakHeadroomDb !== null && peakHeadroomDb < 0)
      parts.push(`The limiter of ${name} holds these peaks, ${(-peakHeadroomDb).toFixed(0)} dB of them: it will be heard.`);
  }
  for (const { name, safetyHeadroomDb, peakHeadroomDb, float } of run.stages) {
    if (safetyHeadroomDb !== null) parts.push(`The safety track of ${name} keeps ${headroomText(safetyHeadroomDb)} these peaks.`);
    if (float && peakHeadroomDb !== null)
      parts.push(`${name} stores float: its gain cannot clip, only its input, ${headroomText(peakHeadroomDb)} these peaks; what clips before it stays clipped.`);
  }
  if (run.practicalFloorDb !== null && run.noisiest !== null) {
    parts.push(
      `With the voice at −23 the chain alone has a noise floor of ${run.noiseAtLeast ? 'at least ' : ''}${signed(run.practicalFloorDb, 0)} dB A; ${run.stages[run.noisiest]?.name} adds most of it.`,
    );
  }
  return parts.join(' ');
}
