import type { ButtonHTMLAttributes } from 'react';

/** A button; `main` for the one that a dialog or form is about. */
export function Button({
  main,
  className = '',
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { main?: boolean }) {
  return (
    <button
      type="button"
      {...rest}
      className={`cursor-pointer rounded border px-3 py-1 disabled:cursor-default disabled:opacity-60 ${
        main
          ? 'border-transparent bg-iron font-semibold text-on-iron'
          : 'border-line bg-sheet hover:bg-band'
      } ${className}`}
    />
  );
}
