import { useEffect, useState } from "react";
import { store } from "../../data/show";
import type { Fitting } from "../../data/types";
import { useLink, useShow } from "../../data/use";
import { whenText } from "../../data/words";
import { Button } from "../../ui/Button";
import { Choice } from "../../ui/Choice";
import { FittingDialog } from "./FittingDialog";

/** Who is on the channel, with whose settings, what of them is loose; kept or dropped by name. */
export function FittingLine({ channel, name }: { channel: string; name: string }) {
  const link = useLink();
  const fitting = useShow((state) => (state.fitting?.channel === channel ? state.fitting : null));
  const [open, setOpen] = useState(false);
  useEffect(() => {
    link.watch({ fitting: channel });
    return () => {
      link.watch({ fitting: null });
      store.setState({ fitting: null });
    };
  }, [link, channel]);
  // a show without a company needs no line for it; captured settings begin one
  const parts = useShow((state) => state.parts.size);
  if (!fitting || (parts === 0 && !fitting.fitting && fitting.others.length === 0)) return null;
  return (
    <section
      aria-label={`Who is on ${name}`}
      className="flex items-center gap-x-3 gap-y-1.5 flex-wrap rounded-xl border border-line bg-floor px-3 py-2 mb-2"
    >
      <span
        dir="auto"
        className="text-iris font-semibold min-w-0 truncate max-w-96"
        data-testid="who-is-on"
      >
        {fitting.on || "Nobody is on"}
      </span>
      {fitting.fitting && (
        <span className="text-faint text-[13px] whitespace-nowrap">
          since {whenText(new Date(fitting.since_s * 1000).toISOString())}
        </span>
      )}
      {fitting.fitting && (
        <span
          className={fitting.loose.length > 0 ? "text-sun-text" : "text-soft"}
          role="status"
          data-testid="fitting-says"
        >
          {fitting.says}
        </span>
      )}
      <span className="flex-1" />
      {fitting.fitting && fitting.loose.length > 0 && <Keeping fitting={fitting} />}
      <Wearing fitting={fitting} name={name} />
      <Button small onClick={() => setOpen(true)}>
        Fitting…
      </Button>
      <FittingDialog fitting={fitting} name={name} open={open} onOpenChange={setOpen} />
    </section>
  );
}

function Keeping({ fitting }: { fitting: Fitting }) {
  const link = useLink();
  const act = (drop: boolean) =>
    void link.do({ action: "keep_fitting", fitting: fitting.fitting!, drop }, { quiet: false });
  return (
    <>
      <Button small tone="main" onClick={() => act(false)}>
        Keep for {fitting.performer}
      </Button>
      <Button small onClick={() => act(true)}>
        Drop
      </Button>
    </>
  );
}

/** Another part or fitting on the channel, or nobody. */
function Wearing({ fitting, name }: { fitting: Fitting; name: string }) {
  const link = useLink();
  return (
    <Choice
      boxed
      label={`Put on ${name}`}
      className="h-7 coarse:h-11 w-28"
      value=""
      options={[
        ["", "Put on…"],
        ...fitting.choices.map((one) => [one.what, one.name] as const),
        ["nobody", "Nobody: take off"],
      ]}
      onChange={(what) =>
        what &&
        void link.do(
          { action: "put_on", channel: fitting.channel, what: what === "nobody" ? null : what },
          { quiet: false },
        )
      }
    />
  );
}
