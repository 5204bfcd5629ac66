import { type Fault, readDocument } from '@plate-fold/core/plan';
import { useState } from 'react';
import { useNavigate } from 'react-router';
import { useAddDocumentMutation, useRestoreArchiveMutation } from '../state/api';

/** Why a file was not taken in. */
export interface NotTaken {
  readonly file: string;
  readonly list: readonly Fault[];
}
/** An archive some of whose plans are here already. */
export interface Clash {
  readonly file: File;
  readonly names: readonly string[];
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
    const answer = await add(read.document);
    if ('data' in answer && answer.data) navigate(`/plan/${encodeURIComponent(answer.data.id)}/cover`);
    else fail(file.name, answer.error);
  };
  return {
    take,
    takeArchive,
    cancel: (): void => setClash(undefined),
    notTaken,
    clash,
    taken,
    busy: adding.isLoading || restoring.isLoading,
  };
}
