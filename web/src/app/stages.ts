import type { Where } from '@plate-fold/core/checks';
import {
  Bolt,
  Car,
  FoldVertical,
  LayoutPanelTop,
  type LucideIcon,
  Mountain,
  NotebookPen,
  Play,
  Scale,
} from 'lucide-react';

export interface StageEntry {
  readonly id: 'rig' | 'cover' | 'fold' | 'strike' | 'weigh' | 'bolt' | 'run' | 'log';
  readonly name: string;
  readonly icon: LucideIcon;
  /** findings of these places are counted here */
  readonly holds: readonly Where[];
}

/** The stages that work, in the order of the work. */
export const STAGES: readonly StageEntry[] = [
  { id: 'rig', name: 'Rig', icon: Car, holds: [] },
  { id: 'cover', name: 'Cover', icon: LayoutPanelTop, holds: ['cover'] },
  { id: 'fold', name: 'Fold', icon: FoldVertical, holds: ['fold'] },
  { id: 'strike', name: 'Strike', icon: Mountain, holds: ['strike'] },
  { id: 'weigh', name: 'Weigh', icon: Scale, holds: ['weigh'] },
  { id: 'bolt', name: 'Bolt', icon: Bolt, holds: ['bolt'] },
  { id: 'run', name: 'Run', icon: Play, holds: ['run'] },
  { id: 'log', name: 'Log', icon: NotebookPen, holds: [] },
];
