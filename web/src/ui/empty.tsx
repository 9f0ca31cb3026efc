import type { ReactNode } from 'react';

/** A view with nothing in it says what to do. */
export function Empty({ title, children }: { title: string; children?: ReactNode }) {
  return (
    <div className="flex flex-col items-start gap-3 rounded-lg border border-dashed border-rule p-6">
      <h2 className="text-lg font-bold">{title}</h2>
      {children}
    </div>
  );
}
