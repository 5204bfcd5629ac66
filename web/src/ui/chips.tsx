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
    <div role="radiogroup" aria-label={label} className="flex flex-wrap gap-1">
      {choices.map(([v, name]) => (
        <button
          key={v}
          type="button"
          role="radio"
          aria-checked={value === v}
          className={`min-h-11 rounded-[4px] border px-2 desk:px-3 ${value === v ? 'border-fluid bg-paper font-bold ring-1 ring-fluid' : 'border-transparent hover:bg-paper'}`}
          onClick={() => onChoose(v)}
        >
          {name}
        </button>
      ))}
    </div>
  );
}
