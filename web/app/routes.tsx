import { lazy, Suspense } from 'react';
import { createBrowserRouter, Link, Navigate } from 'react-router';
import { Shell } from './Shell.tsx';

const Trials = lazy(() => import('../stages/trials/Trials.tsx'));
const Question = lazy(() => import('../stages/question/Question.tsx'));
const Kit = lazy(() => import('../stages/kit/Kit.tsx'));
const Plan = lazy(() => import('../stages/plan/Plan.tsx'));
const Placing = lazy(() => import('../stages/placing/Placing.tsx'));
const RunSheet = lazy(() => import('../stages/plan/RunSheet.tsx'));
const SlateCards = lazy(() => import('../stages/plan/SlateCards.tsx'));
const Field = lazy(() => import('../stages/field/Field.tsx'));
const Takes = lazy(() => import('../stages/takes/Takes.tsx'));
const Inside = lazy(() => import('../stages/takes/Inside.tsx'));
const Passages = lazy(() => import('../stages/takes/passages/Passages.tsx'));
const Pair = lazy(() => import('../stages/takes/Pair.tsx'));
const Methods = lazy(() => import('../stages/methods/Methods.tsx'));
const Listen = lazy(() => import('../stages/listen/Listen.tsx'));
const Verdict = lazy(() => import('../stages/verdict/Verdict.tsx'));
const CandidatePage = lazy(() => import('../stages/verdict/CandidatePage.tsx'));
const Report = lazy(() => import('../stages/verdict/Report.tsx'));
const Bin = lazy(() => import('../stages/bin/Bin.tsx'));

const alone = (view: React.ReactNode) => (
  <Suspense
    fallback={
      <div className="front soft" role="status">
        Loading
      </div>
    }
  >
    {view}
  </Suspense>
);

function Lost() {
  return (
    <main className="front">
      <h1>There is no such page</h1>
      <Link to="/">All trials</Link>
    </main>
  );
}

/** Every view has an address of its own, which can be sent and reloaded. */
export const router = createBrowserRouter([
  { path: '/', element: alone(<Trials />) },
  { path: '/methods', element: alone(<Methods />) },
  {
    path: '/trials/:trialId',
    element: <Shell />,
    children: [
      { index: true, element: <Navigate to="question" replace /> },
      { path: 'question', element: <Question /> },
      { path: 'kit', element: <Kit /> },
      { path: 'plan', element: <Plan /> },
      { path: 'placing', element: <Placing /> },
      { path: 'plan/run-sheet', element: <RunSheet /> },
      { path: 'plan/slates', element: <SlateCards /> },
      { path: 'field', element: <Field />, handle: { plain: true } },
      { path: 'takes', element: <Takes /> },
      { path: 'takes/pair/:recordingId/:otherId', element: <Pair /> },
      { path: 'takes/files/:fileId', element: <Passages /> },
      { path: 'takes/:recordingId', element: <Inside /> },
      { path: 'listen', element: <Listen /> },
      { path: 'verdict', element: <Verdict /> },
      { path: 'verdict/report', element: <Report /> },
      { path: 'verdict/:candidateId', element: <CandidatePage /> },
      { path: 'bin', element: <Bin /> },
    ],
  },
  { path: '*', element: <Lost /> },
]);
