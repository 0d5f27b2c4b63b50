import type { Trial } from '@marvet/core/domain/trial';
import { Trash2 } from 'lucide-react';
import { Suspense } from 'react';
import { Link, NavLink, Outlet, useLocation, useMatches } from 'react-router';
import { useWhoAmIQuery } from '../data/door.ts';
import { useTrialId } from '../data/trialData.ts';
import { useTrialQuery } from '../data/trials.ts';
import { useTrialEvents } from '../data/useTrialEvents.ts';
import { Away } from '../parts/Away.tsx';
import { RailFoot } from '../parts/RailFoot.tsx';
import { RecordingOn } from '../parts/RecordingOn.tsx';
import { Empty, Loaded } from '../parts/states.tsx';
import { TrayBar } from './TrayBar.tsx';

interface Stop {
  path: string;
  name: string;
  state: 'none' | 'some' | 'all';
  count: string;
  waitsFor: string;
}

/** How far each stage is, and what it waits for. */
function stopsOf({ progress, question }: Trial): Stop[] {
  const { criteria, candidates, frames, planned, done, recordings, measured, listeners, verdictOpened } = progress;
  const state = (all: boolean, some: boolean) => (all ? 'all' : some ? 'some' : 'none');
  return [
    {
      path: 'question',
      name: 'Question',
      state: state(question !== '' && criteria >= 3, question !== '' || criteria > 0),
      count: '',
      waitsFor: criteria < 3 ? 'three criteria or more' : '',
    },
    {
      path: 'kit',
      name: 'Kit',
      state: state(candidates >= 2, candidates > 0),
      count: candidates ? String(candidates) : '',
      waitsFor: candidates < 2 ? 'two candidates or more' : '',
    },
    {
      path: 'plan',
      name: 'Plan',
      state: state(planned > 0, false),
      count: planned ? String(planned) : '',
      waitsFor: candidates === 0 ? 'candidates' : planned === 0 ? 'a plan that is committed' : '',
    },
    { path: 'placing', name: 'Placing', state: state(false, frames > 0), count: frames ? String(frames) : '', waitsFor: '' },
    { path: 'field', name: 'Field', state: state(planned > 0 && done >= planned, done > 0), count: planned ? `${done}/${planned}` : '', waitsFor: planned === 0 ? 'a plan' : '' },
    {
      path: 'takes',
      name: 'Takes',
      state: state(recordings > 0 && measured === recordings, recordings > 0),
      count: recordings ? String(recordings) : '',
      waitsFor: recordings === 0 ? 'audio files' : '',
    },
    {
      path: 'listen',
      name: 'Listen',
      state: state(listeners >= 2, listeners > 0),
      count: listeners ? String(listeners) : '',
      waitsFor: measured < 2 ? 'two measured recordings' : '',
    },
    { path: 'verdict', name: 'Verdict', state: state(verdictOpened, false), count: '', waitsFor: verdictOpened ? '' : 'being opened' },
  ];
}

/** The frame of a trial: stages on the left, the question above, the stage, and the tray. */
export function Shell() {
  const trialId = useTrialId();
  const query = useTrialQuery(trialId);
  const progress = useTrialEvents(trialId);
  const matches = useMatches();
  const { pathname } = useLocation();
  const guest = useWhoAmIQuery().data?.guest;
  const plain = matches.some((match) => (match.handle as { plain?: boolean } | undefined)?.plain);
  return (
    <div className="shell">
      {guest ? <GuestRail trial={query.data} name={guest.name} /> : <Rail trial={query.data} />}
      <main className={`desk ${plain ? 'narrow-plain' : ''}`} id="main">
        <Away />
        <RecordingOn />
        <Loaded of={[query]}>
          {() =>
            query.data?.binnedAtMs ? (
              <Empty>
                This trial is in the bin. <Link to="/">Bring it back from the list of trials.</Link>
              </Empty>
            ) : (
              <>
                <div className="desk-head no-print">
                  <h1>{query.data?.question || query.data?.name}</h1>
                </div>
                <Suspense
                  fallback={
                    <div className="soft" role="status">
                      Loading
                    </div>
                  }
                  key={pathname.split('/')[3]}
                >
                  <Outlet context={progress} />
                </Suspense>
              </>
            )
          }
        </Loaded>
      </main>
      {!guest && <TrayBar trialId={trialId} />}
    </div>
  );
}

/** What a phone that was let in can open. */
function GuestRail({ trial, name }: { trial: Trial | undefined; name: string }) {
  return (
    <nav className="rail" aria-label="Stages">
      <div className="rail-head">
        <span className="rail-name d-block">{trial?.name ?? 'Trial'}</span>
        <div className="rail-use">{name}</div>
      </div>
      <ul className="route">
        {[
          ['field', 'Field'],
          ['plan/run-sheet', 'Run sheet'],
          ['plan/slates', 'Slates'],
        ].map(([path, word]) => (
          <li key={path}>
            <NavLink to={path ?? ''}>
              <span className="stop none" aria-hidden />
              <span>{word}</span>
            </NavLink>
          </li>
        ))}
      </ul>
      <RailFoot />
    </nav>
  );
}

function Rail({ trial }: { trial: Trial | undefined }) {
  return (
    <nav className="rail" aria-label="Stages">
      <div className="rail-head">
        <Link to="/" className="rail-name d-block" title="All trials">
          {trial?.name ?? 'Trial'}
        </Link>
        <div className="rail-use">{trial?.use}</div>
        {trial?.sample && <div className="small soft">Sample data</div>}
      </div>
      <ul className="route">
        {(trial ? stopsOf(trial) : []).map((stop) => (
          <li key={stop.path}>
            <NavLink to={stop.path} title={stop.waitsFor ? `Waits for ${stop.waitsFor}` : undefined}>
              <span className={`stop ${stop.state}`} aria-hidden />
              <span>{stop.name}</span>
              {stop.waitsFor && <span className="visually-hidden">, waits for {stop.waitsFor}</span>}
              {stop.count && <span className="count">{stop.count}</span>}
            </NavLink>
          </li>
        ))}
      </ul>
      <RailFoot>
        <Link className="btn btn-sm btn-plain" to="bin" title="What was deleted from this trial">
          <Trash2 size={15} aria-hidden /> Bin
        </Link>
      </RailFoot>
    </nav>
  );
}
