import { memo } from "react";
import { useSetByHand } from "../../data/hand";
import { valueIn } from "../../data/show";
import { useLink, useOn, useShow } from "../../data/use";
import { levelText } from "../../data/words";
import { Deliberate } from "../../ui/Deliberate";
import { Toggle } from "../../ui/Toggle";
import { TypedField } from "../../ui/TypedField";

/** Gain, predicted level, pad and phantom power of one preamp. 48 V takes two presses. */
interface Props {
  socket: string;
  name: string;
  /** With their words beside them, where no heads of columns say what they are. */
  words?: boolean | "short";
}

export const PreampFields = memo(function PreampFields({ socket, name, words }: Props) {
  const link = useLink();
  const setByHand = useSetByHand();
  const gain = useShow((state) => valueIn(state, `${socket}/gain`) as number);
  const pad = useOn(`${socket}/pad`);
  const phantom = useOn(`${socket}/phantom`);
  const preamp = useShow((state) => state.preamps.get(socket));
  const set = (leaf: string, value: boolean) => void link.put(`${socket}/${leaf}`, value);
  return (
    <>
      {words && <span className="text-faint">{words === "short" ? "Gain" : `${name} gain`}</span>}
      <TypedField
        label={`Gain of ${name}`}
        value={gain.toFixed(0)}
        align="right"
        boxed={Boolean(words)}
        className={`text-[13px] !px-0.5 ${words ? "w-11" : ""} ${gain ? "" : "text-faint"}`}
        onCommit={(typed) => setByHand(`${socket}/gain`, typed)}
        data={{ "data-column": "gain" }}
      />
      {words && <span className="text-faint">dB</span>}
      {preamp?.over ? (
        <strong
          className="text-[12px] text-right text-coral border border-coral rounded px-0.5"
          title={`Past full scale; ${preamp.suggested_db} dB of gain would suit`}
        >
          over {levelText(preamp.dbfs, 0)}
        </strong>
      ) : (
        <span
          className="text-[13px] text-right text-soft"
          title={preamp && `${preamp.suggested_db} dB of gain would suit`}
        >
          {preamp ? levelText(preamp.dbfs, 0) : ""}
          {words && preamp && (
            <span className="text-faint">
              {" "}
              dBFS{words !== "short" && <span className="max-md:hidden"> expected</span>}
            </span>
          )}
        </span>
      )}
      <Toggle label={`Pad of ${name}`} tone="sun" pressed={pad} onChange={(on) => set("pad", on)}>
        {words ? "Pad" : "P"}
      </Toggle>
      {words && <span className="text-faint pl-1.5">48 V</span>}
      <Deliberate
        says={`48 V ${phantom ? "off" : "on"} at ${name}`}
        short={phantom ? "48 on" : "off"}
        onDone={() => set("phantom", !phantom)}
        className={`!h-6 ${words ? "!px-2.5" : "!px-0"} !text-[11px] justify-center data-[armed]:!text-on-sun ${phantom ? "!bg-blocked font-semibold" : "!border-line !text-faint"}`}
      />
    </>
  );
});
