import { Dialog as RadixDialog } from "radix-ui";
import { useShow } from "../../data/use";
import { levelText } from "../../data/words";
import { WhyPanel } from "./WhyPanel";

/** Where there is no room beside the work: Why in one line below it, and whole as a panel over it. */
export function WhyLine() {
  const why = useShow((state) => state.why);
  if (!why) return null;
  const heard = why.state === "heard";
  return (
    <RadixDialog.Root>
      <RadixDialog.Trigger className="flex items-center gap-2 h-11 px-4 phone:px-3 border-t border-line bg-floor text-left cursor-pointer shrink-0">
        <span className="flex-1 min-w-0 truncate">
          <bdi>{why.source_name}</bdi> <span aria-hidden>→</span>
          <span className="sr-only">to</span> <bdi>{why.listener_name}</bdi>
        </span>
        <strong className={`whitespace-nowrap ${heard ? "text-sea" : "text-coral"}`}>
          {heard
            ? `${levelText(why.level_db)} dB`
            : why.state === "unrouted"
              ? "not sent"
              : "silent"}
        </strong>
        <span className="text-sun-text font-semibold">Why</span>
      </RadixDialog.Trigger>
      <RadixDialog.Portal>
        <RadixDialog.Overlay className="fixed inset-0 z-40 bg-black/60" />
        <RadixDialog.Content
          aria-describedby={undefined}
          className="fixed z-40 inset-y-0 right-0 w-[min(360px,100vw)] flex flex-col bg-floor shadow-2xl"
        >
          <div className="flex items-center justify-between pl-4 pr-2 pt-2">
            <RadixDialog.Title className="font-title text-lg font-bold">Why</RadixDialog.Title>
            <RadixDialog.Close className="h-11 px-3 rounded-xl text-soft hover:text-paper hover:bg-raise cursor-pointer">
              Close
            </RadixDialog.Close>
          </div>
          <WhyPanel />
        </RadixDialog.Content>
      </RadixDialog.Portal>
    </RadixDialog.Root>
  );
}
