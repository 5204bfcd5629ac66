import { type PlanDocument, writeDocument } from '@plate-fold/core/plan';
import { nanoid } from 'nanoid';
import { useState } from 'react';
import {
  type DeletedPlan,
  type DocumentRow,
  useAddDocumentMutation,
  useDeleteDocumentMutation,
  useLazyDocumentQuery,
  useSaveDocumentMutation,
  useSetArchivedMutation,
  useTakePhotosAlongMutation,
  useUndeleteMutation,
} from '../state/api';
import { saveFile } from '../ui/save-file';
import type { PlanActions } from './plan-tile';

const SILENT = 'The server does not answer. Nothing was changed.';

/** A copy of a plan under an id and a name of its own; the vehicle goes with it. */
export const copyOf = (doc: PlanDocument, id: string, name: string): PlanDocument => ({
  ...doc,
  plan: { ...doc.plan, id, name },
});
/** An id for a copy, short and never used before. */
export const copyId = (id: string): string => `${id.slice(0, 40)}-${nanoid(6)}`;

/** What is done with plans in the list: each at once on the server; a deletion can be undone. */
export function usePlanList() {
  const [fetchPlan] = useLazyDocumentQuery();
  const [add] = useAddDocumentMutation();
  const [takePhotosAlong] = useTakePhotosAlongMutation();
  const [save] = useSaveDocumentMutation();
  const [setArchived] = useSetArchivedMutation();
  const [remove] = useDeleteDocumentMutation();
  const [undelete] = useUndeleteMutation();
  const [renaming, setRenaming] = useState<DocumentRow>();
  const [deleted, setDeleted] = useState<DeletedPlan>();
  const [fault, setFault] = useState<string>();

  const failed = (error: unknown): void =>
    setFault((error as { data?: { fault?: string } } | undefined)?.data?.fault ?? SILENT);
  /** Does something on the server, and says so where it could not be done. */
  const tried = async <T>(work: Promise<{ data?: T; error?: unknown }>): Promise<T | undefined> => {
    setFault(undefined);
    const { data, error } = await work;
    if (error) failed(error);
    return data;
  };
  const loaded = (id: string) => tried(fetchPlan(id));

  const actions: PlanActions = {
    rename: setRenaming,
    duplicate: async row => {
      const plan = await loaded(row.id);
      if (!plan) return;
      const copy = copyOf(plan.document, copyId(row.id), `${row.name}, copy`);
      const made = await tried(add(copy));
      // what the survey is marked on goes with it
      if (made && (copy.rig.scan || (copy.rig.survey?.photos ?? []).length > 0))
        await tried(takePhotosAlong({ document: copy.plan.id, from: row.id }));
    },
    exportFile: async row => {
      const plan = await loaded(row.id);
      if (plan) saveFile(`${row.id}.platefold.json`, writeDocument(plan.document), 'application/json');
    },
    archive: async (row, archived) => void (await tried(setArchived({ id: row.id, archived }))),
    remove: async row => setDeleted(await tried(remove(row.id))),
  };
  return {
    actions,
    fault,
    renaming,
    deleted,
    stopRenaming: (): void => setRenaming(undefined),
    /** Gives a plan and its vehicle other names. */
    rename: async (row: DocumentRow, name: string, vehicle: string): Promise<void> => {
      setRenaming(undefined);
      const plan = await loaded(row.id);
      if (!plan) return;
      const { document, revision } = plan;
      await tried(
        save({
          id: row.id,
          baseRevision: revision,
          document: {
            ...document,
            plan: { ...document.plan, name },
            rig: { ...document.rig, name: vehicle },
          },
        }),
      );
    },
    /** Brings a deleted plan back. */
    bringBack: async (key: string): Promise<void> => {
      if (await tried(undelete(key))) setDeleted(undefined);
    },
    dismiss: (): void => setDeleted(undefined),
  };
}
