import type { ReactNode } from "react";
import { Button } from "../ui/Button";
import { Glyph } from "./Glyph";

interface Props {
  /** What it is drawn by, and called. */
  of: string;
  word: string;
  title: string;
  keys: string;
  onPress: () => void;
  className?: string;
  children?: ReactNode;
}

/** A key of the bar on top: a sign, and its word for who does not see it. */
export function BarKey({ of, word, title, keys, onPress, className = "", children }: Props) {
  return (
    <Button
      className={`!px-2 !w-9 coarse:!w-11 justify-center ${className}`}
      onClick={onPress}
      aria-keyshortcuts={keys}
      title={title}
    >
      <Glyph of={of} className="w-5" />
      <span className="sr-only">{word}</span>
      {children}
    </Button>
  );
}
