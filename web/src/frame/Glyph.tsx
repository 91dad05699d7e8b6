import type { ReactNode } from "react";

/** What each place is drawn by: a stage seen from the house, ways that join, faders, two people, a tent, an ear. */
const LINES: Record<string, ReactNode> = {
  stage: (
    <>
      <path d="M6.500 5h11l3.500 12H3z" />
      <path d="M3 17v2.500h18V17" />
      <path d="M9 13.500v.01M12 13.500v.01M15 13.500v.01" />
    </>
  ),
  mix: (
    <>
      <path d="M3 6c6 0 5 6 10 6M3 18c6 0 5-6 10-6M3 12h18" />
      <circle cx="19.500" cy="12" r="1.500" />
    </>
  ),
  hands: <path d="M4 20v-6M8 20V9M12 20V4M16 20V7M20 20v-9" />,
  people: (
    <>
      <circle cx="9" cy="8" r="3.500" />
      <path d="M2.500 20c0-4 2.800-6.500 6.500-6.500s6.500 2.500 6.500 6.500" />
      <path d="M15.500 4.800a3.300 3.300 0 0 1 0 6.400M18 14.200c2.200.8 3.500 2.900 3.500 5.800" />
    </>
  ),
  show: (
    <>
      <path d="M12 8V3l4 1.500L12 6" />
      <path d="M12 8c-2.500 4-5.500 6.500-9 8h18c-3.500-1.500-6.500-4-9-8z" />
      <path d="M5 16.500V20h14v-3.500M10 20c0-2.500.8-4 2-4s2 1.500 2 4" />
    </>
  ),
  hear: (
    <>
      <path d="M6 10a6 6 0 0 1 12 0c0 4.500-4 4.500-4 8a2.800 2.800 0 0 1-5.300 1.200" />
      <path d="M9.500 10a2.500 2.500 0 0 1 5 0c0 1.800-1.600 2.200-1.900 3.600" />
    </>
  ),
  find: (
    <>
      <circle cx="10.500" cy="10.500" r="5.500" />
      <path d="m15 15 5 5" />
    </>
  ),
  quiet: <path d="M4 10v4h3l5 4V6l-5 4zM16 9l5 6M21 9l-5 6" />,
  undo: <path d="M9 6 5 10l4 4M5 10h8.500a4.500 4.500 0 0 1 0 9H10" />,
  redo: <path d="m15 6 4 4-4 4M19 10h-8.500a4.500 4.500 0 0 0 0 9H14" />,
  print: (
    <>
      <path d="M7 9V4h10v5M7 17H4v-7h16v7h-3" />
      <path d="M7 14h10v6H7z" />
    </>
  ),
};

/** A sign of the frame, drawn in lines of the colour of its text. */
export function Glyph({ of, className = "w-6" }: { of: string; className?: string }) {
  return (
    <svg
      viewBox="0 0 24 24"
      className={`aspect-square ${className}`}
      fill="none"
      stroke="currentColor"
      strokeWidth="1.800"
      strokeLinecap="round"
      strokeLinejoin="round"
      aria-hidden
    >
      {LINES[of]}
    </svg>
  );
}
