import { Popover } from "radix-ui";
import type { ReactNode } from "react";
import { Link as RouteLink } from "wouter";

interface Props {
  /** What is pressed for it, and how it looks. */
  trigger: ReactNode;
  className: string;
  title: string;
  /** Where the guide tells more. */
  guide: string;
  children: ReactNode;
}

/** Something that says what it is, when pressed, and leads on into the guide. */
export function Explained({ trigger, className, title, guide, children }: Props) {
  return (
    <Popover.Root>
      <Popover.Trigger
        // by keyboard it is part of what ? shows
        tabIndex={-1}
        title={title}
        className={className}
      >
        {trigger}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="start"
          sideOffset={6}
          collisionPadding={12}
          className="z-50 max-w-96 rounded-2xl border border-edge bg-floor p-4 shadow-2xl leading-relaxed"
        >
          {children}
          <RouteLink
            to={guide}
            className="mt-2 h-9 inline-flex items-center text-sun-text underline"
          >
            Read on in the guide
          </RouteLink>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
