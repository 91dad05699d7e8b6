import { act, fireEvent, screen } from "@testing-library/react";
import { beforeEach, expect, it } from "vitest";
import { received } from "../../data/show";
import type { CuesHere, CueTold, ToScreen } from "../../data/types";
import { asks, draw, pretend, sent, type, watched } from "../../testing/pretend";

const told = (id: number, more: Partial<CueTold> = {}): CueTold => ({
  id,
  at: "2026-12-02T20:14:03Z",
  way: "osc_udp",
  sender: "10.0.0.5",
  came: `/cue ${id}`,
  what: "done",
  says: `Scene ${id} recalled`,
  note: false,
  revision: id,
  undone: false,
  ms: 12.3,
  times: 1,
  ...more,
});
const here = (more: Partial<CuesHere> = {}): ToScreen => ({
  type: "cues",
  mode: "rehearse",
  by: "",
  since: "",
  once_ms: 200,
  ways: (["osc_udp", "osc_tcp", "midi_tcp"] as const).map((kind, n) => ({
    kind,
    on: n === 0,
    host: "0.0.0.0",
    port: 9200 + n,
    senders: "",
    answers: false,
    listens: n === 0,
    trouble: "",
  })),
  told: [],
  ...more,
});
const list: ToScreen = {
  type: "cue_list",
  cues: [
    { cue: "cue/1", comes: "/cue 1", does: "scene 1 Doors", kind: "scene", wrong: "" },
    { cue: "cue/2", comes: "/cue 2", does: "a scene that is gone", kind: "scene", wrong: "Gone." },
  ],
  sheet: "seconds,message,what it is for\n0.0,/cue 1,Scene 1\n",
  scenes_without: 3,
};

beforeEach(() => pretend({ "cue/1/comes": "/cue 1" }, here(), list));

it("lists what comes and what it does, changed in place, and what is wrong with it", () => {
  draw("/cues");
  expect(watched).toHaveBeenCalledWith({ cue_list: true });
  expect(screen.getByText("Gone.")).toBeTruthy();
  type("What /cue 1 does", "scene 4");
  expect(asks()).toEqual([{ action: "set_cue", cue: "cue/1", does: "scene 4" }]);
  fireEvent.click(screen.getByRole("button", { name: "Remove the cue /cue 2" }));
  expect(asks().at(-1)).toEqual({ action: "remove_cues", cues: ["cue/2"] });
  fireEvent.click(screen.getByRole("button", { name: "Cues for 3 scenes without" }));
  expect(asks().at(-1)).toEqual({ action: "cues_for_scenes", style: "osc" });
});

it("makes a cue of a message for which none waits", () => {
  draw("/cues");
  act(() => received(here({ told: [told(1, { what: "unknown", came: "/x 1", revision: null })] })));
  fireEvent.click(screen.getByRole("button", { name: "Take /x 1 as a cue" }));
  const field = screen.getByLabelText<HTMLInputElement>("What comes, and what it does");
  expect(field.value).toBe("/x 1 -> ");
  expect(document.activeElement).toBe(field);
  fireEvent.change(field, { target: { value: "/x 1 -> go" } });
  fireEvent.submit(field.form!);
  expect(asks().at(-1)).toEqual({ action: "add_cues", text: "/x 1 -> go", style: "osc" });
});

it("tells what became of each, and undoes what one did", () => {
  draw("/cues");
  act(() =>
    received(
      here({
        told: [told(4), told(3, { undone: true }), told(2, { what: "refused", revision: null })],
      }),
    ),
  );
  const rows = screen.getAllByRole("listitem").filter((row) => row.dataset.told);
  expect(rows.map((row) => row.dataset.told)).toEqual(["done", "done", "refused"]);
  expect(rows[0]!.textContent).toContain("OSC from 10.0.0.5, 12 ms, change 4");
  expect(rows[1]!.textContent).toContain("undone");
  fireEvent.click(screen.getByRole("button", { name: "Undo /cue 4" }));
  expect(sent.mock.calls.at(-1)).toEqual(["undoCue", 4]);
});

it("is armed by one press, and says by whom", () => {
  draw("/cues");
  fireEvent.click(screen.getByRole("radio", { name: "Armed" }));
  expect(sent.mock.calls.at(-1)).toEqual(["armCues", "armed"]);
  act(() => received(here({ mode: "armed", by: "engineer", since: "2026-12-02T20:00:00Z" })));
  expect(screen.getByText(/What comes is done/).textContent).toContain("engineer");
});

it("switches a way in with all that it has, and the port as it is typed", () => {
  draw("/cues/ways");
  fireEvent.click(screen.getByRole("button", { name: "listens: MIDI over TCP" }));
  expect(sent.mock.calls.at(-1)).toEqual([
    "setCueWay",
    { kind: "midi_tcp", on: true, host: "0.0.0.0", port: "9202", senders: "", answers: false },
  ]);
  type("Port of OSC over UDP", "80"); // the server says what is wrong with it
  expect(sent.mock.calls.at(-1)![1]).toMatchObject({ kind: "osc_udp", on: true, port: "80" });
  type("Who may send by OSC over UDP", "10.0.0.5");
  expect(sent.mock.calls.at(-1)![1]).toMatchObject({ kind: "osc_udp", senders: "10.0.0.5" });
});

it("has the machine play the sheet of the scenes", () => {
  draw("/cues/machine");
  expect(screen.getByText("No cue machine answers.")).toBeTruthy();
  fireEvent.click(screen.getByRole("button", { name: "Make the sheet from the scenes" }));
  fireEvent.click(screen.getByRole("button", { name: "Play the sheet" }));
  expect(sent.mock.calls.at(-1)).toEqual([
    "cueMachine",
    {
      do: "play",
      way: "osc_udp",
      sheet: "seconds,message,what it is for\n0.0,/cue 1,Scene 1\n",
      lose: 0,
      double: 0,
      swap: 0,
    },
  ]);
  act(() => received({ type: "machine", at_s: 1.24, sent: 1, lines: 1, last: "/cue 1" }));
  expect(screen.getByText("Playing, 1.2 s: 1 sent, last /cue 1")).toBeTruthy();
});

it("stands large on Run, with the last that came and a note until it was seen", () => {
  draw("/run");
  act(() =>
    received(
      here({
        mode: "armed",
        by: "engineer",
        since: "2026-12-02T20:00:00Z",
        told: [told(5), told(4, { note: true, says: "stand by", revision: null })],
      }),
    ),
  );
  expect(screen.getByText("Cues armed")).toBeTruthy();
  expect(screen.getByRole("status", { name: "Last cue" }).textContent).toContain("/cue 5");
  expect(screen.getByRole("alert").textContent).toContain("stand by");
  fireEvent.click(screen.getByRole("button", { name: "Seen" }));
  expect(screen.queryByRole("alert")).toBeNull();
});
