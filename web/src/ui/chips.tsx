import { RadioGroup } from 'radix-ui';
/** A few choices side by side, one of them taken. */
export function Chips<T extends string>({
  label,
  value,
  choices,
  onChoose,
}: {
  readonly label: string;
  readonly value: T;
  readonly choices: readonly (readonly [T, string])[];
  readonly onChoose: (value: T) => void;
}) {
  return (
    <RadioGroup.Root
      aria-label={label}
      value={value}
      onValueChange={v => onChoose(v as T)}
      className="flex flex-wrap gap-1"
    >
      {choices.map(([v, name]) => (
        <RadioGroup.Item
          key={v}
          value={v}
          className={`min-h-11 rounded-edge border px-2 desk:px-3 ${value === v ? 'border-fluid bg-paper font-bold ring-1 ring-fluid' : 'border-transparent hover:bg-paper'}`}
        >
          {name}
        </RadioGroup.Item>
      ))}
    </RadioGroup.Root>
  );
}
