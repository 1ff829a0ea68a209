import { useId, type InputHTMLAttributes, type TextareaHTMLAttributes } from 'react';

const BOX = 'mt-1 w-full rounded border border-dim px-2 py-1';

/** A labelled line of text. */
export function Field({
  label,
  hint,
  ...rest
}: InputHTMLAttributes<HTMLInputElement> & { label: string; hint?: string }) {
  const id = useId();
  return (
    <div className="mb-3">
      <label htmlFor={id} className="text-[12px] font-semibold">
        {label}
      </label>
      <input id={id} {...rest} className={BOX} />
      {hint && <p className="mt-1 text-[12px] text-dim">{hint}</p>}
    </div>
  );
}

/** A labelled text of several lines. */
export function Area({
  label,
  hint,
  mono,
  ...rest
}: TextareaHTMLAttributes<HTMLTextAreaElement> & {
  label: string;
  hint?: string;
  mono?: boolean;
}) {
  const id = useId();
  return (
    <div className="mb-3">
      <label htmlFor={id} className="text-[12px] font-semibold">
        {label}
      </label>
      <textarea id={id} {...rest} className={`${BOX} ${mono ? 'font-mono text-[12px]' : ''}`} />
      {hint && <p className="mt-1 text-[12px] text-dim">{hint}</p>}
    </div>
  );
}
