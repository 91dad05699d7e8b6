import type { ReactNode } from "react";

/** An empty view says what to do first. */
export function Empty({ title, children }: { title: string; children: ReactNode }) {
  return (
    <div className="grid place-items-center flex-1 min-h-0 scrolls">
      <div className="max-w-96 text-center flex flex-col items-center gap-3">
        <h2 className="font-title text-xl font-semibold">{title}</h2>
        <div className="text-soft flex flex-col items-center gap-3">{children}</div>
      </div>
    </div>
  );
}

/** The strip colour as a bar at the left of a row. */
export function ColourBar({ colour }: { colour: string }) {
  return (
    <span
      className="w-[5px] self-stretch rounded-l-md shrink-0"
      style={{ background: `var(--strip-${colour || "sand"})` }}
      aria-hidden
    />
  );
}
