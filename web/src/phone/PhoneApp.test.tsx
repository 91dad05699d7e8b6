/** How a phone's page opens without a link at hand. */
import { cleanup, fireEvent, render, screen, waitFor } from "@testing-library/react";
import { afterEach, beforeEach, expect, it, vi } from "vitest";
import { PhoneApp } from "./PhoneApp";

const asked: [string, unknown][] = [];
let answers: Record<string, [number, unknown]>;

beforeEach(() => {
  asked.length = 0;
  localStorage.clear();
  vi.stubGlobal("fetch", (path: string, how?: RequestInit) => {
    asked.push([path, how?.body ? JSON.parse(how.body as string) : null]);
    const [status, body] = answers[path]!;
    return Promise.resolve(new Response(JSON.stringify(body), { status }));
  });
});
afterEach(() => {
  cleanup();
  vi.unstubAllGlobals();
});

it("lets who has a code pick their name, and says what is wrong with it", async () => {
  answers = {
    "/mine/names": [200, { names: ["Aoife", "Bo"] }],
    "/mine/enter": [403, { message: "That is not the code for this name." }],
  };
  render(<PhoneApp />);
  fireEvent.change(await screen.findByLabelText("Your name"), { target: { value: "Bo" } });
  const code = screen.getByLabelText<HTMLInputElement>("The code from the desk");
  fireEvent.change(code, { target: { value: "012 345" } });
  fireEvent.click(screen.getByText("Open"));
  expect((await screen.findByRole("alert")).textContent).toContain("not the code");
  expect(asked.at(-1)).toEqual(["/mine/enter", { name: "Bo", code: "012345" }]);
  expect(code.value).toBe("");
});

it("tells nobody's name where no code stands", async () => {
  answers = { "/mine/names": [200, { names: [] }] };
  render(<PhoneApp />);
  await waitFor(() => screen.getByText("Open the link that the desk gave you", { exact: false }));
});
