import { useSetByHand } from "../data/hand";
import { useOn } from "../data/use";
import { useTabIndex } from "./reach";

/** A pin: what it holds no recall moves. One press sets it, one frees it. */
export function PinKey({ address, of, word }: { address: string; of: string; word?: string }) {
  const set = useSetByHand();
  const pinned = useOn(address);
  return (
    <button
      type="button"
      tabIndex={useTabIndex()}
      aria-pressed={pinned}
      aria-label={`${pinned ? "pinned" : "pin"}, ${of}`}
      title={
        pinned ? `No recall moves it: ${of}. Press to free it.` : `Hold against recalls: ${of}`
      }
      onClick={() => set(address, pinned ? "off" : "on")}
      className={`inline-flex items-center justify-center gap-1 h-6 min-w-7 px-1.5 rounded-md border cursor-pointer text-[12px] leading-none ${
        pinned ? "border-iris text-iris bg-raise" : "border-line text-faint bg-card"
      }`}
    >
      <svg viewBox="0 0 12 12" width="11" height="11" aria-hidden>
        <path
          d="M6 11V6.5M3.2 6.5h5.6L7.6 4.6V1.2H4.4v3.4z"
          fill={pinned ? "currentColor" : "none"}
          stroke="currentColor"
          strokeWidth="1.2"
          strokeLinejoin="round"
        />
      </svg>
      {word && <span>{word}</span>}
    </button>
  );
}
