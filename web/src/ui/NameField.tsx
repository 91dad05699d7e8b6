import { useLink, useText } from "../data/use";
import { TypedField } from "./TypedField";

interface Props {
  /** What has the name, as `dca/3`. */
  of: string;
  label: string;
  className?: string;
}

/** The name of a thing, typed anew. */
export function NameField({ of, label, className }: Props) {
  const link = useLink();
  return (
    <TypedField
      boxed
      label={label}
      value={useText(`${of}/name`)}
      maxLength={60}
      className={className}
      onCommit={(typed) => void link.type(`${of}/name`, typed)}
    />
  );
}
