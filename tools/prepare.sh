# Set-up shared by ./start and ./test. Sourced, not run.

say() { printf '%s\n' "$*"; }
stop_with() { printf 'Lumbix: %s\n' "$*" >&2; exit 1; }

# Debian packages by the program each one brings.
need_packages() {
  local missing=() pair
  for pair in "$@"; do
    local program=${pair%%=*} package=${pair#*=}
    [ -x "$program" ] || command -v "$program" >/dev/null 2>&1 || missing+=("$package")
  done
  [ ${#missing[@]} -eq 0 ] && return
  if [ "$(id -u)" -ne 0 ]; then
    stop_with "these Debian packages are missing. Run this once, then start again:
  sudo apt-get install --no-install-recommends ${missing[*]}"
  fi
  say "Installing ${missing[*]} …"
  local log; log=$(mktemp)
  { apt-get update -qq && DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${missing[@]}"; } >"$log" 2>&1 ||
    { tail -n 5 "$log" >&2; stop_with "Debian's packages could not be installed; the reason stands above."; }
  rm -f "$log"
}

need_node() {
  command -v node >/dev/null 2>&1 || stop_with "Node.js 20 is needed and was not found."
  case "$(node --version)" in v20.*) ;; *) stop_with "Node.js 20 is needed; this is $(node --version)." ;; esac
}

# Packages of the lock file, installed anew only when it changed or an installation was cut short.
need_modules() {
  local wanted; wanted=$(sha256sum package-lock.json | cut -c1-64)
  [ "$(cat node_modules/.lumbix-installed 2>/dev/null)" = "$wanted" ] && return
  say "Installing packages …"
  local log; log=$(mktemp)
  npm ci --no-audit --no-fund --loglevel=error >"$log" 2>&1 ||
    { tail -n 8 "$log" >&2; stop_with "npm ci did not succeed; the reason stands above."; }
  rm -f "$log"
  printf '%s' "$wanted" >node_modules/.lumbix-installed
}

# Builds when a source has changed since the last build that was finished.
need_build() {
  local sources; sources=$(find app core render server standins demo public tools/*.ts nuxt.config.ts package-lock.json \
    -type f ! -name '*.test.ts' -print0 | sort -z | xargs -0 sha256sum | sha256sum | cut -c1-64)
  [ "$(cat .output/lumbix-built 2>/dev/null)" = "$sources" ] && [ -f .build/worker.mjs ] && return
  say "Building …"
  local log; log=$(mktemp)
  npm run --silent build >"$log" 2>&1 || { tail -n 30 "$log" >&2; stop_with "the build did not succeed; the reason stands above."; }
  rm -f "$log"
  printf '%s' "$sources" >.output/lumbix-built
}

need_room() {
  local free; free=$(df -Pk "$1" | awk 'NR == 2 { print $4 }')
  [ "$free" -gt 500000 ] || stop_with "the disk that holds $1 has less than 500 MB left. Make room, then start again. Nothing was changed."
}

# Ports by the variables that set them: each a number that a user may have, and no two the same.
need_ports() {
  local pair name value seen=" "
  for pair in "$@"; do
    name=${pair%%=*} value=${pair#*=}
    [[ $value =~ ^[0-9]{1,5}$ ]] && ((10#$value >= 1024 && 10#$value <= 65535)) ||
      stop_with "$name is “$value”. Set it to a number from 1024 to 65535."
    case "$seen" in *" $value "*) stop_with "$name is $value, which another port is set to already. Set each to a port of its own." ;; esac
    seen="$seen$value "
  done
}

port_taken() { (exec 3<>"/dev/tcp/127.0.0.1/$1") 2>/dev/null; }
need_port() { ! port_taken "$1" || stop_with "port $1 is taken by another program. Stop it, or set $2 to a free port."; }

# PostgreSQL refuses to run as root, so root lends it to the user that Debian made for it.
as_postgres() { if [ "$(id -u)" -eq 0 ]; then runuser -u postgres -- "$@"; else "$@"; fi; }

# The folder of the data, made if need be; one that the database's user can enter.
data_folder() {
  mkdir -p "$1" 2>/dev/null || stop_with "the folder $1 cannot be made. Choose one that you may write in (LUMBIX_DATA)."
  local folder; folder=$(cd "$1" && pwd -P)
  [ -O "$folder" ] || stop_with "the folder $folder belongs to another user. Start Lumbix as that user, or choose a folder of your own (LUMBIX_DATA)."
  if [ "$(id -u)" -eq 0 ] && ! as_postgres test -x "$folder"; then
    folder=/var/tmp/lumbix-$(printf '%s' "$folder" | sha256sum | cut -c1-12)
    mkdir -p "$folder"
  fi
  chmod 755 "$folder"
  printf '%s' "$folder"
}

find_postgres() { PG_BIN=$(ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -V | tail -n 1); }

# Makes the cluster whole or not at all: it gets its name when it is finished.
make_cluster() {
  local data=$1
  [ -d "$data/postgres" ] && return
  say "Making the database …"
  rm -rf "$data/postgres.new"
  mkdir -p "$data/postgres.new"
  [ "$(id -u)" -ne 0 ] || chown postgres "$data/postgres.new"
  (umask 077; head -c 24 /dev/urandom | base64 | tr -d '/+=\n' >"$data/password")
  [ "$(id -u)" -ne 0 ] || chown postgres "$data/password"
  as_postgres "$PG_BIN/initdb" -D "$data/postgres.new" -U lumbix --pwfile="$data/password" --auth=scram-sha-256 -E UTF8 --locale=C.UTF-8 >"$data/initdb.log" 2>&1 ||
    { tail -n 5 "$data/initdb.log" >&2; stop_with "the database could not be made; the reason stands above."; }
  mv "$data/postgres.new" "$data/postgres"
}

# One try to start the cluster.
try_cluster() {
  local data=$1 port=$2
  touch "$data/postgres.log"
  [ "$(id -u)" -ne 0 ] || chown postgres "$data/postgres.log"
  as_postgres "$PG_BIN/pg_ctl" -D "$data/postgres" -w -t 60 -l "$data/postgres.log" \
    -o "-p $port -c listen_addresses=127.0.0.1 -c unix_socket_directories=''" start >/dev/null 2>&1 9>&-
}

start_cluster() {
  local data=$1 port=$2
  # A database that an earlier start left behind when it was killed.
  if as_postgres "$PG_BIN/pg_ctl" -D "$data/postgres" status >/dev/null 2>&1; then stop_cluster "$data"; fi
  need_port "$port" LUMBIX_PG_PORT
  try_cluster "$data" "$port" || { tail -n 5 "$data/postgres.log" >&2; stop_with "the database did not start; the reason stands above."; }
}

# Starts a cluster that fell over. It may fall again while it recovers, and processes of the one before may hold its port and its
# memory for a moment.
restart_cluster() {
  local data=$1 port=$2
  for _ in $(seq 8); do
    ! try_cluster "$data" "$port" || return 0
    sleep 1
  done
  tail -n 5 "$data/postgres.log" >&2
  stop_with "the database does not start again; the reason stands above. What was committed is there."
}

# Fast, and where that takes long, at once: what was committed is there either way.
stop_cluster() {
  as_postgres "$PG_BIN/pg_ctl" -D "$1/postgres" -m fast -w -t "${2:-30}" stop >/dev/null 2>&1 ||
    as_postgres "$PG_BIN/pg_ctl" -D "$1/postgres" -m immediate -w -t 5 stop >/dev/null 2>&1 || true
}

# The cluster's own user, who makes databases and nothing else of Lumbix.
as_admin() {
  local data=$1 port=$2; shift 2
  PGPASSWORD=$(cat "$data/password") "$PG_BIN/psql" -qAt -v ON_ERROR_STOP=1 -h 127.0.0.1 -p "$port" -U lumbix "$@"
}

# A database with a role of its own, which owns it and reaches no other one. Older databases are handed over to their role.
make_database() {
  local data=$1 port=$2 name=$3 role=$3_app
  [ -s "$data/password-$name" ] || (umask 077; head -c 24 /dev/urandom | base64 | tr -d '/+=\n' >"$data/password-$name")
  as_admin "$data" "$port" -d postgres -c "select 1 from pg_database where datname = '$name'" | grep -q 1 ||
    as_admin "$data" "$port" -d postgres -c "create database $name"
  as_admin "$data" "$port" -d "$name" -v name="$name" -v role="$role" -v password="$(cat "$data/password-$name")" \
    -f tools/own-database.sql >/dev/null 2>"$data/own.log" || { tail -n 5 "$data/own.log" >&2; stop_with "the database $name could not be given its role; the reason stands above."; }
}

database_url() { printf 'postgres://%s_app:%s@127.0.0.1:%s/%s' "$3" "$(cat "$1/password-$3")" "$2" "$3"; }
# For tests, which make databases of their own.
cluster_url() { printf 'postgres://lumbix:%s@127.0.0.1:%s' "$(cat "$1/password")" "$2"; }

# Processes of this folder that an earlier start left behind when it was killed. Others that got the same ids stay.
stop_leftovers() {
  [ -f "$1" ] || return 0
  local pid
  while read -r pid; do
    [ "$(readlink "/proc/$pid/cwd" 2>/dev/null)" = "$PWD" ] || continue
    tr '\0' ' ' <"/proc/$pid/cmdline" 2>/dev/null | grep -qE 'node \.(build|output)/' || continue
    kill -TERM "$pid" 2>/dev/null || continue
    for _ in $(seq 50); do kill -0 "$pid" 2>/dev/null || break; sleep 0.1; done
    kill -KILL "$pid" 2>/dev/null || true
  done <"$1"
  rm -f "$1"
}

# The key that secrets are sealed with is outside the database, and nobody else may read it: one line, or two while it is renewed.
need_key() {
  export LUMBIX_KEY_FILE=$1
  [ -z "${LUMBIX_KEYS:-}" ] || return 0
  local key; key=$(node -e "process.stdout.write(require('crypto').randomBytes(32).toString('base64'))")
  if [ ! -s "$1" ]; then
    (umask 077; printf '%s\n' "$key" >"$1")
  elif [ "$2" = yes ]; then
    (umask 077; { printf '%s\n' "$key"; cat "$1"; } >"$1.new")
    mv "$1.new" "$1"
  fi
}

# What was sealed with older keys has been sealed anew; sessions that were not are over.
keep_newest_key() {
  [ -z "${LUMBIX_KEYS:-}" ] || return 0
  (umask 077; head -n 1 "$1" >"$1.new")
  mv "$1.new" "$1"
}

# The folder of the data of a Lumbix that was started before.
known_data() {
  local folder; folder=$(data_folder "${LUMBIX_DATA:-.data}") || exit 1
  [ -d "$folder/postgres" ] && [ -s "$folder/password-lumbix" ] || stop_with "there is no data in $folder. Start Lumbix once, or name its folder (LUMBIX_DATA)."
  printf '%s' "$folder"
}

# Has the cluster run for a while: the one that runs already, or one that is started for it. Sets PG_PORT.
with_cluster() {
  own_cluster=no
  if as_postgres "$PG_BIN/pg_ctl" -D "$1/postgres" status >/dev/null 2>&1; then
    PG_PORT=$(as_postgres sed -n 4p "$1/postgres/postmaster.pid")
  else
    PG_PORT=${LUMBIX_PG_PORT:-4702} own_cluster=yes
    start_cluster "$1" "$PG_PORT"
  fi
}
leave_cluster() { [ "$own_cluster" = no ] || stop_cluster "$1"; }
