import { useShow } from "../data/use";

const STATUS = {
  connecting: ["bg-sun", "connecting"],
  live: ["bg-sea", "saved"],
  lost: ["bg-coral", "offline"],
  gone: ["bg-coral", "gone"],
} as const;

/** Whether the server has what was done here. */
export function Saved() {
  // a link without its show is none yet
  const status = useShow((state) =>
    state.status === "live" && state.revision === null ? "connecting" : state.status,
  );
  const waiting = useShow((state) => state.waiting);
  const trouble = useShow((state) => state.trouble);
  const [colour, word] = trouble ? (["bg-coral", "store away"] as const) : STATUS[status];
  const text = waiting > 0 ? `${word === "saved" ? "saving" : word}, ${waiting} waiting` : word;
  return (
    <span
      role="status"
      data-status={trouble ? "trouble" : status}
      data-waiting={waiting}
      title={trouble || undefined}
      className="inline-flex items-center gap-1.5 text-[12.5px] text-soft whitespace-nowrap"
    >
      <span className={`w-2 h-2 rounded-full shrink-0 ${colour}`} aria-hidden />
      <span className={text === "saved" ? "" : "text-paper"}>{text}</span>
    </span>
  );
}
