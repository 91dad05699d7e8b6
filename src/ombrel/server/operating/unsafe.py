"""Mixes of settings that nobody should serve with, each in words, with what to do.

Each is found by what is given and what was seen of the machine alone, so that a test can name both.
"""

import os
import stat
from collections.abc import Iterator
from dataclasses import dataclass, field
from ipaddress import ip_network
from pathlib import Path
from typing import Final
from urllib.parse import urlsplit

from .given import Given, is_loopback

__all__ = ["Seen", "Unsafe", "same_disk", "seen_here", "unsafe"]

_SHORTEST_KEY: Final = 50


@dataclass(frozen=True, slots=True)
class Unsafe:
    """What is wrong, by a code that stays, and what to do. `refused`: nothing is served with it."""

    code: str
    says: str
    do: str
    refused: bool = True


@dataclass(frozen=True, slots=True)
class Seen:
    """What was seen of this machine. `key_length`: of the secret key; `key_open`: others than its

    owner may read it; `same_disk`: backups lie on the disk of the data; `demo_people`: names whose
    password is the demo's; `unknown`: settings under names that are none, each with a likely one.
    """

    key_length: int = 64
    key_open: bool = False
    same_disk: bool = False
    demo_people: tuple[str, ...] = ()
    unknown: tuple[tuple[str, str], ...] = field(default=())


def unsafe(given: Given, seen: Seen) -> Iterator[Unsafe]:
    """All that is wrong with some settings on a machine as it was seen."""
    yield from _reached(given)
    yield from _proxied(given)
    yield from _behind(given)
    if given.demo and given.reached:
        yield Unsafe(
            "demo_in_public", "The sign-in page would tell others the demo's password.",
            "Leave OMBREL_DEMO out where others than this machine's reach it.",
        )  # fmt: skip
    if given.reached and seen.demo_people:
        names = ", ".join(seen.demo_people)
        yield Unsafe(
            "demo_passwords", f"Anybody could sign in with the demo's password as: {names}.",
            "Give them another (bin/account NAME), or close them (Accounts).",
        )  # fmt: skip
    if seen.key_open:
        yield Unsafe(
            "key_open", "Other users of this machine can read the secret key.",
            f"chmod 600 {given.data / 'secret-key'}",
        )  # fmt: skip
    if seen.key_length < _SHORTEST_KEY:
        yield Unsafe(
            "key_short", f"The secret key is shorter than {_SHORTEST_KEY} letters.",
            f"Remove {given.data / 'secret-key'}: another is made, and everybody signs in again.",
        )  # fmt: skip
    if seen.same_disk and given.site:
        yield Unsafe(
            "backups_beside", "Backups lie on the same disk as the data.",
            "Name a folder on another disk in OMBREL_BACKUPS.", refused=False,
        )  # fmt: skip
    for name, likely in seen.unknown:
        meant = f"Did you mean {likely}?" if likely else "See docs/deploy.md for those there are."
        yield Unsafe("unknown_setting", f"{name} is no setting.", meant, refused=False)


def _reached(given: Given) -> Iterator[Unsafe]:
    if given.secure or given.plain or not given.reached:
        return
    where = given.site or f"the address {given.bind}"
    yield Unsafe(
        "no_tls", f"Others would reach it at {where} without TLS: passwords travel readable.",
        "Put a proxy with TLS in front and name its https address in OMBREL_SITE; or, on a network"
        " that is nobody else's, say so by OMBREL_PLAIN=1.",
    )  # fmt: skip


def _proxied(given: Given) -> Iterator[Unsafe]:
    if given.secure and not given.proxies:
        yield Unsafe(
            "no_proxy", f"{given.site} is reached by TLS, but OMBREL_PROXIES names no proxy:"
            " nothing that comes would count as encrypted, and every page would be sent away.",
            "Name the proxy's address, for one on this machine: OMBREL_PROXIES=127.0.0.1",
        )  # fmt: skip
    wide = [one for one in given.proxies if ip_network(one).prefixlen < 8]
    if wide:
        yield Unsafe(
            "any_proxy", f"OMBREL_PROXIES={','.join(wide)} believes anybody who they say they are:"
            " guessing passwords would not be held back.",
            "Name the proxies' own addresses.",
        )  # fmt: skip
    if any("*" in host or host.startswith(".") for host in given.hosts):
        yield Unsafe(
            "any_host", "OMBREL_HOSTS takes any name: pages and links could be made for another's.",
            "Name each host.",
        )  # fmt: skip


def _behind(given: Given) -> Iterator[Unsafe]:
    """What the server itself asks, and who asks it."""
    if not given.plain and not is_loopback(given.db_host) and not given.db_tls:
        yield Unsafe(
            "database_in_clear", f"PostgreSQL at {given.db_host} would be asked without TLS.",
            "Set OMBREL_DB_TLS=verify-full; or, on a network that is nobody else's,"
            " OMBREL_PLAIN=1.",
        )  # fmt: skip
    if given.site and not given.db_password and not given.db_host.startswith("/"):
        yield Unsafe(
            "database_open", "PostgreSQL is asked without a password.",
            "Give its user one, and set OMBREL_DB_PASSWORD; or ask by its socket:"
            " OMBREL_DB_HOST=/var/run/postgresql",
        )  # fmt: skip
    redis = urlsplit(given.redis)
    if redis.hostname and not is_loopback(redis.hostname):
        if not redis.password:
            yield Unsafe(
                "redis_open", f"Redis at {redis.hostname} is asked without a password: whoever"
                " reaches it could tell this server of moves that nobody made.",
                "Give it one: OMBREL_REDIS=rediss://:PASSWORD@HOST",
            )  # fmt: skip
        if redis.scheme != "rediss" and not given.plain:
            yield Unsafe(
                "redis_in_clear", f"Redis at {redis.hostname} would be asked without TLS.",
                "Use rediss://; or, on a network that is nobody else's, set OMBREL_PLAIN=1.",
            )  # fmt: skip
    if given.metrics_at and not is_loopback(given.metrics_at[0]) and not given.plain:
        yield Unsafe(
            "metrics_open", f"Figures would be told to whoever reaches {given.metrics}.",
            "Tell them on 127.0.0.1 and let the proxy ask for a password.",
        )  # fmt: skip


def seen_here(
    given: Given, demo_people: tuple[str, ...], unknown: tuple[tuple[str, str], ...]
) -> Seen:
    """What there is to see of this machine; what cannot be looked at counts as safe."""
    key = given.data / "secret-key"
    open_to = key.stat().st_mode & (stat.S_IRWXG | stat.S_IRWXO) if key.exists() else 0
    length = len(key.read_text().strip()) if key.exists() else _SHORTEST_KEY
    return Seen(length, bool(open_to), same_disk(given), demo_people, unknown)


def same_disk(given: Given) -> bool:
    """Whether backups lie on the disk of the data: one that dies takes both."""
    return _disk(given.backup_folder) == _disk(given.data)


def _disk(folder: Path) -> int:
    there = next(one for one in (folder, *folder.absolute().parents) if one.exists())
    return os.stat(there).st_dev
