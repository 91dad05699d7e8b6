/** Requests to the API. A refusal throws an Error whose message is for people. */
import { newId } from "./id";
import type { Desk, ListReply, Me, Sample, Sheet, TakenReply } from "./types";

function csrf(): string {
  return /(?:^|; )csrftoken=([^;]*)/.exec(document.cookie)?.[1] ?? "";
}

async function reply<T>(request: Promise<Response>): Promise<T> {
  let response: Response;
  try {
    response = await request;
  } catch {
    throw new Error("The server cannot be reached. Nothing was changed; try again.");
  }
  if (response.status === 401) location.assign("/sign-in");
  if (!response.ok) {
    const body = (await response.json().catch(() => null)) as { message?: string } | null;
    throw new Error(body?.message ?? `The server answered ${response.status}. Nothing was changed.`);
  }
  return (await response.json()) as T;
}

function post<T>(path: string, fields: Record<string, string | Blob>): Promise<T> {
  const body = new FormData();
  for (const [name, value] of Object.entries(fields)) body.append(name, value);
  return reply(fetch(path, { method: "POST", body, headers: { "X-CSRFToken": csrf() } }));
}

export const makeShow = (name: string, desk: string): Promise<{ id: string }> =>
  reply(
    fetch("/api/shows", {
      method: "POST",
      body: JSON.stringify({ name, desk }),
      headers: { "X-CSRFToken": csrf(), "Content-Type": "application/json" },
    }),
  );

export const getSheets = (showId: string): Promise<Sheet[]> => reply(fetch(`/api/shows/${showId}/paper`));
export const paperAddress = (showId: string, name: string): string => `/api/shows/${showId}/paper/${name}`;
export const showFileAddress = (showId: string): string => `/api/shows/${showId}/file`;
export const openShowFile = (file: File): Promise<{ id: string }> => post("/api/shows/file", { file });

export const getMe = (): Promise<Me> => reply(fetch("/api/me"));
export const getDesk = (showId: string): Promise<Desk> => reply(fetch(`/api/shows/${showId}/desk`));
export const getSamples = (): Promise<Sample[]> => reply(fetch("/api/samples"));

export async function getSample(name: string): Promise<File> {
  const response = await fetch(`/api/samples/${name}`);
  return new File([await response.blob()], name);
}

export const previewList = (showId: string, file: File, columns: string): Promise<ListReply> =>
  post(`/api/shows/${showId}/input-list`, { file, columns });

export const takeList = (
  showId: string,
  file: File,
  columns: string,
  patch: boolean,
): Promise<TakenReply> =>
  post(`/api/shows/${showId}/input-list/take`, {
    file,
    columns,
    patch: String(patch),
    edit_id: newId(),
  });

export async function signOut(): Promise<void> {
  await fetch("/sign-out", { method: "POST", headers: { "X-CSRFToken": csrf() } });
  location.assign("/sign-in");
}
