import type { ButtonHTMLAttributes } from 'react';

/** A button; `main` for the one that a dialog or form is about, `small` within a list. */
export function Button({
  main,
  small,
  className = '',
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & { main?: boolean; small?: boolean }) {
  return (
    <button
      type="button"
      {...rest}
      className={`cursor-pointer rounded border disabled:cursor-default disabled:opacity-60 ${
        main
          ? 'border-transparent bg-iron font-semibold text-on-iron'
          : 'border-line bg-sheet hover:bg-band'
      } ${small ? 'px-2 text-[12px] leading-[20px]' : 'px-3 py-1'} ${className}`}
    />
  );
}
