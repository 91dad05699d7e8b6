"""A machine as `docs/deploy.md` wants one, in a folder: a PostgreSQL and a proxy of its own, and

stand-ins for what a test must not do to the machine that it runs on (packages, users, systemd).
"""

import os
import re
import shutil
import signal
import socket
import stat
import subprocess
import time
import urllib.error
import urllib.request
from pathlib import Path
from tempfile import mkdtemp

ROOT = Path(__file__).parents[2]
PAPER = ROOT / "docs/deploy.md"

# Words of commands that would change the machine itself: what is said for them here.
STANDINS = {
    **dict.fromkeys(("apt-get", "adduser", "chown"), "exit 0"),
    "git": """
case "$1" in
  clone) cp -r "$HERE/checkout/." "$3" ;;
  *) exit 0 ;;  # there is nothing newer
esac""",
    "runuser": 'shift 3; exec "$@"',  # -u NAME --
    "install": """
words=()
while [ $# -gt 0 ]; do
  case "$1" in -o|-g) shift 2 ;; *) words+=("$1"); shift ;; esac
done
exec /usr/bin/install "${words[@]}\"""",
    "nginx": 'exec "$PROXY_TOOL" -e "$HERE/nginx.said" -c "$HERE/nginx.conf" "$@"',
    "systemctl": """
unit() { echo "$HERE/etc/systemd/system/$1.service"; }
field() { sed -n "s/^$2=//p" "$(unit "$1")"; }
begin() {
  setsid env -i PATH="$PLAIN_PATH" HOME="$HERE" LANG=C.UTF-8 bash -c \
    'set -a; . "$1"; set +a; cd "$2"; exec "$3"' _ \
    "$(field "$1" EnvironmentFile)" "$(field "$1" WorkingDirectory)" "$(field "$1" ExecStart)" \
    >>"$HERE/$1.said" 2>&1 </dev/null &
  echo $! >"$HERE/$1.pid"
}
end() {
  pid=$(cat "$HERE/$1.pid")
  kill "$pid" 2>/dev/null
  for _ in $(seq 300); do kill -0 "$pid" 2>/dev/null || break; sleep 0.05; done
}
case "$*" in
  "reload nginx") nginx -s reload 2>/dev/null || nginx >/dev/null 2>&1 </dev/null ;;
  daemon-reload) exit 0 ;;
  "enable --now ombrel"*) begin "$3" ;;
  "start ombrel"*) begin "$2" ;;
  "stop ombrel"*) end "$2" ;;
  "restart ombrel"*) end "$2"; begin "$2" ;;
  *) echo "what is systemctl $*?" >&2; exit 1 ;;
esac""",
}


def free_port() -> int:
    with socket.socket() as probe:
        probe.bind(("127.0.0.1", 0))
        return int(probe.getsockname()[1])


def blocks() -> dict[str, str]:
    """The commands of the paper, by the word behind `sh`."""
    found = re.findall(r"^```sh (\w+)\n(.*?)^```", PAPER.read_text("utf-8"), re.M | re.S)
    return dict(found)


class Machine:
    """Folders, ports and what runs; `end` stops all of it and removes the folder."""

    password = ""  # of its first account, once that is made

    def __init__(self) -> None:
        self.here = Path(mkdtemp(prefix="ombrel-deploy-"))
        self.here.chmod(0o755)  # the database's user goes through it
        self.disk = Path(mkdtemp(prefix="ombrel-deploy-", dir="/dev/shm"))  # another, for backups
        ports = [free_port() for _ in range(8)]
        assert len(set(ports)) == len(ports)
        self.http, self.https, self.server, self.second, self.metrics, more, *others = ports
        self.database, self.redis = others
        self.site = f"https://localhost:{self.https}"
        # where the paper says the left, it is the right here; the longest first
        self.instead = {
            "https://sound.example.org": self.site,
            "https://git.example.org/ombrel.git": "the-checkout",
            "sound.example.org": "localhost",
            "/etc/ssl/ombrel": f"{self.here}/etc/ssl/ombrel",
            "/etc/ombrel": f"{self.here}/etc/ombrel",
            "/etc/nginx": f"{self.here}/etc/nginx",
            "/etc/systemd": f"{self.here}/etc/systemd",
            "/var/lib/ombrel": f"{self.here}/var/lib/ombrel",
            "/var/backups/ombrel": f"{self.disk}/ombrel",
            "/opt/ombrel": f"{self.here}/opt/ombrel",
            "127.0.0.1:8000": f"127.0.0.1:{self.server}",
            "127.0.0.1:8001": f"127.0.0.1:{self.second}",
            "OMBREL_PORT=8001": f"OMBREL_PORT={self.second}",
            "127.0.0.1:9464": f"127.0.0.1:{self.metrics}",
            "127.0.0.1:9465": f"127.0.0.1:{more}",
            "127.0.0.1:6379": f"127.0.0.1:{self.redis}",
            "listen 80;": f"listen 127.0.0.1:{self.http};",
            "listen 443 ssl": f"listen 127.0.0.1:{self.https} ssl",
            # of nothing else the environment's file says more here
            "OMBREL_DB_HOST=127.0.0.1": (
                f"OMBREL_DB_HOST=127.0.0.1\nOMBREL_DB_PORT={self.database}"
                f"\nOMBREL_PORT={self.server}\nOMBREL_BACKUP_AT=never"
            ),
        }
        for folder in ("bin", "etc/nginx/sites-enabled", "etc/ssl/ombrel", "etc/systemd/system",
                       "opt", "var/lib"):  # fmt: skip
            (self.here / folder).mkdir(parents=True)
        for name, says in STANDINS.items():
            path = self.here / "bin" / name
            path.write_text(f"#!/usr/bin/env bash\n{says}\n")
            path.chmod(path.stat().st_mode | stat.S_IXUSR)
        self._checkout()
        self._certificate()
        self._proxy()
        self._postgres()

    def as_here(self, text: str) -> str:
        """What the paper or one of its files says, with this machine's folders and ports."""
        for there, here in self.instead.items():
            text = text.replace(there, here)
        return text

    @property
    def environment(self) -> dict[str, str]:
        """What somebody has who types the paper's commands here."""
        plain = {name: value for name, value in os.environ.items() if not _ours(name)}
        path = f"{os.environ['PG_BIN']}:/usr/sbin:{os.environ['PATH']}"
        return {
            **plain, "HERE": str(self.here), "PATH": f"{self.here}/bin:{path}", "PLAIN_PATH": path,
            "PROXY_TOOL": shutil.which("nginx", path=path) or "nginx", "PGHOST": "127.0.0.1",
            "PGPORT": str(self.database), "PGUSER": "postgres", "PGPASSWORD": "for-the-test",
        }  # fmt: skip

    def follow(self, name: str, fails: bool = False, extra: str = "") -> str:
        """Type a block of the paper; gives what it said. `extra`: what is typed behind it."""
        return self.typed(self.as_here(blocks()[name]) + extra, fails)

    def typed(self, commands: str, fails: bool = False) -> str:
        """Type commands; gives what they said."""
        commands = "set -euo pipefail\n" + commands
        done = subprocess.run(
            ["bash", "-c", commands], env=self.environment, cwd=self.here, text=True,
            stdout=subprocess.PIPE, stderr=subprocess.STDOUT, stdin=subprocess.DEVNULL,
            timeout=240, check=False,
        )  # fmt: skip
        assert (done.returncode != 0) == fails, f"{commands}: {done.stdout}\n{self.said()}"
        return done.stdout

    def said(self, unit: str = "ombrel") -> str:
        """What a server has said so far."""
        path = self.here / f"{unit}.said"
        return path.read_text("utf-8") if path.exists() else ""

    def ready(self, port: int = 0) -> None:
        """Wait until it serves (the first, unless another's port is given)."""
        for _ in range(600):
            try:
                urllib.request.urlopen(f"http://127.0.0.1:{port or self.server}/readyz", timeout=5)
                return
            except (urllib.error.URLError, OSError):
                time.sleep(0.1)
        raise AssertionError(f"it does not serve:\n{self.said()}")

    def end(self) -> None:
        """Nothing of it is left."""
        pids = [self.here / f"{what}.pid" for what in ("ombrel", "ombrel-2", "nginx")]
        for path in [one for one in pids if one.exists()]:
            try:
                os.kill(int(path.read_text()), signal.SIGTERM)
            except (ProcessLookupError, ValueError):
                continue
        self._pg("pg_ctl", "-D", str(self.data), "-m", "immediate", "stop")
        time.sleep(0.5)
        for folder in (self.here, self.disk):
            shutil.rmtree(folder, ignore_errors=True)

    def _checkout(self) -> None:
        """This project, with what `bin/prepare` would fetch and build already there: the run that

        this test belongs to has just used it.
        """
        tracked = subprocess.run(
            ["git", "ls-files", "-z", "--cached", "--others", "--exclude-standard"],
            cwd=ROOT, check=True, stdout=subprocess.PIPE, text=True,
        ).stdout  # fmt: skip
        checkout = self.here / "checkout"
        for name in filter(None, tracked.split("\0")):
            source, target = ROOT / name, checkout / name
            if not source.is_file() or name.startswith("tests/"):
                continue
            target.parent.mkdir(parents=True, exist_ok=True)
            shutil.copy2(source, target)
        (checkout / ".venv").symlink_to((ROOT / ".venv").resolve())
        shutil.copytree(ROOT / "web/dist", checkout / "web/dist")
        for path in (checkout / "deploy").iterdir():
            path.write_text(self.as_here(path.read_text("utf-8")), "utf-8")

    def _certificate(self) -> None:
        folder = self.here / "etc/ssl/ombrel"
        subprocess.run(
            ["openssl", "req", "-x509", "-newkey", "rsa:2048", "-nodes", "-days", "2", "-subj",
             "/CN=localhost", "-addext", "subjectAltName=DNS:localhost", "-keyout",
             str(folder / "privkey.pem"), "-out", str(folder / "fullchain.pem")],
            check=True, capture_output=True,
        )  # fmt: skip
        self.certificate = folder / "fullchain.pem"

    def _proxy(self) -> None:
        here = self.here
        kept = "".join(
            f"{what}_temp_path {here}/{what}; "
            for what in ("client_body", "proxy", "fastcgi", "uwsgi", "scgi")
        )
        (here / "nginx.conf").write_text(
            f"pid {here}/nginx.pid; error_log {here}/nginx.said; events {{}}\n"
            f"http {{ access_log off; {kept}include {here}/etc/nginx/sites-enabled/*; }}\n"
        )

    def _postgres(self) -> None:
        self.data = self.here / "postgres"
        self.data.mkdir(mode=0o700)
        secret = self.here / "secret"
        secret.write_text("for-the-test\n")
        if os.geteuid() == 0:
            shutil.chown(self.data, "postgres")
            shutil.chown(secret, "postgres")
        self._pg("initdb", "-D", str(self.data), "-U", "postgres", "--auth=scram-sha-256",
                 f"--pwfile={secret}", "-E", "UTF8", "--locale=C.UTF-8", check=True)  # fmt: skip
        options = f"-c listen_addresses=127.0.0.1 -c port={self.database} -c fsync=off"
        options += " -c unix_socket_directories=''"
        self._pg("pg_ctl", "-D", str(self.data), "-w", "-l", str(self.data / "said"), "-o", options,
                 "start", check=True)  # fmt: skip

    def _pg(self, tool: str, *words: str, check: bool = False) -> None:
        owner = ["/usr/sbin/runuser", "-u", "postgres", "--"] if os.geteuid() == 0 else []
        subprocess.run(
            [*owner, f"{os.environ['PG_BIN']}/{tool}", *words], check=check,
            stdout=subprocess.DEVNULL, stderr=subprocess.DEVNULL, cwd="/",
        )  # fmt: skip


def _ours(name: str) -> bool:
    return (name.startswith(("OMBREL_", "PG")) and name != "PG_BIN") or name in (
        "PYTHONPATH", "DJANGO_SETTINGS_MODULE"
    )  # fmt: skip
