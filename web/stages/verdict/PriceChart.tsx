import type { PlaceDoubt, RankDoubt } from '@marvet/core/decide/doubt/rankDoubt';
import { priceTold } from '@marvet/core/decide/price';
import type { VerdictRow } from '@marvet/core/decide/verdict';
import { listed } from '@marvet/core/domain/listed';
import { TAPE_KINDS } from '@marvet/core/domain/tape';
import { percentText } from '@marvet/core/listen/paired/sayDoubt';
import { useState } from 'react';
import { CartesianGrid, ErrorBar, ResponsiveContainer, Scatter, ScatterChart, Tooltip, XAxis, YAxis } from 'recharts';
import { useDoubtQuery } from '../../data/judging.ts';
import { useTrialId, useTrialWords } from '../../data/trialData.ts';
import { KeptNumber } from '../../parts/fields.tsx';

interface Point {
  price: number;
  score: number;
  name: string;
  letters: string;
  /** How far the score lies over the lower end of where 95 of 100 draws lie, and under the upper one. */
  doubt: [under: number, over: number];
  colour: string;
  out: boolean;
}

/** Price of the chain against its score, with where 95 of 100 draws put it; who is beaten on both is said below. */
export function PriceChart({ rows }: { rows: VerdictRow[] }) {
  const trialId = useTrialId();
  const words = useTrialWords(trialId);
  const { data: doubt, isFetching, isError } = useDoubtQuery({ trialId, weights: 'given' });
  const placeOf = (id: string) => doubt?.places.find(({ candidateId }) => candidateId === id);
  const currencies = new Set(rows.flatMap((row) => row.candidate.currency ?? []));
  if (currencies.size > 1) return <div className="soft">Prices are in {[...currencies].join(' and ')} and cannot be laid side by side.</div>;
  const points = rows.flatMap((row): Point[] => {
    const chain = words.chains.get(row.candidate.id);
    if (row.candidate.price === null || row.score === null || !chain) return [];
    return [
      {
        price: row.candidate.price,
        score: row.score,
        doubt: doubtOf(row.score, placeOf(row.candidate.id)),
        name: row.candidate.name,
        letters: chain.tape.letters,
        colour: TAPE_KINDS[chain.tape.kind]?.colour ?? '#999',
        out: row.ruledOut.length > 0,
      },
    ];
  });
  const withBatteries = rows.some(({ candidate }) => candidate.batteries);
  if (points.length === 0) return <div className="soft">No candidate has both a price and a score.</div>;
  const nameOf = (id: string) => rows.find((row) => row.candidate.id === id)?.candidate.name ?? '';
  const unpriced = rows.filter((row) => row.candidate.price === null);
  return (
    <>
      <ResponsiveContainer width="100%" height={250}>
        <ScatterChart margin={{ top: 12, right: 58, bottom: 18, left: 0 }}>
          <CartesianGrid stroke="var(--rule)" />
          <XAxis
            type="number"
            dataKey="price"
            name="price"
            domain={[0, 'auto']}
            stroke="var(--soft)"
            fontSize={12}
            label={{
              value: `price, ${[...currencies][0] ?? ''}${withBatteries ? ', with the batteries of a year' : ''}`,
              position: 'insideBottom',
              offset: -8,
              fill: 'var(--soft)',
              fontSize: 12,
            }}
          />
          <YAxis
            type="number"
            dataKey="score"
            name="score"
            domain={[0, 100]}
            stroke="var(--soft)"
            fontSize={12}
            width={46}
            label={{ value: 'score', angle: -90, position: 'insideLeft', offset: 14, fill: 'var(--soft)', fontSize: 12 }}
          />
          <Tooltip
            cursor={false}
            content={({ payload }) => {
              const point = payload?.[0]?.payload as Point | undefined;
              return point ? (
                <div className="sheet p-2 small">
                  <b>{point.name}</b>: {Math.round(point.score)} of 100 for {Math.round(point.price).toLocaleString('en')}
                  {point.doubt[0] + point.doubt[1] > 0 && `, ${Math.round(point.score - point.doubt[0])} to ${Math.round(point.score + point.doubt[1])} in 95 of 100 draws`}
                  {point.out && ', ruled out'}
                </div>
              ) : null;
            }}
          />
          <Scatter data={points} isAnimationActive={false} shape={(props: unknown) => <Flag {...(props as FlagProps)} />}>
            <ErrorBar dataKey="doubt" direction="y" width={8} strokeWidth={2} stroke="var(--ink)" />
          </Scatter>
        </ScatterChart>
      </ResponsiveContainer>
      <Bought rows={rows} currency={[...currencies][0] ?? ''} />
      <ul className="small mb-0 ps-3">
        {rows
          .filter((row) => row.beatenBy.length > 0)
          .map((row) => (
            <li key={row.candidate.id}>
              {row.candidate.name} is beaten on price and score by {listed(row.beatenBy.map((id) => `${nameOf(id)}${oftenText(id, row.candidate.id, doubt)}`))}.
            </li>
          ))}
        {!doubt && isFetching && <li>How sure the scores are is still being worked out.</li>}
        {!doubt && isError && !isFetching && <li>How sure the scores are was not worked out, so that no band is drawn: see How sure that is.</li>}
        {unpriced.length > 0 && <li>Without a price: {unpriced.map((row) => row.candidate.name).join(', ')}.</li>}
      </ul>
    </>
  );
}

function doubtOf(score: number, place: PlaceDoubt | undefined): Point['doubt'] {
  return place?.score ? [Math.max(0, score - place.score.low), Math.max(0, place.score.high - score)] : [0, 0];
}

/** In what part of the draws one stands above another; nothing while that is not known. */
function oftenText(above: string, below: string, doubt: RankDoubt | undefined): string {
  const share = doubt?.places.find(({ candidateId }) => candidateId === above)?.beats[doubt.places.findIndex(({ candidateId }) => candidateId === below)];
  return share === undefined ? '' : ` (above it in ${percentText(share)} of draws)`;
}

/** What money buys: the cheapest that is good enough, what one more point costs, and what part of the best a cheaper one is. */
function Bought({ rows, currency }: { rows: VerdictRow[]; currency: string }) {
  const [points, setPoints] = useState(5);
  const told = priceTold(rows, points);
  if (!told) return null;
  const money = (price: number) => `${Math.round(price).toLocaleString('en')} ${currency}`;
  const part = (share: number) => `${Math.round(100 * share)} %`;
  return (
    <>
      <div className="row-line small mt-2">
        <span>
          Cheapest within <b>{points}</b> points of the best: <b>{told.within.name}</b>, {money(told.within.price)}.
        </span>
        <KeptNumber label="Good enough within, points" min={0} max={100} value={points} onKeep={(value) => setPoints(value ?? 5)} />
      </div>
      <ul className="small mb-1 ps-3">
        {told.steps.map(({ from, to, perPoint }) => (
          <li key={to.candidateId}>
            From {from.name} to {to.name} one more point costs {money(perPoint)}.
          </li>
        ))}
        {told.shares.map(({ candidate, ofScore, ofPrice }) => (
          <li key={candidate.candidateId}>
            {candidate.name}: {part(ofScore)} of the score of {told.best.name} for {part(ofPrice)} of its price.
          </li>
        ))}
        {told.steps.length === 0 && <li>{told.best.name} is the best and the cheapest: more money buys no better score.</li>}
      </ul>
    </>
  );
}

interface FlagProps {
  cx: number;
  cy: number;
  payload: Point;
}

/** A flag beside its place, so that it hides neither that nor the doubt. */
function Flag({ cx, cy, payload }: FlagProps) {
  return (
    <g opacity={payload.out ? 0.55 : 1}>
      <circle cx={cx} cy={cy} r={3.5} fill="var(--ink)" />
      <rect x={cx + 9} y={cy - 10} width={32} height={20} rx={3} fill={payload.colour} stroke="var(--ink)" strokeDasharray={payload.out ? '3 2' : undefined} />
      <text x={cx + 25} y={cy + 5} textAnchor="middle" fontFamily="var(--mono)" fontWeight={700} fontSize={13} fill="#171B1E">
        {payload.letters}
      </text>
    </g>
  );
}
