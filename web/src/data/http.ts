/** Requests to the API. A refusal throws an Error whose message is for people. */
import { numberOf } from "./address";
import { newId } from "./id";
import type {
  Compared,
  Desk,
  FittingsCompared,
  History,
  ListChoices,
  ListReply,
  Me,
  Opening,
  PdfJob,
  Point,
  Sample,
  ScenesCompared,
  Sheet,
  ShowCard,
  TakenReply,
} from "./types";

function csrf(): string {
  return /(?:^|; )csrftoken=([^;]*)/.exec(document.cookie)?.[1] ?? "";
}

async function answered(request: Promise<Response>): Promise<Response> {
  let response: Response;
  try {
    response = await request;
  } catch {
    throw new Error("The server cannot be reached. Nothing was changed; try again.");
  }
  if (response.status === 401) location.assign("/sign-in");
  if (!response.ok) {
    const body = (await response.json().catch(() => null)) as {
      message?: string;
      code?: string;
    } | null;
    const says = body?.message ?? `The server answered ${response.status}. Nothing was changed.`;
    throw Object.assign(new Error(says), { code: body?.code ?? "" });
  }
  return response;
}

async function reply<T>(request: Promise<Response>): Promise<T> {
  return (await (await answered(request)).json()) as T;
}

function post<T>(path: string, fields: Record<string, string | Blob>): Promise<T> {
  const body = new FormData();
  for (const [name, value] of Object.entries(fields)) body.append(name, value);
  return reply(fetch(path, { method: "POST", body, headers: { "X-CSRFToken": csrf() } }));
}

function send<T>(path: string, body: object = {}, method = "POST"): Promise<T> {
  const headers = { "X-CSRFToken": csrf(), "Content-Type": "application/json" };
  return reply(fetch(path, { method, body: JSON.stringify(body), headers }));
}

export const getShows = (): Promise<ShowCard[]> => reply(fetch("/api/shows"));
export const renameShow = (id: string, name: string): Promise<unknown> =>
  send(`/api/shows/${id}`, { name }, "PATCH");
export const copyShow = (id: string): Promise<{ id: string; name: string }> =>
  send(`/api/shows/${id}/copy`);
export const removeShow = (id: string, sure: boolean): Promise<unknown> =>
  send(`/api/shows/${id}${sure ? "?sure=true" : ""}`, {}, "DELETE");
/** Why a show was not removed: others have it open, and are named. */
export const isOpen = (error: unknown): error is Error =>
  error instanceof Error && "code" in error && error.code === "show_open";
export const bringBackShow = (id: string): Promise<unknown> => send(`/api/shows/${id}/back`);

export const getHistory = (showId: string, wanted: Record<string, string>): Promise<History> =>
  reply(fetch(`/api/shows/${showId}/history?${new URLSearchParams(wanted)}`));
export const keepPoint = (showId: string, name: string, revision: number): Promise<Point> =>
  send(`/api/shows/${showId}/points`, { name, revision });
export const forgetPoint = (showId: string, point: number): Promise<unknown> =>
  send(`/api/shows/${showId}/points/${point}`, {}, "DELETE");
export const comparePoints = (showId: string, was: number, now: number | null): Promise<Compared> =>
  reply(fetch(`/api/shows/${showId}/compared?was=${was}${now === null ? "" : `&now=${now}`}`));

export const compareScenes = (
  showId: string,
  one: string,
  other: string,
): Promise<ScenesCompared> =>
  reply(
    fetch(`/api/shows/${showId}/scenes/compared?one=${numberOf(one)}&other=${numberOf(other)}`),
  );

export const makeShow = (name: string, desk: string): Promise<{ id: string }> =>
  send("/api/shows", { name, desk });

export const beginPdf = (showId: string, key: string): Promise<PdfJob> =>
  send(`/api/shows/${showId}/paper/${key}/pdf`);
export const pdfJob = (showId: string, job: string): Promise<PdfJob> =>
  reply(fetch(`/api/shows/${showId}/pdf/${job}`));
export const pdfAddress = (showId: string, job: string): string =>
  `/api/shows/${showId}/pdf/${job}/file`;

/** All sheets; with `only` the rows of that one, and of the others the titles. */
export const getSheets = (showId: string, only = ""): Promise<Sheet[]> =>
  reply(fetch(`/api/shows/${showId}/paper${only && `?only=${only}`}`));
export const paperAddress = (showId: string, name: string): string =>
  `/api/shows/${showId}/paper/${name}`;
export const showFileAddress = (showId: string): string => `/api/shows/${showId}/file`;
/** Open a show file as a new show; `opening`: the name by which it is asked how far it is. */
export const openShowFile = (file: File, opening: string): Promise<{ id: string }> =>
  post(`/api/shows/file?opening=${opening}`, { file });
export const openingOf = (opening: string): Promise<Opening | null> =>
  reply(fetch(`/api/shows/opening/${opening}`));
export const stopOpening = (opening: string): Promise<unknown> =>
  send(`/api/shows/opening/${opening}`, {}, "DELETE");

export const getMe = (): Promise<Me> => reply(fetch("/api/me"));
export const compareFittings = (
  showId: string,
  one: string,
  other: string,
): Promise<FittingsCompared> =>
  reply(fetch(`/api/shows/${showId}/fittings/compared?one=${one}&other=${other}`));
export const getDesk = (showId: string): Promise<Desk> => reply(fetch(`/api/shows/${showId}/desk`));
export const getSamples = (): Promise<Sample[]> => reply(fetch("/api/samples"));

export async function getSample(name: string): Promise<File> {
  const response = await answered(fetch(`/api/samples/${name}`));
  return new File([await response.blob()], name);
}

export const bringList = (showId: string, file: File): Promise<ListReply> =>
  post(`/api/shows/${showId}/lists`, { file });

export const lookAtList = (
  showId: string,
  list: string,
  choices: ListChoices,
): Promise<ListReply> => send(`/api/shows/${showId}/lists/${list}`, choices);

export const takeList = (
  showId: string,
  list: string,
  choices: ListChoices,
  shown: string,
): Promise<TakenReply> =>
  send(`/api/shows/${showId}/lists/${list}/take`, { edit_id: newId(), choices, shown });

export async function signOut(): Promise<void> {
  await fetch("/sign-out", { method: "POST", headers: { "X-CSRFToken": csrf() } });
  location.assign("/sign-in");
}
