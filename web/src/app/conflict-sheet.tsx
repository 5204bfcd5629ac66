import { buildName, writeDocument } from '@plate-fold/core/plan';
import { theirsTaken } from '../state/plan-actions';
import { selectDocument } from '../state/select';
import { useAppDispatch, useAppSelector } from '../state/store';
import { mineKept } from '../state/sync-slice';
import { Button } from '../ui/button';
import { Dialog } from '../ui/dialog';
import { saveFile } from '../ui/save-file';
import { Differences } from './versions-sheet';

/** Shown when the plan was changed elsewhere meanwhile: neither version is lost, the owner says which goes on. */
export function ConflictSheet() {
  const dispatch = useAppDispatch();
  const { conflict, revision } = useAppSelector(s => s.sync);
  const present = useAppSelector(selectDocument);
  if (!conflict || !present) return null;
  const mine = present.plan.builds.find(b => b.id === present.plan.activeBuild);
  const theirs = conflict.document.plan.builds.find(b => b.id === conflict.document.plan.activeBuild);
  return (
    <Dialog
      open
      title="This plan was changed somewhere else"
      about={`Another tab or device saved revision ${conflict.revision} while you worked from revision ${revision}. Both versions are kept on the server, under Versions in the menu; choose the one to go on with.`}
    >
      <h3 className="font-bold">How theirs differs from mine</h3>
      <div className="mb-3 max-h-[30dvh] overflow-auto">
        <Differences before={present} after={conflict.document} same="Nothing: both say the same." />
      </div>
      <div className="grid gap-2">
        <Button look="strong" onClick={() => dispatch(mineKept())}>
          Keep mine ({mine && buildName(mine)})
        </Button>
        <Button onClick={() => dispatch(theirsTaken(conflict))}>
          Take theirs ({theirs && buildName(theirs)}); undo brings mine back
        </Button>
        <Button
          look="quiet"
          onClick={() =>
            saveFile(`${present.plan.id}-mine.platefold.json`, writeDocument(present), 'application/json')
          }
        >
          Save mine as a file first
        </Button>
      </div>
    </Dialog>
  );
}
