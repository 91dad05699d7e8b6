/**
 * Requests to the API, by the types that the server's description gives. A refusal throws an Error
 * whose message is for people.
 */
import createClient from "openapi-fetch";
import { numberOf } from "./address";
import type { paths } from "./generated/api";
import { newId } from "./id";
import type {
  Compared,
  Desk,
  Elsewhere,
  FittingsCompared,
  GivenTo,
  Habits,
  LastHand,
  ListChoices,
  Share,
} from "./types";

function csrf(): string {
  return /(?:^|; )csrftoken=([^;]*)/.exec(document.cookie)?.[1] ?? "";
}

const client = createClient<paths>({ fetch: (request) => fetch(request) });
client.use({
  onRequest({ request }) {
    if (request.method !== "GET") request.headers.set("X-CSRFToken", csrf());
    return request;
  },
  onError: () => new Error("The server cannot be reached. Nothing was changed; try again."),
});

interface Answer<T> {
  data?: T;
  error?: unknown;
  response: Response;
}

/** What the server answered; a refusal is thrown in its own words. */
async function answered<T>(request: Promise<Answer<T>>): Promise<T> {
  const { data, error, response } = await request;
  if (response.status === 401) location.assign("/sign-in");
  if (!response.ok) {
    const body = error as { message?: string; code?: string } | undefined;
    const says = body?.message ?? `The server answered ${response.status}. Nothing was changed.`;
    throw Object.assign(new Error(says), { code: body?.code ?? "" });
  }
  return data as T;
}

/** The client forgets how many a row of a list has (a pair, a triple); the description knows. */
const asTold = <T>(request: Promise<Answer<unknown>>): Promise<T> =>
  answered(request) as Promise<T>;

const of = (showId: string) => ({ show_id: showId });
const formOf = (body: object): FormData => {
  const form = new FormData();
  for (const [name, value] of Object.entries(body)) form.append(name, value);
  return form;
};

const aLink = (id: string) => ({ params: { path: of(id) } });
export const getLinks = (id: string) =>
  answered(client.GET("/api/shows/{show_id}/links", aLink(id)));
export const makeLink = (id: string, mixes: string[], who = "", days: number | null = null) =>
  answered(client.POST("/api/shows/{show_id}/links", { ...aLink(id), body: { mixes, who, days } }));
export const makeAllLinks = (id: string) =>
  answered(client.POST("/api/shows/{show_id}/links/all", aLink(id)));
export const renewLinks = (id: string, links: string[]) =>
  answered(client.POST("/api/shows/{show_id}/links/renew", { ...aLink(id), body: { links } }));
export const giveCodes = (id: string, links: string[]) =>
  answered(client.POST("/api/shows/{show_id}/links/codes", { ...aLink(id), body: { links } }));
/** The last gesture of a link's phones, back or made again; nobody else's move goes with it. */
export const turnPhone = (id: string, link: string, turn: "undo" | "redo") =>
  answered(
    client.POST("/api/shows/{show_id}/links/{link_id}/{turn}", {
      params: { path: { ...of(id), link_id: link, turn } },
    }),
  );
export const endLinks = (id: string, links: string[]) =>
  answered(client.POST("/api/shows/{show_id}/links/end", { ...aLink(id), body: { links } }));

export const getCrew = (id: string) =>
  answered(client.GET("/api/shows/{show_id}/people", { params: { path: of(id) } }));
export const shareWith = (id: string, name: string, role: Share["role"]) =>
  answered(
    client.POST("/api/shows/{show_id}/people", { params: { path: of(id) }, body: { name, role } }),
  );
const aShare = (id: string, share: number) => ({
  params: { path: { ...of(id), share_id: share } },
});
export const setRole = (id: string, share: number, role: Share["role"]) =>
  answered(
    client.PATCH("/api/shows/{show_id}/people/{share_id}", {
      ...aShare(id, share),
      body: { role },
    }),
  );
export const unshare = (id: string, share: number) =>
  answered(client.DELETE("/api/shows/{show_id}/people/{share_id}", aShare(id, share)));
export const giveTo = (id: string, share: number, given: GivenTo) =>
  answered(
    client.POST("/api/shows/{show_id}/people/{share_id}/given", {
      ...aShare(id, share),
      body: given,
    }),
  );
export const takeBack = (id: string, share: number, what: string) =>
  answered(
    client.DELETE("/api/shows/{show_id}/people/{share_id}/given", {
      params: { ...aShare(id, share).params, query: { what } },
    }),
  );
export const giveShowAway = (id: string, name: string) =>
  answered(client.POST("/api/shows/{show_id}/owner", { params: { path: of(id) }, body: { name } }));

export const getAccounts = () => answered(client.GET("/api/accounts"));
export const makeAccount = (name: string, password: string, administrator: boolean) =>
  answered(client.POST("/api/accounts", { body: { name, password, administrator } }));
const anAccount = (id: number) => ({ params: { path: { account_id: id } } });
export const changeAccount = (id: number, change: { is_open?: boolean; administrator?: boolean }) =>
  answered(client.PATCH("/api/accounts/{account_id}", { ...anAccount(id), body: change }));
export const givePassword = (id: number, password: string) =>
  answered(
    client.POST("/api/accounts/{account_id}/password", { ...anAccount(id), body: { password } }),
  );
export const unlockAccount = (id: number) =>
  answered(client.POST("/api/accounts/{account_id}/unlock", anAccount(id)));
export const signOutAccount = (id: number) =>
  answered(client.POST("/api/accounts/{account_id}/sign-out", anAccount(id)));
export const handOverAccount = (id: number, name: string) =>
  answered(
    client.POST("/api/accounts/{account_id}/hand-over", { ...anAccount(id), body: { name } }),
  );

export const getBackups = () => answered(client.GET("/api/backups"));
export const makeBackup = () => answered(client.POST("/api/backups"));

export const getVisits = () => answered(client.GET("/api/me/visits"));
export const endVisit = (id: string) =>
  answered(client.DELETE("/api/me/visits/{visit_id}", { params: { path: { visit_id: id } } }));
export const endOtherVisits = () => answered(client.DELETE("/api/me/visits"));
export const changePassword = (old: string, another: string) =>
  answered(client.POST("/api/me/password", { body: { old, new: another } }));

export const getShows = () => answered(client.GET("/api/shows"));
export const renameShow = (id: string, name: string) =>
  answered(client.PATCH("/api/shows/{show_id}", { params: { path: of(id) }, body: { name } }));
export const copyShow = (id: string) =>
  answered(client.POST("/api/shows/{show_id}/copy", { params: { path: of(id) } }));
export const removeShow = (id: string, sure: boolean) =>
  answered(client.DELETE("/api/shows/{show_id}", { params: { path: of(id), query: { sure } } }));
type There = Elsewhere;
export const lookElsewhere = (id: string, there: There) =>
  answered(
    client.POST("/api/shows/{show_id}/elsewhere/look", { params: { path: of(id) }, body: there }),
  );
export const takeElsewhere = (id: string, there: There & { move: boolean; sure: boolean }) =>
  answered(
    client.POST("/api/shows/{show_id}/elsewhere", { params: { path: of(id) }, body: there }),
  );
/** Why a show was not removed: others have it open, and are named. */
export const isOpen = (error: unknown): error is Error =>
  error instanceof Error && "code" in error && error.code === "show_open";
export const bringBackShow = (id: string) =>
  answered(client.POST("/api/shows/{show_id}/back", { params: { path: of(id) } }));
export const makeShow = (name: string, desk: string) =>
  answered(client.POST("/api/shows", { body: { name, desk } }));

type Wanted = NonNullable<paths["/api/shows/{show_id}/history"]["get"]["parameters"]["query"]>;
export const getHistory = (showId: string, query: Wanted) =>
  answered(client.GET("/api/shows/{show_id}/history", { params: { path: of(showId), query } }));
export const keepPoint = (showId: string, name: string, revision: number) =>
  answered(
    client.POST("/api/shows/{show_id}/points", {
      params: { path: of(showId) },
      body: { name, revision },
    }),
  );
export const forgetPoint = (showId: string, point: number) =>
  answered(
    client.DELETE("/api/shows/{show_id}/points/{point_id}", {
      params: { path: { ...of(showId), point_id: point } },
    }),
  );
export const comparePoints = (
  showId: string,
  was: number,
  now: number | null,
  about: string,
): Promise<Compared> =>
  asTold(
    client.GET("/api/shows/{show_id}/compared", {
      params: {
        path: of(showId),
        query: { was, of: about, ...(now === null ? {} : { now }) },
      },
    }),
  );
export const lastHand = (showId: string, address: string): Promise<LastHand> =>
  asTold(
    client.GET("/api/shows/{show_id}/last", { params: { path: of(showId), query: { address } } }),
  );
export const compareScenes = (showId: string, one: string, other: string) =>
  answered(
    client.GET("/api/shows/{show_id}/scenes/compared", {
      params: { path: of(showId), query: { one: numberOf(one), other: numberOf(other) } },
    }),
  );
export const compareFittings = (
  showId: string,
  one: number,
  other: number,
): Promise<FittingsCompared> =>
  asTold(
    client.GET("/api/shows/{show_id}/fittings/compared", {
      params: { path: of(showId), query: { one, other } },
    }),
  );

export const beginPdf = (showId: string, key: string) =>
  answered(
    client.POST("/api/shows/{show_id}/paper/{key}/pdf", {
      params: { path: { ...of(showId), key } },
    }),
  );
export const pdfJob = (showId: string, job: string) =>
  answered(
    client.GET("/api/shows/{show_id}/pdf/{job_id}", {
      params: { path: { ...of(showId), job_id: job } },
    }),
  );
export const stopPdf = (showId: string, job: string) =>
  answered(
    client.DELETE("/api/shows/{show_id}/pdf/{job_id}", {
      params: { path: { ...of(showId), job_id: job } },
    }),
  );
export const pdfAddress = (showId: string, job: string): string =>
  `/api/shows/${showId}/pdf/${job}/file`;

/** All sheets; with `only` the rows of that one, and of the others the titles. */
export const getSheets = (showId: string, only = "") =>
  answered(
    client.GET("/api/shows/{show_id}/paper", {
      params: { path: of(showId), query: only ? { only } : {} },
    }),
  );
export const paperAddress = (showId: string, name: string): string =>
  `/api/shows/${showId}/paper/${name}`;
export const showFileAddress = (showId: string): string => `/api/shows/${showId}/file`;
/** Open a show file as a new show; `opening`: the name by which it is asked how far it is. */
export const openShowFile = (file: File, opening: string) =>
  answered(
    client.POST("/api/shows/file", {
      params: { query: { opening } },
      body: { file: file as unknown as string }, // a file is text to OpenAPI
      bodySerializer: formOf,
    }),
  );
export const openingOf = (opening: string) =>
  answered(
    client.GET("/api/shows/opening/{opening_id}", { params: { path: { opening_id: opening } } }),
  );
export const stopOpening = (opening: string) =>
  answered(
    client.DELETE("/api/shows/opening/{opening_id}", {
      params: { path: { opening_id: opening } },
    }),
  );

export const getMe = () => answered(client.GET("/api/me"));
export const keepHabits = (some: Partial<Habits>) =>
  answered(client.PATCH("/api/me/habits", { body: some as Habits })); // what is not named stays
export const getDesk = (showId: string): Promise<Desk> =>
  asTold(client.GET("/api/shows/{show_id}/desk", { params: { path: of(showId) } }));
export const getSamples = () => answered(client.GET("/api/samples"));

export async function getSample(name: string): Promise<File> {
  const found = await answered(
    client.GET("/api/samples/{name}", { params: { path: { name } }, parseAs: "blob" }),
  );
  return new File([found as Blob], name);
}

export const bringList = (showId: string, file: File) =>
  answered(
    client.POST("/api/shows/{show_id}/lists", {
      params: { path: of(showId) },
      body: { file: file as unknown as string },
      bodySerializer: formOf,
    }),
  );
export const lookAtList = (showId: string, list: string, choices: ListChoices) =>
  answered(
    client.POST("/api/shows/{show_id}/lists/{file_id}", {
      params: { path: { ...of(showId), file_id: list } },
      body: choices,
    }),
  );
export const takeList = (showId: string, list: string, choices: ListChoices, shown: string) =>
  answered(
    client.POST("/api/shows/{show_id}/lists/{file_id}/take", {
      params: { path: { ...of(showId), file_id: list } },
      body: { edit_id: newId(), choices, shown },
    }),
  );

export async function signOut(): Promise<void> {
  await fetch("/sign-out", { method: "POST", headers: { "X-CSRFToken": csrf() } });
  location.assign("/sign-in");
}
