/** What the screen does by itself when it is found. */
import { showFileAddress, signOut } from "../../data/http";
import type { Link } from "../../data/link";
import { choose } from "../../data/settings";
import { store } from "../../data/show";
import type { FoundAnswer } from "../../data/types";
import { setSteps } from "../firstSteps";
import { foldWhy, hasWhy, isFolded } from "../why";

export type Here = NonNullable<FoundAnswer["here"]>;

/** What the frame can open for somebody. */
export interface Opens {
  keys: () => void;
  notices: () => void;
  newShow: () => void;
  openFile: () => void;
}

type Navigate = (to: string) => void;

export const doHere: Record<
  Here,
  (link: Link, opens: Opens, view: string, navigate: Navigate) => void
> = {
  undo: (link) => void link.undo(),
  redo: (link) => void link.redo(),
  keys: (_, opens) => opens.keys(),
  notices: (_, opens) => opens.notices(),
  new_show: (_, opens) => opens.newShow(),
  open_file: (_, opens) => opens.openFile(),
  save_file: () => {
    const show = store.getState().desk?.show.id;
    if (show) location.assign(showFileAddress(show));
  },
  copy_show: (_link, _opens, _view, navigate) => navigate("/shows"),
  sign_out: () => void signOut(),
  theme_dark: () => choose({ theme: "dusk" }),
  theme_light: () => choose({ theme: "daylight" }),
  theme_system: () => choose({ theme: "system" }),
  why: (_link, _opens, view) => hasWhy(view) && foldWhy(view, !isFolded(view)),
  first_steps: (_link, _opens, _view, navigate) => {
    const state = store.getState();
    if (state.desk) setSteps(state.desk.show.id, "begun");
    navigate(state.steps.every((step) => step.done) ? "/guide?part=First hour" : "/lines");
  },
};
