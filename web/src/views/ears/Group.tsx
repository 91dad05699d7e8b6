import type { ReactNode } from "react";

/** What belongs together of a mix that is unfolded. */
export function Group({ title, children }: { title: string; children: ReactNode }) {
  return (
    <div className="min-w-0">
      <h3 className="text-[12.5px] text-faint pb-1">{title}</h3>
      <div className="flex items-center gap-1.5 flex-wrap">{children}</div>
    </div>
  );
}
