interface Props {
  onGo: () => void;
  disabled: boolean;
  /** How many sources it changes, once it was pressed and waits for the second press. */
  sources: number;
}

// a dome with a scalloped edge and its ribs: the canopy of the mark
const DOME =
  "M4 98C4 44 48 6 104 6s100 38 100 92c-8-10-25-10-33 0-8-10-25-10-34 0-8-10-25-10-33 0-8-10-25-10-33 0-9-10-26-10-34 0-8-10-25-10-33 0z";
const RIBS =
  "M104 6C78 24 70 62 71 96M104 6c26 18 34 56 33 90M104 6C56 20 38 60 37 96M104 6c48 14 66 54 67 90";

/** The key that recalls what is next: large, in the colour of scenes, in a form of its own. */
export function GoKey({ onGo, disabled, sources }: Props) {
  const sure = sources > 0;
  return (
    <button
      type="button"
      onClick={onGo}
      disabled={disabled}
      data-go
      className={`group relative w-56 phone:w-full h-28 shrink-0 cursor-pointer select-none disabled:opacity-40 disabled:cursor-default ${sure ? "text-coral" : "text-iris"}`}
    >
      <svg
        viewBox="0 0 208 104"
        className="absolute inset-0 w-full h-full group-enabled:group-hover:brightness-110"
        preserveAspectRatio="xMidYMax meet"
        aria-hidden
      >
        <path d={DOME} fill="currentColor" />
        <path d={RIBS} fill="none" stroke="var(--ink)" strokeOpacity="0.22" strokeWidth="1.500" />
      </svg>
      <span className="relative flex flex-col items-center pt-4 text-ink font-title font-bold leading-none">
        <span className="text-[44px] lowercase">Go</span>
        {sure && (
          <span className="font-sans text-[12.5px] font-semibold leading-tight max-w-36">
            changes {sources} sources: press again
          </span>
        )}
      </span>
    </button>
  );
}
