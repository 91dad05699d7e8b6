import { useEffect, useEffectEvent, useMemo, useRef, useState } from "react";
import { useLocation } from "wouter";
import { inWords, isOf, numberOf } from "../data/address";
import type { Link } from "../data/link";
import { sceneText } from "../data/scenes";
import { folded, hasWords } from "../data/search";
import { store, valueIn } from "../data/show";
import { select, socketName, stripName, useLink, useShow } from "../data/use";
import { Dialog } from "../ui/Dialog";
import { pageOf } from "../views/mixes/addresses";
import { commands } from "./commands";
import { isNear } from "./near";
import { VIEW_WORD } from "./places";

interface Hit {
  key: string;
  name: string;
  about: string;
  go: (navigate: (to: string) => void) => void;
}

/** Everything with a name, as it stands when the search is opened. */
function everything(link: Link): Hit[] {
  const state = store.getState();
  const channels = state.channels.map((number): Hit => {
    const source = valueIn(state, `channel/${number}/source`) as string | null;
    return {
      key: `channel/${number}`,
      name: stripName(state, `channel/${number}`),
      about: `channel ${number} ${socketName(state, source)}`,
      go: (navigate) => {
        select(`channel/${number}`);
        navigate("/hears");
      },
    };
  });
  const returns = state.returns.map((number): Hit => {
    const strip = `return/${number}`;
    return {
      key: strip,
      name: stripName(state, strip),
      about: inWords(strip),
      go: (navigate) => {
        select(strip);
        navigate(`/mixes/${pageOf(strip)}`);
      },
    };
  });
  const buses = [
    "house",
    "mono",
    ...state.mixes.map((number) => `mix/${number}`),
    ...state.groups.map((number) => `group/${number}`),
    ...state.matrices.map((number) => `matrix/${number}`),
  ];
  const listeners = buses.map(
    (listener): Hit => ({
      key: listener,
      name: stripName(state, listener),
      about: inWords(listener),
      go: (navigate) => {
        select(null, listener);
        navigate(`/mixes/${pageOf(listener)}`);
      },
    }),
  );
  const lines = state.lines.map(
    (number): Hit => ({
      key: `line/${number}`,
      name: String(valueIn(state, `line/${number}/name`)),
      about: `line ${valueIn(state, `line/${number}/performer`)}`.trim(),
      go: (navigate) => {
        navigate(`/lines?line=${number}`);
      },
    }),
  );
  const rulers = [
    ...state.dcas.map((number) => ["dca", number, "DCA", "dcas"] as const),
    ...state.mute_groups.map((number) => ["mute_group", number, "mute group", "mutes"] as const),
    ...state.gangs.map((number) => ["gang", number, "gang", "gangs"] as const),
  ].map(
    ([kind, number, word, view]): Hit => ({
      key: `${kind}/${number}`,
      name: stripName(state, `${kind}/${number}`),
      about: `${word} ${number}`,
      go: (navigate) => navigate(`/${view}/${number}`),
    }),
  );
  const banks = state.banks.map(
    (number): Hit => ({
      key: `bank/${number}`,
      name: stripName(state, `bank/${number}`),
      about: `bank ${number}`,
      go: (navigate) => navigate(`/banks?bank=${number}`),
    }),
  );
  const scenes = state.scene_ids.map(
    (scene): Hit => ({
      key: scene,
      name: sceneText(state, scene),
      about: "scene",
      go: (navigate) => navigate(`/scenes/${numberOf(scene)}`),
    }),
  );
  const parts = [...state.parts].map(
    (part): Hit => ({
      key: part,
      name: stripName(state, part),
      about: "part",
      go: (navigate) => navigate("/cast"),
    }),
  );
  const promises = state.promises.map(
    (number): Hit => ({
      key: `promise/${number}`,
      name: stripName(state, `promise/${number}`),
      about: `promise ${number}`,
      go: (navigate) => navigate("/wrong/promises"),
    }),
  );
  const views = Object.entries(VIEW_WORD).map(
    ([view, word]): Hit => ({
      key: `view ${view}`,
      name: word,
      about: "view",
      go: (navigate) => navigate(`/${view}`),
    }),
  );
  const done = commands(state, link).map((one): Hit => ({ ...one, about: "command" }));
  const strips = [...channels, ...returns, ...listeners];
  const rest = [...parts, ...promises, ...views, ...done];
  return [...strips, ...rulers, ...banks, ...scenes, ...lines, ...rest];
}

/** Find anything by typing; Enter goes to the first. A channel's gain is then in hand. */
export function Find({
  open,
  onOpenChange,
}: {
  open: boolean;
  onOpenChange: (open: boolean) => void;
}) {
  const gone = useRef<string | null>(null);
  const takeSource = useSourceInHand();
  const onClosed = () => {
    const hit = gone.current;
    gone.current = null;
    if (isOf(hit, "channel")) takeSource();
    return hit !== null;
  };
  return (
    <Dialog title="Find" open={open} onOpenChange={onOpenChange} onClosed={onClosed}>
      {open && (
        <Search
          onDone={(hit) => {
            gone.current = hit;
            onOpenChange(false);
          }}
        />
      )}
    </Dialog>
  );
}

const textOf = (hit: Hit): string => `${hit.name} ${hit.about}`;

/**
 * Puts the first of the selected source's own fields, which stand over Why, into the hand. They may be
 * drawn only after the dialog is gone, or drawn anew: until a hand is somewhere else it is tried again
 * for a moment, and no longer than this page stands.
 */
function useSourceInHand(): () => void {
  const tries = useRef<ReturnType<typeof setTimeout>[] | null>(null);
  useEffect(() => {
    tries.current = [];
    return () => {
      tries.current?.forEach(clearTimeout);
      tries.current = null;
    };
  }, []);
  const focus = () => {
    const there = document.activeElement;
    if (there && there !== document.body && there.id !== "work") return;
    document.querySelector<HTMLInputElement>("[data-source-fields] input")?.focus();
  };
  return () => {
    if (!tries.current) return;
    tries.current.forEach(clearTimeout);
    tries.current = [0, 60, 200, 500, 1000, 2000].map((afterMs) => setTimeout(focus, afterMs));
  };
}

function Search({ onDone }: { onDone: (hit: string) => void }) {
  const [text, setText] = useState("");
  const [at, setAt] = useState(0);
  const [, navigate] = useLocation();
  const link = useLink();
  // found again when something was named meanwhile, or the show has only just come
  const patched = useShow((state) => state.patched);
  const all = useMemo(() => everything(link), [patched, link]);
  const wanted = folded(text).split(/\s+/).filter(Boolean);
  const said = hasWords(text);
  const exact = all.filter((hit) => said(textOf(hit)));
  // a small slip of the hand finds what was meant, where nothing is called as typed
  const hits = (
    exact.length > 0
      ? exact
      : all.filter((hit) => wanted.every((word) => isNear(word, folded(textOf(hit)))))
  ).slice(0, 10);
  const go = (hit: Hit | undefined) => {
    if (!hit) return;
    hit.go(navigate);
    onDone(hit.key);
  };
  // Enter before the show has come is kept: it goes where it would have gone
  const here = useShow((state) => state.revision !== null);
  const [early, setEarly] = useState(false);
  const goEarly = useEffectEvent(() => go(hits[0]));
  useEffect(() => {
    if (early && here) goEarly();
  }, [early, here]);
  return (
    <>
      <input
        autoFocus
        aria-label="Find by name or number"
        placeholder="A name, a number, a socket…"
        className="mt-3 h-11 px-3 rounded-xl border border-edge bg-card"
        value={text}
        onChange={(event) => {
          setText(event.currentTarget.value);
          setAt(0);
          setEarly(false);
        }}
        onKeyDown={(event) => {
          if (event.key === "Enter" && here) go(hits[at]);
          else if (event.key === "Enter") setEarly(true);
          if (event.key === "ArrowDown") setAt(Math.min(at + 1, hits.length - 1));
          if (event.key === "ArrowUp") setAt(Math.max(at - 1, 0));
        }}
      />
      <ul className="mt-2 flex flex-col" aria-label="Found">
        {hits.map((hit, index) => (
          <li key={hit.key}>
            <button
              type="button"
              onClick={() => go(hit)}
              className={`w-full flex justify-between gap-3 px-3 h-9 items-center rounded-lg cursor-pointer ${index === at ? "bg-raise" : "hover:bg-card"}`}
            >
              <span className="truncate">{hit.name}</span>
              <span className="text-faint whitespace-nowrap">{hit.about}</span>
            </button>
          </li>
        ))}
        {hits.length === 0 && <li className="px-3 py-2 text-soft">Nothing is called that.</li>}
      </ul>
    </>
  );
}
