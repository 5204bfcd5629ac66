import { createBrowserRouter, Navigate } from 'react-router';
import { Frame } from './frame';
import { Plans } from './plans';
import { Trouble } from './trouble';

const cover = () => import('../stages/cover/cover-stage');
// Cover is what a plan opens with: it is fetched while the list of plans is read
setTimeout(() => void cover().catch(() => undefined), 1500);

/** Stages are fetched when they are opened. */
export const router = createBrowserRouter([
  {
    errorElement: <Trouble />,
    hydrateFallbackElement: <p className="p-6">Opening …</p>,
    children: [
      { path: '/', element: <Plans /> },
      {
        path: '/plan/:planId',
        element: <Frame />,
        children: [
          { index: true, element: <Navigate to="cover" replace /> },
          { path: 'cover', lazy: async () => ({ Component: (await cover()).CoverStage }) },
          {
            path: 'rig',
            lazy: async () => ({ Component: (await import('../stages/rig/rig-stage')).RigStage }),
          },
          {
            path: 'fold',
            lazy: async () => ({ Component: (await import('../stages/fold/fold-stage')).FoldStage }),
          },
          {
            path: 'strike',
            lazy: async () => ({ Component: (await import('../stages/strike/strike-stage')).StrikeStage }),
          },
          {
            path: 'weigh',
            lazy: async () => ({ Component: (await import('../stages/weigh/weigh-stage')).WeighStage }),
          },
          {
            path: 'bolt',
            lazy: async () => ({ Component: (await import('../stages/bolt/bolt-stage')).BoltStage }),
          },
          {
            path: 'run',
            lazy: async () => ({ Component: (await import('../stages/run/run-stage')).RunStage }),
          },
          {
            path: 'log',
            lazy: async () => ({ Component: (await import('../stages/log/log-stage')).LogStage }),
          },
          { path: '*', element: <Navigate to="cover" replace /> },
        ],
      },
      {
        path: '/sheet/:body',
        lazy: async () => ({ Component: (await import('../stages/rig/empty-sheet')).EmptySheet }),
      },
      {
        path: '/run/:runId',
        lazy: async () => ({ Component: (await import('../stages/run/run-screen')).RunScreen }),
      },
      { path: '*', element: <Navigate to="/" replace /> },
    ],
  },
]);
