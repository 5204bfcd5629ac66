import { createBrowserRouter, Navigate } from 'react-router';
import { Plans } from './plans';
import { Trouble } from './trouble';

const frame = () => import('./frame');
const cover = () => import('../stages/cover/cover-stage');
// what a plan opens with, its frame and Cover, is fetched while the list of plans is read
setTimeout(() => void Promise.all([frame(), cover()]).catch(() => undefined), 500);

/** Stages are fetched when they are opened. */
export const router = createBrowserRouter([
  {
    errorElement: <Trouble />,
    hydrateFallbackElement: <p className="p-6">Opening …</p>,
    children: [
      { path: '/', element: <Plans /> },
      {
        path: '/plan/:planId',
        lazy: async () => ({ Component: (await frame()).Frame }),
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
      { path: '/help', lazy: async () => ({ Component: (await import('./help')).Help }) },
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
