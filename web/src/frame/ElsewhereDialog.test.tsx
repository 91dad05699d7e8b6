import { act, fireEvent, render, screen, waitFor } from "@testing-library/react";
import { beforeEach, expect, it, vi } from "vitest";
import { store } from "../data/show";
import { answers, choose, fetched, inPage, pretend } from "../testing/pretend";
import { ElsewhereDialog } from "./ElsewhereDialog";

const LOOK = {
  desk: "Small 24",
  boxes: [
    { key: "local", name: "Deck", to: "local" },
    { key: "a", name: "Stage box Harbour", to: "" },
  ],
  choices: [{ key: "local", name: "Deck" }],
  told: [
    { tone: "heard", says: "The mute group Late is closed: without it its members are open." },
    { tone: "aside", says: "Small 24 has 24 channels. Kept aside: channels 25-40 (Bell)." },
  ],
};
const lastBody = () => JSON.parse(String(fetched.mock.calls.at(-1)![1]?.body));

beforeEach(async () => {
  pretend({});
  answers.set("/elsewhere/look", LOOK);
  const me = store.getState().me!;
  act(() => store.setState({ me: { ...me, desks: [{ key: "small-24", name: "Small 24" }] } }));
  render(inPage(<ElsewhereDialog show={{ id: "s1", name: "Quay" }} open onOpenChange={vi.fn()} />));
  choose("The other desk", "Small 24");
  await waitFor(() => expect(screen.getByRole("list", { name: "What it means" })).toBeTruthy());
});

it("tells what a move means before it is made, and asks again for other boxes", async () => {
  expect(screen.getByText(/mute group Late is closed/)).toBeTruthy();
  choose("What Stage box Harbour is there", "Deck");
  // who had the box has none: two are never one
  await waitFor(() => expect(lastBody().boxes).toEqual({ local: "", a: "local" }));
});

it("names others who have it open before it is moved from under them", async () => {
  const named = { code: "show_open", message: "ben has it open." };
  fetched.mockImplementationOnce(() => Promise.resolve(Response.json(named, { status: 409 })));
  fireEvent.click(screen.getByRole("button", { name: "Move it there" }));
  await waitFor(() => expect(screen.getByText("ben has it open.")).toBeTruthy());
  expect(lastBody()).toMatchObject({ desk: "small-24", move: true, sure: false });
  fireEvent.click(screen.getByRole("button", { name: "Move it all the same" }));
  await waitFor(() => expect(lastBody()).toMatchObject({ move: true, sure: true }));
});
