/** What is being worked out, in place of what it will show: one word for all of it. */
export const ONE_MOMENT = "One moment…";

/** Tests wait until none is left. */
export function Waiting({ className = "" }: { className?: string }) {
  return (
    <p data-loading role="status" className={`text-soft ${className}`}>
      {ONE_MOMENT}
    </p>
  );
}
