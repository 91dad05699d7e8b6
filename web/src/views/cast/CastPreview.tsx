import type { Ask, Preview, PreviewCompany } from "../../data/types";
import { useLink } from "../../data/use";
import { Button } from "../../ui/Button";
import { usePreview } from "../../ui/Consequence";
import { useTakeOrLeave } from "../../ui/keys";
import { takeIt } from "../../ui/Taking";
import { Waiting } from "../../ui/Waiting";

/** What a choice of cast, or a late change, will do: who comes on, who goes, what stays, who hears it. */
export function CastPreview({ ask, onDone }: { ask: Ask; onDone: () => void }) {
  const link = useLink();
  const shown = usePreview(ask);
  useTakeOrLeave(() => void takeIt(link, ask, onDone), onDone);
  return (
    <section
      aria-label="What it will do"
      data-testid="cast-preview"
      className="shrink-0 mb-3 rounded-xl border border-iris bg-floor px-4 py-3 flex gap-4 items-start flex-wrap"
    >
      <div className="flex-1 min-w-72 max-h-64 scrolls" tabIndex={0} role="region" aria-label="Who">
        {shown === null ? (
          <Waiting />
        ) : typeof shown === "string" ? (
          <p className="text-coral" role="alert">
            {shown}
          </p>
        ) : (
          <>
            {shown.company && <Who company={shown.company} />}
            {shown.silenced.length > 0 && (
              <p className="text-coral">
                {shown.silenced.length}{" "}
                {shown.silenced.length === 1 ? "level falls" : "levels fall"} silent
              </p>
            )}
            <ul className="pt-1">
              {shown.company?.felt.map((one) => (
                <li key={one} className="text-sun-text">
                  {one}
                </li>
              ))}
            </ul>
            <p className="text-soft pt-1">{levels(shown)}</p>
          </>
        )}
      </div>
      <div className="flex gap-2">
        <Button
          tone="main"
          title="Ctrl+Enter"
          aria-keyshortcuts="Control+Enter"
          onClick={() => void takeIt(link, ask, onDone)}
        >
          Take it
        </Button>
        <Button title="Escape" aria-keyshortcuts="Escape" onClick={onDone}>
          Leave it
        </Button>
      </div>
    </section>
  );
}

/** What of levels is to be said; gains and settings are said above. */
function levels({ moved, company }: Preview): string {
  if (moved > 0) return `${moved} ${moved === 1 ? "level moves" : "levels move"}.`;
  return company && company.felt.length > 0 ? "No fader or send moves." : "Nothing else moves.";
}

function Who({ company }: { company: PreviewCompany }) {
  return (
    <>
      {company.on.length === 0 && <p className="text-soft">Who is on stays on.</p>}
      <ul>
        {company.on.map((one) => (
          <li key={one.channel} className="flex gap-2 flex-wrap">
            <strong className="font-semibold">{one.name}</strong>
            <span>
              <span className="text-faint">{one.was || "nobody"}</span> → {one.now || "nobody"}
            </span>
          </li>
        ))}
      </ul>
      {company.vacant.length > 0 && (
        <p className="text-coral">Nobody plays {company.vacant.join(", ")}: own settings show.</p>
      )}
      {company.pinned.map(([name, pin]) => (
        <p key={name} className="text-iris">
          {name} stays as it is: pinned ({pin}).
        </p>
      ))}
      {company.left.map(([name, why]) => (
        <p key={name} className="text-coral">
          {name} takes no fitting: {why}.
        </p>
      ))}
    </>
  );
}
