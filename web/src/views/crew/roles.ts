import type { Role } from "../../data/types";

/** What each role is called. */
export const ROLES: Readonly<Record<Role, string>> = {
  owner: "Owner",
  engineer: "Engineer",
  assistant: "Assistant",
  volunteer: "Volunteer",
  onlooker: "Onlooker",
};

/** What each role may do, in a line. */
export const MAY: Readonly<Record<Exclude<Role, "owner">, string>> = {
  engineer: "All that is in the show.",
  assistant: "Line check, who came, notes and paper. No patching, no recall.",
  volunteer: "The faders, mutes and lifts given below, on a page of their own.",
  onlooker: "Looks, and changes nothing.",
};
