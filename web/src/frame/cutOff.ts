/** Whatever ends in an ellipsis tells the whole of it as a tip, when one points at it or comes to it. */
const ENDS = ".truncate, .line-clamp-2, .text-ellipsis";
const TOLD = "cutOff"; // marks a tip of ours, which goes when the text fits again

function tell(one: HTMLElement): void {
  const cut = one.scrollWidth > one.clientWidth + 1 || one.scrollHeight > one.clientHeight + 1;
  const text = one instanceof HTMLInputElement ? one.value : (one.textContent ?? "").trim();
  if (cut && (!one.title || TOLD in one.dataset)) {
    one.title = text;
    one.dataset[TOLD] = "";
  } else if (!cut && TOLD in one.dataset) {
    one.removeAttribute("title");
    delete one.dataset[TOLD];
  }
}

function look(event: Event): void {
  if (!(event.target instanceof Element)) return;
  const at = event.target.closest<HTMLElement>(ENDS);
  if (at) tell(at);
  // a key with a name within it has the hand as a whole
  for (const within of event.target.querySelectorAll<HTMLElement>(`:scope > ${ENDS}`)) tell(within);
}

/** Listens on the whole page, also in dialogs; gives what ends it. */
export function tellWhatIsCutOff(): () => void {
  document.addEventListener("pointerover", look);
  document.addEventListener("focusin", look);
  return () => {
    document.removeEventListener("pointerover", look);
    document.removeEventListener("focusin", look);
  };
}
