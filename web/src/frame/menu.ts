/** How the menus of the frame look. */
export const ITEM =
  "px-3 min-h-9 coarse:min-h-11 flex items-center gap-2 rounded-lg outline-none cursor-pointer data-[highlighted]:bg-raise";
export const MENU =
  "min-w-56 max-w-[92vw] max-h-[var(--radix-dropdown-menu-content-available-height)] scrolls rounded-xl border border-edge bg-floor p-1.5 shadow-2xl z-50";
export const RULE = "h-px bg-line my-1.5";
