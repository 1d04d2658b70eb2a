#!/usr/bin/env bash
# Private PostgreSQL cluster of this project, loopback only.   usage: scripts/db.sh start|stop|status|url|psql [args]|reset|remove|to TIME BASE WAL
# Env: DB_HOME (default <project>/.zabrik/pg), DB_NAME (default zabrik), DB_FSYNC (on|off; off only for throw-away test clusters),
#      DB_ARCHIVE (a directory: every piece of the write-ahead log is kept there as well, so that `to` can go back to any moment)
set -Eeuo pipefail
umask 077
ROOT=$(cd "$(dirname "${BASH_SOURCE[0]}")/.." && pwd -P)
NAME=${DB_NAME:-zabrik}
die() { echo "db.sh: $*" >&2; exit 1; }

# --- newest PostgreSQL >= 15 that is installed (Debian keeps initdb/pg_ctl out of PATH)
BIN=$(ls -d /usr/lib/postgresql/*/bin 2>/dev/null | sort -t/ -k5 -V | tail -1)
[ -n "$BIN" ] && [ -x "$BIN/initdb" ] || { BIN=$(dirname "$(command -v initdb || true)"); [ -x "$BIN/initdb" ] || die "no PostgreSQL server: apt-get install postgresql"; }

# --- who runs it: postgres refuses uid 0. setpriv needs no PAM session (runuser/su do)
if [ "$(id -u)" = 0 ]; then
  OWNER=${DB_OWNER:-postgres}
  id "$OWNER" >/dev/null 2>&1 || die "running as root and there is no user '$OWNER'"
  as() { (cd / && exec setpriv --reuid="$OWNER" --regid="$(id -g "$OWNER")" --init-groups --reset-env env PATH="$PATH" TZ=UTC "$@"); }
else
  OWNER=$(id -un); as() { (cd / && exec env TZ=UTC "$@"); }
fi

# --- where it lives: <project>/.pg, unless OWNER cannot walk into the project (e.g. under /root): then /var/tmp
HOME_DIR=${DB_HOME:-$ROOT/.zabrik/pg}
mkdir -p "$(dirname "$HOME_DIR")"; chmod 711 "$(dirname "$HOME_DIR")" 2>/dev/null || true
if ! as test -x "$(dirname "$HOME_DIR")"; then
  HOME_DIR=/var/tmp/$(basename "$ROOT")-$(basename "$HOME_DIR")-$(printf %s "$ROOT" | cksum | cut -d' ' -f1)
fi
DATA=$HOME_DIR/data LOG=$HOME_DIR/server.log PORTF=$HOME_DIR/port PWF=$HOME_DIR/password

mk_home() {                             # 0711: others may traverse, nobody but the owner may list; files inside are 0600
  mkdir -p "$HOME_DIR"; chmod 711 "$HOME_DIR"
  [ "$(id -u)" != 0 ] || chown "$OWNER" "$HOME_DIR"
}
free_port() { node -e 'const s=require("net").createServer().listen(0,"127.0.0.1",()=>{process.stdout.write(String(s.address().port));s.close()})'; }
port_free() { node -e 'const s=require("net").createServer();s.on("error",()=>process.exit(1)).listen(+process.argv[1],"127.0.0.1",()=>s.close())' "$1"; }
# running = postmaster.pid names a live process that really is a postgres on OUR data dir (pids get reused after a crash)
running() {
  local pid; pid=$(as head -1 "$DATA/postmaster.pid" 2>/dev/null) || return 1
  [ -d "/proc/$pid" ] && [ "$(cat "/proc/$pid/comm" 2>/dev/null)" = postgres ] && [ "$(as readlink "/proc/$pid/cwd" 2>/dev/null)" = "$DATA" ]
}
url() { echo "postgres://$NAME:$(cat "$PWF")@127.0.0.1:$(cat "$PORTF")/${1:-$NAME}"; }
psql_() { PGPASSWORD=$(cat "$PWF") "$BIN/psql" -X -q -v ON_ERROR_STOP=1 -h 127.0.0.1 -p "$(cat "$PORTF")" -U "$NAME" "$@"; }

start() {
  mk_home; exec 9>"$HOME_DIR/lock"; flock 9
  if running; then echo "already running: 127.0.0.1:$(cat "$PORTF")"; return; fi
  if [ ! -f "$DATA/PG_VERSION" ] || [ ! -f "$PWF" ]; then
    as rm -rf "$DATA"                                              # half-made cluster of an interrupted first start
    head -c 24 /dev/urandom | base64 | tr -d '/+=\n' > "$PWF"; chmod 600 "$PWF"; [ "$(id -u)" != 0 ] || chown "$OWNER" "$PWF"
    as "$BIN/initdb" -D "$DATA" -U "$NAME" --pwfile="$PWF" -A scram-sha-256 -E UTF8 --locale=C.UTF-8 -k >"$HOME_DIR/initdb.log" 2>&1 \
      || { cat "$HOME_DIR/initdb.log" >&2; die "initdb failed"; }
    as sh -c "cat >> '$DATA/postgresql.conf'" <<CONF
listen_addresses = '127.0.0.1'
unix_socket_directories = ''        # TCP only: no 107-byte socket path limit, no stray file in /tmp
password_encryption = scram-sha-256
max_connections = ${DB_CONNECTIONS:-60}
shared_buffers = 256MB
timezone = 'UTC'
log_timezone = 'UTC'
idle_in_transaction_session_timeout = '60s'
lock_timeout = '10s'
fsync = ${DB_FSYNC:-on}
CONF
  fi
  keep_log
  local pidf=$DATA/postmaster.pid                                  # stale after a kill: its pid may now be someone else's
  if as test -f "$pidf" && ! running; then as rm -f "$pidf"; fi
  local try port
  for try in 1 2 3; do
    port=$(cat "$PORTF" 2>/dev/null || true)
    if [ -z "$port" ] || ! port_free "$port"; then port=$(free_port); echo "$port" > "$PORTF"; chmod 644 "$PORTF"; fi
    if as "$BIN/pg_ctl" -D "$DATA" -l "$LOG" -w -t 60 -s -o "-p $port" start 9>&-; then break; fi   # 9>&-: or postgres inherits the lock
    [ "$try" = 3 ] && { as tail -20 "$LOG" >&2; die "could not start"; }
    rm -f "$PORTF"
  done
  psql_ -d postgres -Atc "select 1 from pg_database where datname='$NAME'" | grep -q 1 || psql_ -d postgres -c "create database \"$NAME\""
  echo "started: 127.0.0.1:$port"
}
keep_log() {                            # a segment that is there already and the same is kept already: PostgreSQL asks again after a crash
  as grep -q archive.conf "$DATA/postgresql.conf" || as sh -c "echo \"include_if_exists 'archive.conf'\" >> '$DATA/postgresql.conf'"
  if [ -z "${DB_ARCHIVE:-}" ]; then as rm -f "$DATA/archive.conf"; return; fi
  mkdir -p "$DB_ARCHIVE"; chmod 711 "$(dirname "$DB_ARCHIVE")"; [ "$(id -u)" != 0 ] || chown "$OWNER" "$DB_ARCHIVE"
  as test -w "$DB_ARCHIVE" || die "$OWNER cannot write to $DB_ARCHIVE"
  as sh -c "cat > '$DATA/archive.conf'" <<CONF
archive_mode = on
archive_timeout = 300
archive_command = 'if test -f "$DB_ARCHIVE/%f.gz"; then gzip -dc "$DB_ARCHIVE/%f.gz" | cmp -s - "%p"; else gzip -c "%p" > "$DB_ARCHIVE/%f.part" && sync "$DB_ARCHIVE/%f.part" && mv "$DB_ARCHIVE/%f.part" "$DB_ARCHIVE/%f.gz"; fi'
CONF
}
# The cluster as it stood at a moment: from a base backup and the log kept since. What is there now is set aside, never removed.
to() {
  local time=${1/T/ } base=$2 wal=$3 aside new=$HOME_DIR/data-new
  time=${time/Z/+00}                                               # PostgreSQL reads this setting without T and Z
  [ -f "$base/base.tar.gz" ] || die "$base holds no base backup"
  stop >/dev/null
  aside=$HOME_DIR/data-before-$(date -u +%Y%m%dT%H%M%S)
  as rm -rf "$new"; as mkdir -m 700 "$new"
  as tar -xzf - -C "$new" <"$base/base.tar.gz"
  as sh -c "cp '$DATA'/pg_wal/0* '$new/pg_wal/' 2>/dev/null || true"   # what was written last is not archived yet
  as sh -c "cat >> '$new/postgresql.auto.conf'" <<CONF
restore_command = 'gzip -dc "$wal/%f.gz" > "%p"'
recovery_target_time = '$time'
recovery_target_action = 'promote'
CONF
  as touch "$new/recovery.signal"
  as mv "$DATA" "$aside"; as mv "$new" "$DATA"
  local ok=1
  (start) >/dev/null || ok=0
  if [ "$ok" = 1 ]; then
    local i
    for i in $(seq 1 600); do
      case "$(psql_ -d postgres -Atc 'select pg_is_in_recovery()' 2>/dev/null || true)" in
        f) break ;;
        t) psql_ -d postgres -Atc 'select 1 where pg_is_wal_replay_paused()' 2>/dev/null | grep -q 1 && ok=0 && break; sleep 0.5 ;;
        *) running || { ok=0; break; }; sleep 0.5 ;;
      esac
    done
  fi
  if [ "$ok" = 0 ]; then
    as tail -3 "$LOG" >&2
    stop >/dev/null
    as rm -rf "$DATA"; as mv "$aside" "$DATA"
    die "the log does not reach $time; everything is as it was"
  fi
  local name; for name in restore_command recovery_target_time recovery_target_action; do psql_ -d postgres -c "alter system reset $name"; done
  echo "$aside"
}
stop() { if running; then as "$BIN/pg_ctl" -D "$DATA" -m fast -w -t 60 -s stop; echo stopped; else echo "not running"; fi; }

case "${1:-}" in
  start) start ;;
  stop) stop ;;
  status) if running; then echo "running: 127.0.0.1:$(cat "$PORTF")"; else echo stopped; exit 3; fi ;;
  url) running || die "not running"; url "${2:-}" ;;
  psql) shift; psql_ -d "$NAME" "$@" ;;
  remove) stop; as rm -rf "$DATA"; rm -rf "$HOME_DIR" ;;
  to) [ $# = 4 ] || die "to TIME BASE WAL"; to "$2" "$3" "$4" ;;
  reset) stop; as rm -rf "$DATA"; rm -f "$PORTF" "$PWF"; start ;;
  *) sed -n '2,3p' "$0"; exit 2 ;;
esac
