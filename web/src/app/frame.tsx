import { buildName } from '@plate-fold/core/plan';
import { lazy, type ReactNode, Suspense, useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { Link, Outlet, useLocation, useNavigate, useParams } from 'react-router';
import { useFacts } from '../state/derived';
import { useOpenPlan } from '../state/open-plan';
import { useAppSelector } from '../state/store';
import { FitProvider, useFit } from '../state/use-fit';
import { ConflictSheet } from './conflict-sheet';
import { KeySheet, PlanKeys, useKeySheet } from './keys';
import { Notice } from './notice';
import { StageRail } from './stage-rail';
import { STAGES } from './stages';
import { Summary } from './summary';
import { TopBar } from './top-bar';
import { Tour, tourOf } from './tour';
import { useFold } from './use-fold';
import { VersionsSheet } from './versions-sheet';

const Palette = lazy(() => import('./palette'));

/** What a printed page is of. */
function PrintHead() {
  const { document, build } = useFacts();
  const { pathname } = useLocation();
  const stage = STAGES.find(s => s.id === pathname.split('/')[3]);
  return (
    <div className="hidden border-b border-ink pb-1 print:block">
      <b>
        {document.rig.name}, {document.plan.name}
      </b>
      , {buildName(build)}: {stage?.name}. Printed {new Date().toLocaleDateString()}.{' '}
      <span className="text-note text-ink2">
        Figures are estimates, not certificates; the vehicle maker’s values and local rules come first.
      </span>
    </div>
  );
}

/** Stages with what is known of whether the plan bolts up. */
function Fitted({ children }: { readonly children: ReactNode }) {
  const { pathname } = useLocation();
  return <FitProvider value={useFit(pathname.split('/')[3] === 'bolt')}>{children}</FitProvider>;
}

function OpenFrame() {
  const navigate = useNavigate();
  const { planId = '' } = useParams();
  const [palette, setPalette] = useState(false);
  const keys = useKeySheet();
  const tape = useAppSelector(s => s.view.tape);
  const { folded, watch } = useFold();
  const [versions, setVersions] = useState(false);
  const tour = (): void => void navigate(tourOf(planId));
  const help = (): void => void navigate('/help');
  useHotkeys('mod+k', () => setPalette(true), { preventDefault: true, enableOnFormTags: true });
  return (
    <div
      className="group/frame flex h-full flex-col"
      data-fills-page
      data-folded={folded || undefined}
      onScrollCapture={watch}
    >
      <TopBar
        onKeys={keys.open}
        onVersions={() => setVersions(true)}
        onFind={() => setPalette(true)}
        onHelp={help}
        onTour={tour}
      />
      <PrintHead />
      <div data-frame className="flex min-h-0 flex-1 max-desk:flex-col flat:flex-row!">
        <StageRail />
        {/* with another tape every length is read anew */}
        <div key={tape} className="flex min-h-0 min-w-0 flex-1 flex-col">
          <Notice />
          <Fitted>
            <Suspense fallback={<p className="p-6">Opening …</p>}>
              <Outlet />
            </Suspense>
          </Fitted>
          <Summary />
        </div>
      </div>
      <PlanKeys />
      <Tour />
      {palette && (
        <Suspense>
          <Palette
            open
            onClose={() => setPalette(false)}
            actions={{
              onKeys: keys.open,
              onVersions: () => setVersions(true),
              onHelp: help,
              onTour: tour,
            }}
          />
        </Suspense>
      )}
      <ConflictSheet />
      {versions && <VersionsSheet onClose={() => setVersions(false)} />}
      <KeySheet open={keys.shown} onClose={keys.close} />
    </div>
  );
}

/** The frame that never jumps: builds on top, stages at the left, the bench, the summary at the foot. */
export function Frame() {
  const { planId = '' } = useParams();
  const opening = useOpenPlan(planId);
  if (opening.state === 'open') return <OpenFrame />;
  return (
    <main className="p-6">
      <p role="status" className="mb-3 text-sub">
        {opening.state === 'failed' ? opening.fault : 'Opening the plan …'}
      </p>
      <Link to="/" className="inline-flex min-h-11 items-center underline">
        All plans
      </Link>
    </main>
  );
}
