const TYPING = "input, textarea, [role=combobox], [role=listbox], [role=option]";

/** Whether a key pressed there is a letter of something typed or sought, and no key of the view. */
export const isTyping = (target: EventTarget | null): boolean =>
  target instanceof Element && target.matches(TYPING);
