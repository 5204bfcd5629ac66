import { Check, ChevronDown } from 'lucide-react';
import { Select as Radix } from 'radix-ui';

export interface Choice<T extends string> {
  readonly value: T;
  readonly name: string;
}

/** A choice from a few, as a list that opens. */
export function Select<T extends string>(props: {
  readonly label: string;
  readonly value: T;
  readonly choices: readonly Choice<T>[];
  readonly onChoose: (value: T) => void;
  readonly className?: string;
}) {
  return (
    <Radix.Root value={props.value} onValueChange={v => props.onChoose(v as T)}>
      <Radix.Trigger
        aria-label={props.label}
        className={`inline-flex min-h-11 items-center justify-between gap-2 rounded-edge border border-scribe bg-paper px-3 text-left hover:border-ink2 ${props.className ?? ''}`}
      >
        <span className="truncate">
          <Radix.Value />
        </span>
        <Radix.Icon>
          <ChevronDown size={16} aria-hidden="true" />
        </Radix.Icon>
      </Radix.Trigger>
      <Radix.Portal>
        <Radix.Content
          position="popper"
          sideOffset={4}
          className="z-50 max-h-80 overflow-auto rounded-edge border border-ink bg-paper text-ink shadow-lg"
        >
          <Radix.Viewport>
            {props.choices.map(c => (
              <Radix.Item
                key={c.value}
                value={c.value}
                className="flex min-h-11 cursor-pointer items-center justify-between gap-4 px-3 outline-none data-[highlighted]:bg-fluid data-[highlighted]:text-onfluid"
              >
                <Radix.ItemText>{c.name}</Radix.ItemText>
                <Radix.ItemIndicator>
                  <Check size={16} aria-hidden="true" />
                </Radix.ItemIndicator>
              </Radix.Item>
            ))}
          </Radix.Viewport>
        </Radix.Content>
      </Radix.Portal>
    </Radix.Root>
  );
}
