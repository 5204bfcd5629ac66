import { useEffect, useState } from 'react';
import { api } from './api';
import { dropDraft, findDraft, sameDocument } from './drafts';
import { documentOpened } from './plan-actions';
import { useAppDispatch, useAppSelector } from './store';
import { conflictFound } from './sync-slice';
import { selectionCleared } from './view-slice';

type Opening = { readonly state: 'opening' | 'open' } | { readonly state: 'failed'; readonly fault: string };

const RETRY_MS = 2500;

/**
 * Opens a plan into the store: the server's copy, with a draft this device still holds laid over it. A draft that
 * the server has overtaken becomes a conflict, never a loss. While the server is away it is asked again.
 */
export function useOpenPlan(id: string): Opening {
  const dispatch = useAppDispatch();
  const openId = useAppSelector(s => s.sync.id);
  const [failed, setFailed] = useState<string>();
  useEffect(() => {
    if (openId === id) return;
    let gone = false;
    let timer: ReturnType<typeof setTimeout> | undefined;
    const open = async (): Promise<void> => {
      const call = dispatch(api.endpoints.document.initiate(id, { forceRefetch: true }));
      const { data, error } = await call;
      call.unsubscribe();
      const left = await findDraft(id);
      if (gone) return;
      // a save whose answer was lost on the way has arrived all the same
      const arrived = data && left && sameDocument(left.document, data.document);
      if (arrived) dropDraft(id);
      const draft = arrived ? undefined : left;
      if (data) {
        dispatch(selectionCleared());
        const overtaken = draft && draft.baseRevision !== data.revision;
        dispatch(
          documentOpened({
            document: draft?.document ?? data.document,
            revision: draft?.baseRevision ?? data.revision,
            savedAt: data.updatedAt,
            unsaved: draft !== undefined && !overtaken,
            acknowledged: data.document,
          }),
        );
        if (overtaken) dispatch(conflictFound({ revision: data.revision, document: data.document }));
        return;
      }
      const { status, data: answer } = error as { status: number | string; data?: { fault?: string } };
      if (status === 404) return setFailed(answer?.fault ?? 'There is no such plan.');
      if (draft) {
        dispatch(selectionCleared());
        dispatch(documentOpened({ document: draft.document, revision: draft.baseRevision, unsaved: true }));
        return;
      }
      setFailed(answer?.fault ?? 'The server does not answer. Trying again …');
      timer = setTimeout(() => void open(), RETRY_MS);
    };
    void open();
    return () => {
      gone = true;
      clearTimeout(timer);
    };
  }, [id, openId, dispatch]);
  if (openId === id) return { state: 'open' };
  return failed ? { state: 'failed', fault: failed } : { state: 'opening' };
}
