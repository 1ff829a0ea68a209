import type { ReactNode } from 'react';

/** A page before the bench: the name, what it promises, and a form at the gap in the wall. */
export function Front({ title, children }: { title: string; children: ReactNode }) {
  return (
    <main className="flex h-full items-stretch bg-paper">
      <div className="flex flex-1 items-center justify-end pr-10">
        <div className="max-w-[300px] text-right">
          <p className="text-[22px] font-semibold">Iron Sieve</p>
          <p className="mt-2 text-dim">
            Write the rules of a firewall, and see what each of them does before it does it.
          </p>
        </div>
      </div>
      <div aria-hidden className="flex w-[9px] flex-col">
        <div className="flex-1 bg-wall" />
        <div className="h-[340px]" />
        <div className="flex-1 bg-wall" />
      </div>
      <div className="flex flex-1 items-center pl-10">
        <div className="w-[300px]">
          <h1 className="mb-4 text-[17px] font-semibold">{title}</h1>
          {children}
        </div>
      </div>
    </main>
  );
}
