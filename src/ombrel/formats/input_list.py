"""An input list as a band sends it, read row by row into drafts of lines.

What a heading means, and what a microphone's name says of the kind of line, are guesses; so every
row tells what it became, and a person can put each column right before anything is taken.
"""

import re
from collections.abc import Sequence
from dataclasses import dataclass, field, replace
from typing import Final, Literal, get_args

from ombrel.core import (
    ConsoleError,
    LineDraft,
    Show,
    draft_fault,
    lines_on,
    read_numbers,
    read_sockets,
    socket_name,
)

from .tables import Table

__all__ = ["ROLES", "Columns", "Role", "Row", "read_rows", "recognised"]

Role = Literal[
    "ignore",
    "number",
    "name",
    "microphone",
    "kind",
    "socket",
    "performer",
    "where",
    "stand",
    "phantom",
    "stereo",
    "level",
    "notes",
]
ROLES: Final[tuple[Role, ...]] = get_args(Role)

_HEADINGS: Final[dict[Role, str]] = {
    "number": "#|no|nr|num|number|ch|chan|channel|channels|input|inputs|in|line|kanal|voie|pos nr",
    "name": "name|instrument|source|what|description|signal|item|input name|channel name|quelle|"
    "instruments|instrument name|line name",
    "microphone": "mic|mics|microphone|mic di|mic or di|di mic|di|mikrofon|mic type|pickup|micro",
    "kind": "kind|type|typ|signal type",
    "socket": "socket|box|stage box|stagebox|snake|patch|multi|multicore|sub snake|stage input",
    "performer": "performer|player|musician|who|artist|person|musiker|band member|used by",
    "where": "position|place|stage position|location|where|riser|area|stage",
    "stand": "stand|stands|stativ|mic stand|stand type|clip|pied",
    "phantom": "48v|48|p48|phantom|phantom power|power|needs 48 v|48 v|phantompower",
    "stereo": "stereo|st|width|mono stereo|m s|stereo mono",
    "level": "level|dbu|nominal level|level dbu|expected level",
    "notes": "notes|note|comment|comments|remarks|remark|info|bemerkung|bemerkungen",
}
_ROLE_OF: Final = {word: role for role, words in _HEADINGS.items() for word in words.split("|")}
_YES: Final = {"yes", "y", "x", "on", "true", "1", "48", "48v", "+48", "+48v", "48 v", "ja", "oui",
               "needed", "\u2713", "\u2714", "phantom"}  # fmt: skip
_KIND_WORDS: Final = (
    ("talkback", r"talk ?back|\btb\b|shout"),
    ("playback", r"playback|laptop|tracks?\b|click|guide|samples?\b"),
    ("radio", r"radio|wireless|head ?set|belt ?pack|hand ?held"),
    ("di_active", r"active di\b|di active|\bactive\b"),
    ("di_passive", r"\bdi\b|passive"),
    ("condenser", r"condenser|\bcond\b|overhead|\boh\b|pencil|\bclip\b|large diaphragm"),
    ("line", r"\bline\b|\bxlr\b|\bjack\b|preamp out"),
)
_SIDES: Final = re.compile(
    r"^(?P<base>.+?)[\s,(_-]+(?P<side>l|r|left|right)\)?$", flags=re.IGNORECASE
)
_BOTH: Final = re.compile(
    r"[\s,(_-]+(?:l\s*[/+&-]?\s*r|stereo|st\.?|left\s*[/+&]\s*right)\)?$", flags=re.IGNORECASE
)


@dataclass(frozen=True, slots=True)
class Columns:
    """What each column is, and the index of the row with the headings (None: there is none)."""

    roles: tuple[Role, ...]
    heading: int | None


@dataclass(frozen=True, slots=True, kw_only=True)
class Row:
    """One row of the file (`number` from 1) and what becomes of it.

    `problem`: why it cannot be taken; else `says` tells what it becomes; `drafts` may be empty.
    """

    number: int
    cells: tuple[str, ...]
    says: str
    problem: str | None = None
    drafts: tuple[LineDraft, ...] = field(default=())


def _plain(heading: str) -> str:
    words = re.sub(r"[^\w#]+", " ", heading.lower().replace("+", ""))
    return " ".join(words.split())


def recognised(table: Table) -> Columns:
    """The headings of a table, looked for in its first rows; without any, columns by content."""
    best: tuple[int, int, tuple[Role, ...]] | None = None
    for index, row in enumerate(table.rows[:12]):
        roles = _distinct([_ROLE_OF.get(_plain(cell), "ignore") for cell in row])
        known = sum(role != "ignore" for role in roles)
        if known >= 2 and "name" in roles and (best is None or known > best[0]):
            best = known, index, roles
    if best is not None:
        return Columns(best[2], best[1])
    return Columns(_by_content(table), None)


def _distinct(roles: Sequence[Role]) -> tuple[Role, ...]:
    """Each role once: of two columns with one meaning the first is taken."""
    seen: set[Role] = set()
    found: list[Role] = []
    for role in roles:
        found.append("ignore" if role in seen else role)
        seen.add(role)
    return tuple(found)


def _by_content(table: Table) -> tuple[Role, ...]:
    roles: list[Role] = []
    for column in range(len(table.rows[0])):
        cells = [row[column] for row in table.rows if row[column]]
        numeric = sum(bool(re.fullmatch(r"\d+(\s*[-/+&]\s*\d+)?", cell)) for cell in cells)
        if cells and numeric > len(cells) / 2:
            roles.append("number")
        elif cells and "name" not in roles:
            roles.append("name")
        elif cells and "microphone" not in roles:
            roles.append("microphone")
        else:
            roles.append("notes" if cells and "notes" not in roles else "ignore")
    return _distinct(roles)


def read_rows(show: Show, table: Table, columns: Columns) -> list[Row]:
    """Every row of the table and what becomes of it in this show. Nothing is changed.

    A range of inputs ("1-4") gives that many lines; a pair that says so gives one stereo line, and
    so do two rows that end in L and R.
    """
    rows: list[Row] = []
    for index, cells in enumerate(table.rows):
        number = index + 1
        if not any(cells):
            continue
        if columns.heading is not None and index <= columns.heading:
            said = "the headings" if index == columns.heading else "above the headings: left out"
            rows.append(Row(number=number, cells=cells, says=said))
            continue
        rows.append(_read_row(show, number, cells, columns.roles))
    return _checked(show, _paired(rows))


def _read_row(show: Show, number: int, cells: tuple[str, ...], roles: tuple[Role, ...]) -> Row:
    found: dict[Role, str] = dict(zip(roles, cells, strict=False))
    found.pop("ignore", None)
    name = found.get("name", "")
    others = [cell for role, cell in found.items() if role != "name" and cell]
    if not name:
        problem = "it has no name" if others else None
        return Row(number=number, cells=cells, says="nothing to take", problem=problem)
    if "number" in found and not others:
        return Row(number=number, cells=cells, says="a heading within the list: left out")
    try:
        inputs = _inputs(found.get("number", ""))
        sockets = _sockets(show, found.get("socket", ""))
        level_dbu = _level(found.get("level", ""))
    except ConsoleError as fault:
        return Row(number=number, cells=cells, says="", problem=str(fault))
    stereo = bool(_BOTH.search(name)) or _plain(found.get("stereo", "")) in {*_YES, "stereo", "st"}
    count = max(len(inputs), len(sockets), 1)
    if inputs and sockets and len(inputs) != len(sockets):
        problem = f"{len(inputs)} inputs and {len(sockets)} sockets: they do not match"
        return Row(number=number, cells=cells, says="", problem=problem)
    if stereo and count > 2:
        problem = f"a stereo line has two inputs, not {count}"
        return Row(number=number, cells=cells, says="", problem=problem)
    kind = _kind(found, name)
    draft = LineDraft(
        name=_BOTH.sub("", name) if stereo else name,
        kind=kind,
        stereo=stereo,
        performer=found.get("performer", ""),
        where=found.get("where", ""),
        stand=found.get("stand", ""),
        microphone=found.get("microphone", ""),
        phantom=_plain(found.get("phantom", "")) in _YES or found.get("phantom", "") in _YES,
        level_dbu=level_dbu,
        notes=found.get("notes", ""),
    )
    if stereo:
        ends = [*sockets, None, None]
        drafts = [replace(draft, socket=ends[0], socket_right=ends[1])]
    elif count == 1:
        drafts = [replace(draft, socket=sockets[0] if sockets else None)]
    else:
        drafts = [
            replace(draft, name=f"{name} {turn + 1}", socket=sockets[turn] if sockets else None)
            for turn in range(count)
        ]
    return Row(number=number, cells=cells, says="", drafts=tuple(drafts))


def _inputs(text: str) -> list[int]:
    """The inputs that a row stands for; text without digits ("tbc") stands for one unknown."""
    if not re.search(r"\d", text):
        return []
    return read_numbers(re.sub(r"\s*[/+&]\s*", ",", re.sub(r"[a-z#. ]", "", text.lower())),
                        highest=999)  # fmt: skip


def _sockets(show: Show, text: str) -> list[str]:
    return read_sockets(show.desk, re.sub(r"\s*[/+&]\s*", ",", text)) if text else []


def _level(text: str) -> float | None:
    match = re.search(r"[-\u2212+]?\d+(?:[.,]\d+)?", text)
    return float(match[0].replace("\u2212", "-").replace(",", ".")) if match else None


def _kind(found: dict[Role, str], name: str) -> str:
    said = " ".join((found.get("kind", ""), found.get("microphone", ""), name)).lower()
    for kind, pattern in _KIND_WORDS:
        if re.search(pattern, said):
            return kind
    phantom = found.get("phantom", "")
    return "condenser" if _plain(phantom) in _YES or phantom in _YES else "dynamic"


def _paired(rows: list[Row]) -> list[Row]:
    """Two rows that follow one another as "Keys L" and "Keys R" become one stereo line."""
    result: list[Row] = []
    for row in rows:
        above = result[-1] if result else None
        right = _single_side(row, ("r", "right"))
        left = _single_side(above, ("l", "left")) if above else None
        if above and left and right and left.lower() == right.lower():
            first, second = above.drafts[0], row.drafts[0]
            joined = replace(first, name=left, stereo=True, socket_right=second.socket)
            result[-1] = replace(above, drafts=(joined,))
            result.append(replace(row, drafts=(), says=f"right side of row {above.number}"))
        else:
            result.append(row)
    return result


def _single_side(row: Row, sides: tuple[str, ...]) -> str | None:
    if len(row.drafts) != 1 or row.drafts[0].stereo:
        return None
    match = _SIDES.match(row.drafts[0].name)
    return match["base"] if match and match["side"].lower() in sides else None


def _checked(show: Show, rows: list[Row]) -> list[Row]:
    """Each row with its problem, if the desk or another row is in its way, or with what it says."""
    plugged: dict[str, int] = {}
    present = {show.text(f"line/{number}/name").lower() for number in show.lines()}
    result = []
    for row in rows:
        problem = row.problem
        for draft in row.drafts:
            problem = problem or draft_fault(show, draft)
            for socket in (draft.socket, draft.socket_right):
                if socket and socket in plugged and not problem:
                    where = socket_name(show.desk, socket)
                    problem = f"socket {where} is already taken by row {plugged[socket]}"
                elif socket and not problem:
                    plugged[socket] = row.number
        if problem:
            result.append(replace(row, problem=problem, drafts=(), says=""))
        elif row.drafts:
            result.append(replace(row, says=_said(show, row.drafts, present)))
        else:
            result.append(row)
    return result


def _said(show: Show, drafts: tuple[LineDraft, ...], present: set[str]) -> str:
    first = drafts[0]
    kind = first.kind.replace("di_", "DI ").replace("_", " ")
    parts = [f"{len(drafts)} lines, {kind}" if len(drafts) > 1 else kind]
    if first.stereo:
        parts.append("stereo")
    sockets = [s for draft in drafts for s in (draft.socket, draft.socket_right) if s]
    if sockets:
        parts.append(", ".join(socket_name(show.desk, socket) for socket in sockets))
        losing = {
            show.text(f"line/{line}/name") for socket in sockets for line in lines_on(show, socket)
        }
        if losing:
            parts.append(f"takes the socket from {', '.join(sorted(losing))}")
    if first.phantom:
        parts.append("needs 48 V")
    if first.name.lower() in present:
        parts.append("a line of this name is there already")
    return " · ".join(parts)
