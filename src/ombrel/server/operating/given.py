"""What an installation is told by its environment: each OMBREL_…, with its meaning and bounds."""

import ipaddress
from collections.abc import Iterator, Mapping
from datetime import time
from difflib import get_close_matches
from pathlib import Path
from typing import Annotated, Any, Final, Literal
from urllib.parse import urlsplit

from pydantic import Field, ValidationError, field_validator
from pydantic_settings import BaseSettings, NoDecode, SettingsConfigDict

__all__ = ["ROOT", "Given", "Misgiven", "is_loopback", "read_given", "settings_table", "unknown"]

ROOT: Final = Path(__file__).resolve().parents[4]
_PREFIX: Final = "OMBREL_"
# told to the commands in bin/ and to the tests, not to the server
_ELSEWHERE: Final = frozenset(
    ["PORT", "SERVER", "KILLS", "WIRED", "HOSTILE", "IDLE", "NOISE", "NEW_SEEDS", "USER_HOME"]
)

_Several = Annotated[list[str], NoDecode]


class Misgiven(ValueError):
    """A setting that cannot be read: which, what was given, and what it may be."""


class Given(BaseSettings):
    """The settings of an installation. What is empty counts as not given."""

    model_config = SettingsConfigDict(env_prefix=_PREFIX, extra="ignore", env_ignore_empty=True)

    site: str = Field(
        default="", description="the address by which people reach it, as `https://sound.example.org`;"
        " with `https` cookies and pages are held to TLS",
    )  # fmt: skip
    bind: str = Field(default="127.0.0.1", description="the address that the server listens at")
    proxies: _Several = Field(
        default=[], description="addresses of the proxies in front, comma-separated: these alone"
        " are believed who asks, and by which scheme",
    )  # fmt: skip
    hosts: _Several = Field(
        default=[],
        description="further names and addresses by which it may be asked, comma-separated",
    )
    plain: bool = Field(
        default=False, description="1: no TLS, since the network is nobody else's; passwords and"
        " shows travel readable",
    )  # fmt: skip
    hsts_days: int = Field(
        default=365,
        ge=1,
        le=730,
        description="for so many days browsers insist on TLS after a visit",
    )
    data: Path = Field(
        default=ROOT / ".data",
        description="the folder for what this installation keeps beside its database",
    )
    db_host: str = Field(
        default="127.0.0.1",
        description="where PostgreSQL answers: a name, an address, or a socket's folder",
    )
    db_port: int = Field(default=5432, ge=1, le=65535, description="its port")
    db_name: str = Field(default="ombrel", description="the database")
    db_user: str = Field(default="ombrel", description="who owns it")
    db_password: str = Field(default="", description="their password")
    db_tls: Literal["", "require", "verify-ca", "verify-full"] = Field(
        default="", description="how PostgreSQL is asked for TLS (libpq's `sslmode`)"
    )
    db_pool: int = Field(
        default=24, ge=6, le=200, description="connections to PostgreSQL, at most, of one process"
    )
    redis: str = Field(
        default="", description="the address of a Redis server, by which several processes tell"
        " one another of moves at once; one process needs none",
    )  # fmt: skip
    backups: Path | None = Field(
        default=None, description="the folder for backups: best on another disk; not given:"
        " `backups` in the folder of data",
    )  # fmt: skip
    backup_at: time | None = Field(
        default=time(5, 0), description="when each night a backup is made, by this machine's clock;"
        " `never`: by nobody",
    )  # fmt: skip
    log: Literal["plain", "json"] = Field(
        default="plain", description="`json`: a line for each request, and all lines as JSON"
    )
    metrics: str = Field(
        default="", description="address and port at which figures for Prometheus are told, as"
        " `127.0.0.1:9464`; not given: nowhere",
    )  # fmt: skip
    demo: bool = Field(default=False, description="1: the sign-in page tells the demo's own people")
    stage: str = Field(default="127.0.0.1:9123", description="where the stage answers")
    cue_machine: str = Field(default="127.0.0.1:9124", description="where the cue machine answers")

    @field_validator("proxies", "hosts", mode="before")
    @classmethod
    def _split(cls, value: Any) -> Any:
        if isinstance(value, str):
            return [part.strip() for part in value.split(",") if part.strip()]
        return value

    @field_validator("backup_at", mode="before")
    @classmethod
    def _or_never(cls, value: Any) -> Any:
        return None if value == "never" else value

    @field_validator("site")
    @classmethod
    def _site_alone(cls, value: str) -> str:
        value = value.removesuffix("/")
        if not value:
            return value
        parts = urlsplit(value)
        whole = f"{parts.scheme}://{parts.netloc}" == value
        if parts.scheme not in ("http", "https") or not parts.hostname or not whole:
            raise ValueError("a scheme and a host alone, as https://sound.example.org")
        if parts.username is not None:
            raise ValueError("no name and password in it")
        _ = parts.port  # raises ValueError for what is no port
        return value

    @field_validator("proxies")
    @classmethod
    def _networks(cls, value: list[str]) -> list[str]:
        for one in value:
            ipaddress.ip_network(one)  # raises ValueError, which says what it is not
        return value

    @field_validator("metrics")
    @classmethod
    def _address_and_port(cls, value: str) -> str:
        if value:
            host, _, port = value.rpartition(":")
            if not host or not port.isdecimal() or not 0 < int(port) < 65536:
                raise ValueError("an address and a port, as 127.0.0.1:9464")
        return value

    @property
    def secure(self) -> bool:
        """Whether people reach it by TLS."""
        return self.site.startswith("https://")

    @property
    def site_host(self) -> str:
        """The host's name in the address by which people reach it, "" without one."""
        return urlsplit(self.site).hostname or ""

    @property
    def reached(self) -> bool:
        """Whether others than who sits at this machine can reach it."""
        site = self.site_host
        return not is_loopback(self.bind) or (bool(site) and not is_loopback(site))

    @property
    def backup_folder(self) -> Path:
        """Where backups are kept."""
        return self.backups or self.data / "backups"

    @property
    def metrics_at(self) -> tuple[str, int] | None:
        """Host and port where figures are told."""
        host, _, port = self.metrics.rpartition(":")
        return (host.strip("[]"), int(port)) if host else None


def is_loopback(host: str) -> bool:
    """Whether a name or an address is this machine's own.

    >>> is_loopback("127.0.0.1"), is_loopback("[::1]"), is_loopback("0.0.0.0")
    (True, True, False)
    """
    if host == "localhost" or host.startswith("/"):  # a socket in the file system
        return True
    try:
        return ipaddress.ip_address(host.strip("[]")).is_loopback
    except ValueError:
        return False


def read_given() -> Given:
    """The settings that the environment gives. Raises Misgiven, which names each that is wrong."""
    try:
        return Given()
    except ValidationError as error:
        wrong = [
            f"{_PREFIX}{str(one['loc'][0]).upper()}: {one['msg'].removeprefix('Value error, ')}"
            f" (given: {_shown(str(one['loc'][0]), one['input'])})"
            for one in error.errors()
        ]
        raise Misgiven("\n".join(wrong)) from None


def _shown(name: str, value: object) -> str:
    return "what is secret" if "password" in name or name == "redis" else repr(value)[:80]


def unknown(environment: Mapping[str, str]) -> Iterator[tuple[str, str]]:
    """What is given under a name that is none, with the nearest that is one ("": none is near)."""
    known = {f"{_PREFIX}{name.upper()}" for name in Given.model_fields}
    known |= {f"{_PREFIX}{name}" for name in _ELSEWHERE}
    for name in sorted(environment):
        if name.startswith(_PREFIX) and name not in known:
            yield name, next(iter(get_close_matches(name, known, 1)), "")


def settings_table() -> str:
    """All settings as a table in Markdown, for `docs/deploy.md`."""
    rows = ["| Setting | Not given | What it is |", "| --- | --- | --- |"]
    for name, field in Given.model_fields.items():
        default = field.default
        shown = "`.data`" if name == "data" else f"`{_plain(default)}`" if default else ""
        rows.append(f"| `{_PREFIX}{name.upper()}` | {shown} | {field.description} |")
    return "\n".join(rows) + "\n"


def _plain(value: object) -> str:
    return value.isoformat("minutes") if isinstance(value, time) else str(value)
