import { useSetByHand } from "../../data/hand";
import { stripName, useParameter, useShow, useValue } from "../../data/use";
import { optionText, valueText } from "../../data/words";
import { Choice } from "../../ui/Choice";
import { Toggle } from "../../ui/Toggle";
import { TypedField } from "../../ui/TypedField";

interface Props {
  address: string;
  /** Whose it is, for who cannot see where it stands. */
  of: string;
  /** Without its word beside it: the head of a table says it. */
  bare?: boolean;
  area?: string;
}

/** One value by its address: typed with its unit, chosen, or switched, as the catalogue has it. */
export function ValueField({ address, of, bare }: Props) {
  const set = useSetByHand();
  const parameter = useParameter(address);
  const value = useValue(address);
  // a strip by its name; typed by its number
  const named = useShow((state) =>
    parameter.kind === "reference" && typeof value === "string" ? stripName(state, value) : null,
  );
  const label = `${parameter.label}, ${of}`;
  const field =
    parameter.kind === "switch" ? (
      <Toggle
        label={`${value === true ? "on" : "off"}, ${label}`}
        pressed={value === true}
        onChange={(on) => set(address, on ? "on" : "off")}
      >
        {value === true ? "on" : "off"}
      </Toggle>
    ) : parameter.kind === "choice" ? (
      <Choice
        boxed
        label={label}
        value={String(value)}
        options={(parameter.options ?? []).map((one) => [one, optionText(one)] as const)}
        onChange={(typed) => set(address, typed)}
      />
    ) : (
      <TypedField
        boxed={!bare}
        label={label}
        value={named ?? valueText(parameter, value)}
        align={parameter.kind === "number" ? "right" : "left"}
        placeholder={parameter.kind === "reference" ? "itself" : undefined}
        className={bare ? "w-full" : "w-24 h-8"}
        onCommit={(text) => set(address, text)}
      />
    );
  if (bare) return field;
  return (
    <span
      className="flex items-center justify-between gap-2 min-h-9 coarse:min-h-11"
      title={parameter.says}
    >
      <span className="text-soft">{parameter.label}</span>
      {field}
    </span>
  );
}
