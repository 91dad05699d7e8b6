import { valueIn } from "../../data/show";
import { fedBy, useLink, useOn, useShow, useText, whoIsOn } from "../../data/use";
import { Choice } from "../../ui/Choice";
import { Toggle } from "../../ui/Toggle";
import { TypedField } from "../../ui/TypedField";
import { LinePreamps } from "../patch/LinePreamps";

/** What the row has no room for, of the line that is being looked at. */
export function LineDetail({ line }: { line: number }) {
  const link = useLink();
  const at = (leaf: string) => `line/${line}/${leaf}`;
  const name = useText(at("name"));
  const families = useShow((state) => state.catalogue!.at(at("family")).options ?? NONE);
  const colours = useShow((state) => state.catalogue!.at(at("colour")).options ?? NONE);
  const colour = useText(at("colour"));
  // whose settings its preamp and channel have now
  const on = useShow((state) => {
    const [channel] = fedBy(state, valueIn(state, at("socket")) as string | null);
    return channel === undefined ? "" : whoIsOn(state, `channel/${channel}`);
  });
  const set = (leaf: string) => (typed: string) => void link.type(at(leaf), typed);
  const words = (options: readonly string[]) => options.map((one) => [one, one] as const);
  return (
    <section
      aria-label={`More of ${name}`}
      className="flex items-center flex-wrap gap-x-3 gap-y-1.5 mt-2 px-3 py-1.5 rounded-xl bg-floor border border-line shrink-0 text-[13px]"
    >
      <strong dir="auto" className="truncate max-w-32">
        {name}
      </strong>
      {on && (
        <span dir="auto" className="text-iris truncate max-w-72" data-testid="line-on">
          {on}
        </span>
      )}
      <Labelled word="Where">
        <TypedField
          boxed
          label={`Where ${name} stands`}
          value={useText(at("where"))}
          onCommit={set("where")}
          className="w-20"
        />
      </Labelled>
      <Labelled word="Stand">
        <TypedField
          boxed
          label={`Stand of ${name}`}
          value={useText(at("stand"))}
          onCommit={set("stand")}
          className="w-16"
        />
      </Labelled>
      <Labelled word="Family">
        <Choice
          boxed
          label={`Family of ${name}`}
          value={useText(at("family"))}
          options={words(families)}
          onChange={set("family")}
        />
      </Labelled>
      <span
        className="w-3 h-3 rounded-full shrink-0 -mr-2"
        style={{ background: `var(--strip-${colour})` }}
        aria-hidden
      />
      <Choice
        boxed
        label={`Colour of ${name}`}
        value={colour}
        options={words(colours)}
        onChange={set("colour")}
      />
      <Toggle
        label={`${name} is stereo`}
        tone="sun"
        pressed={useOn(at("stereo"))}
        onChange={(on) => set("stereo")(on ? "on" : "off")}
      >
        stereo
      </Toggle>
      <TypedField
        boxed
        label={`Notes on ${name}`}
        placeholder="Notes"
        value={useText(at("notes"))}
        maxLength={400}
        onCommit={set("notes")}
        className="flex-1 min-w-24"
      />
      <LinePreamps line={line} />
    </section>
  );
}

function Labelled({ word, children }: { word: string; children: React.ReactNode }) {
  return (
    <label className="flex items-center gap-1.5 text-faint">
      {word}
      {children}
    </label>
  );
}

const NONE: readonly string[] = [];
