// What is wrong with a page as it is laid out: a list of words, empty when all is well.
// arguments: [touch, width of the screen]
const [touch, width] = arguments;
const faults = [];
const name = (e) =>
  `${e.tagName.toLowerCase()} "${(e.getAttribute("aria-label") || e.textContent || e.getAttribute("placeholder") || "").trim().slice(0, 50)}"`;
const page = document.documentElement;
// a phone widens its page to what does not fit
if (innerWidth > width) faults.push(`the page is ${innerWidth} wide on a screen of ${width}`);
if (page.scrollWidth > innerWidth) faults.push(`the page is ${page.scrollWidth} wide`);
if (page.scrollHeight > innerHeight) faults.push(`the page is ${page.scrollHeight} high`);

const dialog = [...document.querySelectorAll("[role=dialog], [role=menu], [role=listbox]")].at(-1);
const root = dialog ?? document.body;
const scroller = (e) => {
  for (let up = e.parentElement; up && up !== page; up = up.parentElement) if (lookOf(up).scrolls) return up;
  return null;
};
// asked once for each element: a page of hundreds of controls shares its frames
const looks = new Map();
const lookOf = (e) => {
  let found = looks.get(e);
  if (!found) {
    const look = getComputedStyle(e);
    const plain = look.overflowX === "visible" && look.overflowY === "visible";
    found = { sticks: look.position === "sticky", scrolls: /auto|scroll/.test(look.overflowY + look.overflowX), frame: plain ? null : e.getBoundingClientRect() };
    looks.set(e, found);
  }
  return found;
};
/** Whether something stays in sight while what is around it scrolls. */
const stays = (e) => {
  for (let up = e; up && up !== page; up = up.parentElement) if (lookOf(up).sticks) return true;
  return false;
};
/** What is left of a box within all that clips it. */
const clipped = (e, box) => {
  const left = { left: box.left, top: box.top, right: box.right, bottom: box.bottom };
  for (let up = e.parentElement; up && up !== page; up = up.parentElement) {
    const { frame } = lookOf(up);
    if (!frame) continue;
    left.left = Math.max(left.left, frame.left);
    left.top = Math.max(left.top, frame.top);
    left.right = Math.min(left.right, frame.right);
    left.bottom = Math.min(left.bottom, frame.bottom);
  }
  return left;
};
// only tables may be wider than their frame
for (const frame of root.querySelectorAll(".scrolls"))
  if (frame.scrollWidth > frame.clientWidth + 1 && frame.clientWidth > 0 && frame.getAttribute("role") !== "grid" && !frame.querySelector("table, [data-wide]"))
    faults.push(`a frame is ${frame.scrollWidth - frame.clientWidth} px too narrow: ${name(frame)}`);

const seen = [];
for (const e of root.querySelectorAll("button, select, input, textarea, a[href], [role=slider], [role=option], h1, h2, [role=tab]")) {
  const box = e.getBoundingClientRect();
  const look = getComputedStyle(e);
  if (box.width < 2 || box.height < 2 || look.visibility === "hidden" || e.closest(".sr-only, .skip, [aria-hidden=true]")) continue;
  const frame = scroller(e);
  const clip = frame ? frame.getBoundingClientRect() : { left: 0, top: 0, right: innerWidth, bottom: innerHeight };
  const left = clipped(e, box);
  const table = frame && (frame.matches(".scrolls-x") || frame.getAttribute("role") === "grid" || frame.querySelector("table, [data-wide]"));
  if (!table && (box.left < clip.left - 1 || box.right > clip.right + 1)) faults.push(`${name(e)} is cut off: ${Math.round(box.left)} to ${Math.round(box.right)} in ${Math.round(clip.left)} to ${Math.round(clip.right)}`);
  if (!frame && (box.top < -1 || box.bottom > innerHeight + 1)) faults.push(`${name(e)} is above or below the page`);
  const interactive = !/^H\d$/.test(e.tagName);
  if (e.tagName === "BUTTON" && e.scrollWidth > e.clientWidth + 1 && !e.querySelector(".truncate") && look.overflowX !== "visible") faults.push(`${name(e)} holds more than it shows`);
  if (touch && interactive && !e.matches(".in-text, input[type=checkbox], input[type=file]") && (box.height < 43.5 || box.width < 30)) faults.push(`${name(e)} is ${Math.round(box.width)} x ${Math.round(box.height)}: too small for a finger`);
  // a pointer wants 24 px (WCAG 2.5.8); a box to tick has its row beside it
  if (!touch && interactive && !e.matches(".in-text, input[type=checkbox], input[type=file]") && Math.min(box.height, box.width) < 23.5) faults.push(`${name(e)} is ${Math.round(box.width)} x ${Math.round(box.height)}: too small for a pointer`);
  const x = (Math.max(left.left, 0) + Math.min(left.right, innerWidth)) / 2;
  const y = (Math.max(left.top, 0) + Math.min(left.bottom, innerHeight)) / 2;
  const inSight = Math.min(left.right, innerWidth) - Math.max(left.left, 0) > 6 && Math.min(left.bottom, innerHeight) - Math.max(left.top, 0) > 6;
  if (!inSight || e.disabled) continue;
  const top = document.elementFromPoint(x, y);
  if (top && top !== e && !e.contains(top) && !top.contains(e)) {
    // what stays in place over a table that scrolls beneath it covers nothing for good
    if (!table && !stays(top)) faults.push(`${name(e)} is covered by ${name(top)}`);
  }
  if (interactive) seen.push([e, left]);
}
for (let i = 0; i < seen.length; i++)
  for (let j = i + 1; j < seen.length; j++) {
    const [one, a] = seen[i];
    const [other, b] = seen[j];
    if (one.contains(other) || other.contains(one)) continue;
    // points of a curve lie where their values are; each has its row below the curve besides
    if (one.matches("[data-point]") && other.matches("[data-point]")) continue;
    if (stays(one) !== stays(other)) continue;
    if (Math.min(a.right, b.right) - Math.max(a.left, b.left) > 2 && Math.min(a.bottom, b.bottom) - Math.max(a.top, b.top) > 2 && !one.closest("[role=grid]"))
      faults.push(`${name(one)} lies over ${name(other)}`);
  }
return [...new Set(faults)].slice(0, 12);
