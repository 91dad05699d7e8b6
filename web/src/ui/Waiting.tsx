import type { ReactNode } from "react";

/** What is being worked out, in place of what it will show. Tests wait until none is left. */
export function Waiting({ children, className = "" }: { children: ReactNode; className?: string }) {
  return (
    <p data-loading className={`text-soft ${className}`}>
      {children}
    </p>
  );
}
