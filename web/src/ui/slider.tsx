import { Slider as Radix } from 'radix-ui';

/** A figure that is slid: a knob wide enough for a glove, arrow keys one step, Page keys ten. */
export function Slider(props: {
  readonly label: string;
  readonly value: number;
  readonly least?: number;
  readonly most: number;
  readonly step?: number;
  readonly disabled?: boolean;
  /** what the value means, to a screen reader */
  readonly said?: string;
  readonly onChange: (value: number) => void;
}) {
  return (
    <Radix.Root
      value={[props.value]}
      min={props.least ?? 0}
      max={props.most}
      step={props.step ?? 1}
      disabled={props.disabled ?? false}
      onValueChange={([v]) => v !== undefined && props.onChange(v)}
      className="relative flex h-11 min-w-0 flex-1 touch-none items-center select-none data-[disabled]:opacity-40"
    >
      <Radix.Track className="relative h-1.5 grow rounded-full bg-scribe">
        <Radix.Range className="absolute h-full rounded-full bg-fluid" />
      </Radix.Track>
      <Radix.Thumb
        aria-label={props.label}
        aria-valuetext={props.said}
        className="block size-6 rounded-full border-2 border-fluid bg-paper shadow"
      />
    </Radix.Root>
  );
}
