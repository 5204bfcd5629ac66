import type { ButtonHTMLAttributes } from 'react';

type Look = 'plain' | 'strong' | 'quiet';

const LOOKS: Record<Look, string> = {
  plain: 'border border-scribe bg-paper text-ink hover:border-ink2',
  strong: 'border border-ink bg-ink text-paper hover:opacity-90',
  quiet: 'border border-transparent bg-transparent text-ink hover:bg-paper',
};

/** A button big enough for a glove. */
export function Button({
  look = 'plain',
  className = '',
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { look?: Look }) {
  return (
    <button
      type="button"
      className={`inline-flex min-h-11 min-w-11 items-center justify-center gap-2 rounded-edge px-3 font-semibold disabled:cursor-default disabled:opacity-40 ${LOOKS[look]} ${className}`}
      {...rest}
    />
  );
}
