import { checked, type Fault, readDocument, surveyFaults, surveySchema } from '../plan';
import type { Rig, Survey } from '../rig';
import { err, ok, type Result } from '../units';

/** A survey as it stands in a file, with the rig that its points belong to where the file is a plan. */
export interface SurveyRead {
  readonly survey: Survey;
  readonly rig?: Rig;
}

const said = (faults: readonly Fault[]): string => {
  const [first, ...more] = faults;
  return `${first?.path} ${first?.fault}${more.length > 0 ? ` (and ${more.length} more)` : ''}`;
};

/** Reads a plan with a survey, or `{"survey": {...}}` alone. Faults name the place in the file and what is wrong there. */
export function readSurvey(text: string): Result<SurveyRead> {
  let value: unknown;
  try {
    value = JSON.parse(text);
  } catch {
    value = undefined;
  }
  const alone = value as { readonly format?: unknown; readonly survey?: unknown } | undefined;
  if (alone && typeof alone === 'object' && alone.survey !== undefined && alone.format === undefined) {
    const read = checked<Survey>(surveySchema as never, alone.survey, 'a survey');
    if (!read.ok) return read;
    const faults: Fault[] = [];
    surveyFaults(read.value, 'survey', (path, fault) => faults.push({ path, fault }));
    return faults.length > 0 ? err(said(faults)) : ok({ survey: read.value });
  }
  const doc = readDocument(text);
  if (!doc.ok) return err(said(doc.faults));
  const { rig } = doc.document;
  return rig.survey
    ? ok({ survey: rig.survey, rig })
    : err('this plan has no survey: nothing was measured hole by hole');
}
