import { Toggle as RadixToggle } from "radix-ui";
import type { ReactNode } from "react";
import { useTabIndex } from "./reach";
import { tipOf } from "./tips";

interface Props {
  label: string;
  pressed: boolean;
  onChange: (pressed: boolean) => void;
  children: ReactNode;
  tone?: "sea" | "coral" | "sun";
  disabled?: boolean;
  /** Where it stands in the row's grid. */
  area?: string;
}

const ON = {
  sea: "data-[state=on]:bg-heard data-[state=on]:text-paper data-[state=on]:border-sea",
  coral: "data-[state=on]:bg-blocked data-[state=on]:text-coral data-[state=on]:border-coral",
  sun: "data-[state=on]:bg-sun data-[state=on]:text-on-sun data-[state=on]:border-sun",
};

/** A small key that stays pressed. Its word says what it is; pressed shows by border and ground. */
export function Toggle({
  label,
  pressed,
  onChange,
  children,
  tone = "sea",
  disabled,
  area,
}: Props) {
  return (
    <RadixToggle.Root
      aria-label={label}
      title={tipOf(children)}
      tabIndex={useTabIndex()}
      pressed={pressed}
      style={area ? { gridArea: area } : undefined}
      disabled={disabled}
      onPressedChange={onChange}
      className={`h-6 min-w-7 px-1.5 rounded-md border border-line bg-card text-faint text-[12px] leading-none cursor-pointer disabled:opacity-40 ${ON[tone]}`}
    >
      {children}
    </RadixToggle.Root>
  );
}
