import { type Fault, type PlanDocument, readDocument } from '@plate-fold/core/plan';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import {
  useAddDocumentMutation,
  useLazyDocumentQuery,
  useRestoreArchiveMutation,
  useSaveDocumentMutation,
} from '../state/api';
import { copyId, copyOf } from './use-plan-list';

/** Why a file was not taken in. */
export interface NotTaken {
  readonly file: string;
  readonly list: readonly Fault[];
}
/** An archive some of whose plans are here already. */
export interface Clash {
  readonly file: File;
  readonly names: readonly string[];
  /** the plan itself, where it is a plan file and no archive: runs and log of the one that is here stay */
  readonly document?: PlanDocument;
}
interface Refused {
  readonly status?: number | string;
  readonly data?: {
    readonly fault?: string;
    readonly faults?: readonly Fault[];
    readonly existing?: readonly { readonly name: string }[];
  };
}

const isArchive = (file: File): boolean => /\.zip$/i.test(file.name) || file.type === 'application/zip';

/** Takes in what somebody saved: a plan file, or an archive with runs, log and photos. Nothing is changed where it cannot be. */
export function useTakeIn() {
  const navigate = useNavigate();
  const [add, adding] = useAddDocumentMutation();
  const [save] = useSaveDocumentMutation();
  const [fetchPlan] = useLazyDocumentQuery();
  const [restore, restoring] = useRestoreArchiveMutation();
  const [notTaken, setNotTaken] = useState<NotTaken>();
  const [clash, setClash] = useState<Clash>();
  const [taken, setTaken] = useState<string>();

  const fail = (file: string, error: unknown): void => {
    const { data } = error as Refused;
    setNotTaken({
      file,
      list: data?.faults ?? [{ path: '', fault: data?.fault ?? 'The server does not answer.' }],
    });
  };
  const takeArchive = async (file: File, existing?: 'replace' | 'both'): Promise<void> => {
    setClash(undefined);
    const { data, error } = await restore({ file, ...(existing ? { existing } : {}) });
    const said = error as Refused | undefined;
    if (said?.status === 409 && said.data?.existing)
      return setClash({ file, names: said.data.existing.map(d => d.name) });
    if (!data) return fail(file.name, error);
    const [one, ...more] = data.plans;
    if (one !== undefined && more.length === 0)
      return void navigate(`/plan/${encodeURIComponent(one)}/cover`);
    setTaken(
      `${file.name}: ${data.plans.length} plans, ${data.runs} runs and ${data.photos} photos are back.`,
    );
  };
  const take = async (file: File): Promise<void> => {
    setNotTaken(undefined);
    setTaken(undefined);
    if (isArchive(file)) return takeArchive(file);
    const read = readDocument(await file.text());
    if (!read.ok) return setNotTaken({ file: file.name, list: read.faults });
    await addPlan(file, read.document);
  };
  const addPlan = async (file: File, document: PlanDocument): Promise<void> => {
    const { data, error } = await add(document);
    if (data) navigate(`/plan/${encodeURIComponent(data.id)}/cover`);
    else if ((error as Refused).status === 409) setClash({ file, names: [document.plan.name], document });
    else fail(file.name, error);
  };
  /** Goes on with a plan file whose plan is here already. */
  const takePlan = async (
    file: File,
    document: PlanDocument,
    existing: 'replace' | 'both',
  ): Promise<void> => {
    setClash(undefined);
    const { id, name } = document.plan;
    if (existing === 'both') return addPlan(file, copyOf(document, copyId(id), `${name}, from file`));
    const here = await fetchPlan(id);
    if (!here.data) return fail(file.name, here.error);
    const { error } = await save({ id, baseRevision: here.data.revision, document });
    if (error) fail(file.name, error);
    else navigate(`/plan/${encodeURIComponent(id)}/cover`);
  };
  return {
    take,
    /** Goes on after the owner has said what becomes of what is here already. */
    resolve: (c: Clash, existing: 'replace' | 'both'): Promise<void> =>
      c.document ? takePlan(c.file, c.document, existing) : takeArchive(c.file, existing),
    cancel: (): void => setClash(undefined),
    notTaken,
    clash,
    taken,
    busy: adding.isLoading || restoring.isLoading,
  };
}
