import { RadioGroup } from 'radix-ui';
import { Button } from '../../ui/button';
import { FIELD, type FormProps } from './form-props';
import { CHECKLIST } from './kinds';

/** What was looked at, each fine or not, and what is wrong with it. */
export function Checks({ draft, onChange }: Pick<FormProps, 'draft' | 'onChange'>) {
  const checks = draft.checks ?? [];
  const put = (item: string, fine: boolean, note?: string): void =>
    onChange({
      ...draft,
      checks: [...checks.filter(c => c.item !== item), { item, fine, ...(note ? { note } : {}) }],
    });
  return (
    <ul className="grid gap-2">
      {CHECKLIST.map(item => {
        const c = checks.find(x => x.item === item);
        return (
          <li key={item} className="border border-scribe bg-paper p-2">
            <p className="text-body leading-tight">{item}</p>
            <RadioGroup.Root
              aria-label={item}
              value={c ? (c.fine ? 'fine' : 'not') : ''}
              onValueChange={v => put(item, v === 'fine', v === 'fine' ? undefined : c?.note)}
              className="mt-1 flex gap-1.5"
            >
              <RadioGroup.Item value="fine" asChild>
                <Button className={c?.fine ? 'border-fluid! ring-1 ring-fluid' : ''}>OK</Button>
              </RadioGroup.Item>
              <RadioGroup.Item value="not" asChild>
                <Button className={c && !c.fine ? 'border-oxide! ring-1 ring-oxide' : ''}>Not OK</Button>
              </RadioGroup.Item>
            </RadioGroup.Root>
            {c && !c.fine && (
              <input
                aria-label={`What is wrong: ${item}`}
                placeholder="what, where"
                value={c.note ?? ''}
                maxLength={1000}
                onChange={e => put(item, false, e.target.value)}
                className={`mt-1.5 ${FIELD} placeholder:text-ink2`}
              />
            )}
          </li>
        );
      })}
    </ul>
  );
}
