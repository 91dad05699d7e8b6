# Shared by the commands in bin/: installs what is missing, starts and stops what they need.
# Sourced, not run. Everything that it starts is stopped by `stop_all`, by process id.

ROOT=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd)
export OMBREL_DATA=${OMBREL_DATA:-$ROOT/.data}
export PYTHONPATH=$ROOT/src
# The flow's products are small: shared among threads they wait for one another, and on a busy
# machine take three times as long.
export OPENBLAS_NUM_THREADS=1
PY=$ROOT/.venv/bin/python
SERVER_PID=
STAGE_PID=
MACHINE_PID=
export PG_FOLDER= PG_BIN=  # the tests restart the database by these

say() { printf '\033[1m▸ %s\033[0m\n' "$*"; }
fail() { printf '\n\033[1mombrel: %s\033[0m\n' "$1" >&2; shift; for line in "$@"; do printf '  %s\n' "$line" >&2; done; exit 1; }

as_root() {
  if [ "$(id -u)" = 0 ]; then "$@"
  elif command -v sudo >/dev/null; then sudo "$@"
  else fail "this needs root: $*" "Run it as root, or install sudo."; fi
}

# debian PACKAGE...: install Debian packages, with the packages' own words only when it fails.
debian() {
  say "installing from Debian: $*"
  local log; log=$(mktemp)
  export DEBIAN_FRONTEND=noninteractive
  if ! { as_root apt-get update && as_root apt-get install -y --no-install-recommends "$@"; } >"$log" 2>&1; then
    tail -n 15 "$log" >&2
    fail "Debian's packages could not be installed: $*" "Check the network and apt's sources, then run this again."
  fi
  rm -f "$log"
}

python_ready() { # python_ready LOCK
  local lock=$ROOT/requirements/$1 stamp=$ROOT/.venv/.ombrel-$1 python
  python=$(command -v python3.11 || command -v python3 || true)
  [ -n "$python" ] || { debian python3; python=python3; }
  "$python" -c 'import sys; sys.exit(sys.version_info < (3, 11))' \
    || fail "Python 3.11 or newer is needed, found $("$python" --version)." "Install Debian 12's python3."
  "$python" -c 'import ensurepip' 2>/dev/null || debian python3-venv
  [ -x "$PY" ] || { say "making a Python environment in .venv"; "$python" -m venv "$ROOT/.venv" || fail "python3 -m venv failed." "Install python3-venv, remove .venv and try again."; }
  if ! cmp -s "$lock" "$stamp"; then
    say "installing Python packages from requirements/$1"
    "$PY" -m pip install -q --disable-pip-version-check -r "$lock" \
      || fail "pip could not install the packages of requirements/$1." "Check the network; a half-made .venv can be removed safely."
    cp "$lock" "$stamp"
  fi
}

fonts_ready() { # for PDF: what sets text in any script, and letters for it
  local pango=/usr/lib/$(uname -m)-linux-gnu fonts=/usr/share/fonts/truetype
  [ -f "$fonts/dejavu/DejaVuSans-Bold.ttf" ] && [ -f "$fonts/wqy/wqy-zenhei.ttc" ] \
    && [ -e "$pango/libpangoft2-1.0.so.0" ] && [ -e "$pango/libharfbuzz-subset.so.0" ] \
    || debian fonts-dejavu-core fonts-wqy-zenhei libpango-1.0-0 libpangoft2-1.0-0 libharfbuzz-subset0
}

web_digest() { # of what the screens are built from
  (cd "$ROOT/web" && find src public index.html phone.html ride.html vite.config.ts package-lock.json tsconfig.json ../docs/guide.md -type f -print0 | sort -z | xargs -0 sha256sum | sha256sum)
}

web_built() { # whether they are, from these sources
  [ "$(cat "$ROOT/web/dist/.ombrel-built" 2>/dev/null)" = "$(web_digest)" ]
}

web_ready() { # packages and, unless already built from these sources, the build
  local web=$ROOT/web modules_stamp=$ROOT/web/node_modules/.ombrel-lock
  command -v node >/dev/null && command -v npm >/dev/null \
    || fail "Node 20 and npm are needed to build the screens." "On Debian 12: install Node 20, then run this again."
  [ "$(node -p 'Number(process.versions.node.split(".")[0]) >= 20')" = true ] \
    || fail "Node 20 or newer is needed, found $(node --version)." "Install Node 20, then run this again."
  if ! cmp -s "$web/package-lock.json" "$modules_stamp"; then
    say "installing npm packages from web/package-lock.json"
    (cd "$web" && npm ci --no-audit --no-fund --loglevel=error) || fail "npm ci failed." "Check the network; web/node_modules can be removed safely."
    cp "$web/package-lock.json" "$modules_stamp"
  fi
  if ! web_built; then
    say "building the screens"
    (cd "$web" && npx --no-install vite build --logLevel warn) || fail "the screens could not be built." "The messages above say where."
    # packed once, rather than for each who asks
    "$PY" -m whitenoise.compress --quiet "$web/dist" || fail "the screens could not be packed." "The messages above say why."
    web_digest >"$web/dist/.ombrel-built"
  fi
}

browser_ready() {
  command -v chromium >/dev/null && command -v chromedriver >/dev/null || debian chromium chromium-driver
}

redis_ready() { # for the tests of several processes
  command -v redis-server >/dev/null || debian redis-server
}

proxy_ready() { # for the test that follows docs/deploy.md; it starts its own, Debian's is not started
  command -v nginx >/dev/null && command -v openssl >/dev/null && command -v curl >/dev/null \
    || RUNLEVEL=1 debian nginx-light openssl curl
}

free_port() { # free_port FROM [udp]: the first free port on loopback
  "$PY" - "$1" "${2:-tcp}" <<'PY'
import socket, sys
kind = socket.SOCK_DGRAM if sys.argv[2] == "udp" else socket.SOCK_STREAM
for port in range(int(sys.argv[1]), int(sys.argv[1]) + 200):
    with socket.socket(socket.AF_INET, kind) as probe:
        if kind == socket.SOCK_STREAM:
            probe.setsockopt(socket.SOL_SOCKET, socket.SO_REUSEADDR, 1)
        try:
            probe.bind(("127.0.0.1", port))
        except OSError:
            continue
        print(port)
        break
else:
    sys.exit("no free port")
PY
}

as_pg() { # run as the user that owns the database: PostgreSQL refuses to run as root
  # without the lock of `alone` (9): a database left behind must not look like a running command
  if [ "$(id -u)" = 0 ]; then runuser -u postgres -- "$@" 9>&- 8>&-; else "$@" 9>&- 8>&-; fi
}

postgres_start() { # postgres_start [fast]: the cluster in PG_FOLDER, at OMBREL_DB_PORT
  local options="-c listen_addresses=127.0.0.1 -c port=$OMBREL_DB_PORT -c unix_socket_directories=''"
  [ "${1:-}" != fast ] || options="$options -c fsync=off -c full_page_writes=off"
  say "starting PostgreSQL on 127.0.0.1:$OMBREL_DB_PORT"
  as_pg "$PG_BIN/pg_ctl" -D "$PG_FOLDER" -w -t 60 -l "$log" -o "$options" start >/dev/null
}

postgres_ready() { # postgres_ready NAME [fast]: a cluster of its own, on loopback; fast: it need not survive a power cut
  local name=$1 pid secret=$OMBREL_DATA/$1-password log tries=0
  PG_BIN=$(ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -V | tail -n 1)
  if [ ! -x "$PG_BIN/initdb" ]; then
    debian postgresql
    PG_BIN=$(ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -V | tail -n 1)
    [ -x "$PG_BIN/initdb" ] || fail "PostgreSQL is installed, but not where Debian puts it." "Install Debian's package postgresql."
  fi
  mkdir -p "$OMBREL_DATA"
  PG_FOLDER=$OMBREL_DATA/$name
  if [ "$(id -u)" = 0 ] && ! as_pg test -x "$OMBREL_DATA"; then
    # a clone in root's home: the database's user cannot reach it there
    PG_FOLDER=/var/lib/ombrel/$(printf %s "$ROOT" | sha256sum | cut -c1-12)/$name
    mkdir -p "$PG_FOLDER"; chmod 755 /var/lib/ombrel "$(dirname "$PG_FOLDER")"
    say "the database's user cannot enter $OMBREL_DATA; its data is in $PG_FOLDER"
  fi
  if [ ! -s "$PG_FOLDER/PG_VERSION" ]; then
    say "making a database in $PG_FOLDER"
    mkdir -p "$PG_FOLDER"
    (umask 077; "$PY" -c 'import secrets; print(secrets.token_urlsafe(24))' >"$secret")
    [ "$(id -u)" != 0 ] || chown -R postgres "$PG_FOLDER"
    chmod 700 "$PG_FOLDER"
    local once; once=$(mktemp); cat "$secret" >"$once"
    [ "$(id -u)" != 0 ] || chown postgres "$once"
    as_pg "$PG_BIN/initdb" -D "$PG_FOLDER" -U ombrel --auth=scram-sha-256 --pwfile="$once" -E UTF8 --locale=C.UTF-8 >/dev/null 2>"$OMBREL_DATA/initdb.log" \
      || { cat "$OMBREL_DATA/initdb.log" >&2; fail "the database could not be made in $PG_FOLDER." "Remove that folder and run this again."; }
    rm -f "$once"
  fi
  [ -s "$secret" ] || fail "the database in $PG_FOLDER has lost its password ($secret)." "Remove both and run this again: the shows in it are lost then."
  export OMBREL_DB_PASSWORD OMBREL_DB_HOST=127.0.0.1 OMBREL_DB_USER=ombrel OMBREL_DB_PORT
  OMBREL_DB_PASSWORD=$(cat "$secret")
  log=$OMBREL_DATA/$name.log
  [ "$(id -u)" != 0 ] || { touch "$log"; chown postgres "$log"; }
  if as_pg "$PG_BIN/pg_ctl" -D "$PG_FOLDER" status >/dev/null 2>&1; then
    OMBREL_DB_PORT=$(as_pg sed -n 4p "$PG_FOLDER/postmaster.pid")
    say "PostgreSQL was left running by an earlier run; using it (port $OMBREL_DB_PORT)"
  else
    pid=$(as_pg sed -n 1p "$PG_FOLDER/postmaster.pid" 2>/dev/null || true)
    if [ -n "$pid" ]; then
      # The file names a process. pg_ctl found no server behind it: it is left from a killed run.
      say "clearing what a killed PostgreSQL left behind"
      as_pg rm -f "$PG_FOLDER/postmaster.pid"
    fi
    # below the ports that go to whoever connects: one of those could hold it while the database restarts
    OMBREL_DB_PORT=$(free_port "${OMBREL_DB_PORT:-15432}")
    until postgres_start "${2:-}"; do
      # somebody else's can have taken the port since it was found free
      tail -n 6 "$log" | grep -q "Address already in use" && [ $((tries += 1)) -lt 5 ] \
        || { tail -n 15 "$log" >&2; fail "PostgreSQL did not start." "Its last words are above; the whole log is $log."; }
      OMBREL_DB_PORT=$(free_port $((OMBREL_DB_PORT + 1)))
    done
  fi
}

database_ready() { # database_ready NAME [anew]: the database exists (made anew) and is migrated
  export OMBREL_DB_NAME=$1
  "$PY" - "${2:-}" <<'PY' || fail "the database does not answer." "See the log in .data/."
import os, sys, psycopg
with psycopg.connect(host="127.0.0.1", port=os.environ["OMBREL_DB_PORT"], user="ombrel",
                     password=os.environ["OMBREL_DB_PASSWORD"], dbname="postgres", autocommit=True) as link:
    name = os.environ["OMBREL_DB_NAME"]
    if sys.argv[1] == "anew":
        link.execute(f'drop database if exists "{name}" with (force)')
    if not link.execute("select 1 from pg_database where datname = %s", [name]).fetchone():
        link.execute(f'create database "{name}"')
PY
  # made anew it holds nothing that could be lost; else a backup comes before a migration
  "$PY" -m django upgrade ${2:+--without-backup} --settings ombrel.server.settings || fail "the database could not be migrated." "The messages above say why."
}

database_here() { # the database that OMBREL_DB_* name; without them that of bin/demo, running or not
  [ -z "${OMBREL_DB_HOST:-}" ] || return 0
  mkdir -p "$OMBREL_DATA"
  exec 8>"$OMBREL_DATA/demo.lock"
  if flock -n 8; then trap stop_all EXIT; fi # bin/demo does not run: what is started here is stopped
  postgres_ready demo-postgres
  export OMBREL_DB_NAME=ombrel
}

server_start() { # server_start PORT [--reload]: the application, until stop_all
  # WhiteNoise hands files over synchronously, which Django mentions at every start
  "$PY" -W "ignore:StreamingHttpResponse must consume" -m ombrel.server.serve --port "$1" ${2:+"$2"} 9>&- 8>&- &
  SERVER_PID=$!
  "$PY" - "$1" "$SERVER_PID" <<'PY' || fail "the server did not start." "Its messages are above."
import os, sys, time, urllib.error, urllib.request
host = os.environ.get("OMBREL_BIND", "127.0.0.1")
host = {"0.0.0.0": "127.0.0.1", "::": "[::1]"}.get(host, host)
for _ in range(600):
    try:
        urllib.request.urlopen(f"http://{host}:{sys.argv[1]}/readyz", timeout=6)
        break
    except (urllib.error.URLError, OSError):
        try:
            os.kill(int(sys.argv[2]), 0)
        except ProcessLookupError:
            sys.exit(1)
        time.sleep(0.1)
else:
    sys.exit(1)
PY
}

server_kept() { # server_kept PORT: waits while it runs; one that was killed or crashed is started again
  local quick=0 begun
  while true; do
    begun=$SECONDS
    wait "$SERVER_PID" || true
    # what was kept is kept, and pages come back by themselves
    [ $((SECONDS - begun)) -lt 10 ] && quick=$((quick + 1)) || quick=0
    [ "$quick" -lt 4 ] || fail "the server ends as soon as it starts." "Its messages are above; mend what they say, then start it again."
    say "the server ended by itself; starting it again"
    server_start "$1"
  done
}

stop_all() {
  trap - EXIT INT TERM HUP
  if [ -n "$STAGE_PID" ]; then kill "$STAGE_PID" 2>/dev/null || true; fi
  if [ -n "$MACHINE_PID" ]; then kill "$MACHINE_PID" 2>/dev/null || true; fi
  if [ -n "$SERVER_PID" ] && kill -0 "$SERVER_PID" 2>/dev/null; then
    kill "$SERVER_PID" 2>/dev/null || true
    wait "$SERVER_PID" 2>/dev/null || true
  fi
  if [ -n "$PG_FOLDER" ]; then as_pg "$PG_BIN/pg_ctl" -D "$PG_FOLDER" -m fast -w stop >/dev/null 2>&1 || true; fi
}

alone() { # alone NAME: one run of this kind at a time in this folder
  mkdir -p "$OMBREL_DATA"
  exec 9>"$OMBREL_DATA/$1.lock"
  flock -n 9 || fail "bin/$1 is already running in this folder." "Stop it first (Ctrl-C where it runs)."
}
