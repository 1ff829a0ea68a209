/** Looks like a button, and asks for a file. */
export function FileButton({
  accept,
  children,
  onFile,
}: {
  accept: string;
  children: string;
  onFile(file: File): void;
}) {
  return (
    <label className="cursor-pointer rounded border border-line px-2 text-[12px] leading-[20px] focus-within:outline hover:bg-band">
      {children}
      <input
        type="file"
        accept={accept}
        className="sr-only"
        onChange={(e) => {
          const file = e.target.files?.[0];
          if (file) onFile(file);
          e.target.value = '';
        }}
      />
    </label>
  );
}
