import type { ButtonHTMLAttributes } from 'react';

const LOOKS = {
  /** The one thing to do here. */
  main: 'border-ink bg-ink text-paper hover:bg-down hover:border-down disabled:bg-quiet disabled:border-quiet',
  plain: 'border-quiet bg-transparent hover:border-ink hover:bg-sheet',
  quiet: 'border-transparent bg-transparent underline decoration-hairline underline-offset-4 hover:decoration-ink',
} as const;

interface ButtonProps extends ButtonHTMLAttributes<HTMLButtonElement> {
  readonly look?: keyof typeof LOOKS;
}

export function Button({ look = 'plain', className = '', type = 'button', ...rest }: ButtonProps) {
  return (
    <button
      type={type}
      className={`inline-flex min-h-9 items-center justify-center gap-2 rounded-[3px] border-[1.5px] px-3 text-[0.9375rem] ${LOOKS[look]} ${className}`}
      {...rest}
    />
  );
}
