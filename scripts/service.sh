# What ./zabrik does for a kitchen's own machine: a release that needs no compiler and no registry, a service, an upgrade that goes back by itself,
# and a look at everything. Sourced by ./zabrik. ZABRIK_PREFIX puts all of it under another folder, without a user and without systemd: for the tests.
PREFIX=${ZABRIK_PREFIX:-}
APP=$PREFIX/opt/zabrik            # one folder a version, and `now`, which leads to the one that runs
HOME_OF_STATE=$PREFIX/var/lib/zabrik
UNIT=$PREFIX/etc/systemd/system/zabrik.service
SERVICE_USER=zabrik

# --- a release: the app as it runs, with the libraries it needs at run time
version_here() {
  if [ -f RELEASE ]; then cat RELEASE; return; fi
  local number commit
  number=$(node -p 'require("./package.json").version')
  commit=$(git rev-parse --short HEAD 2>/dev/null || echo local)
  [ -z "$(git status --porcelain 2>/dev/null)" ] || commit=$commit-changed
  echo "$number-$commit"
}
stage() { # FOLDER: makes a release in it
  local to=$1 part
  mkdir -p "$to/scripts" "$to/packages/server" "$to/packages/web"
  if [ -f RELEASE ]; then cp -a RELEASE zabrik scripts packages package.json node_modules docs "$to/"; [ ! -f LICENSE ] || cp LICENSE CHANGELOG.md "$to/"; return; fi
  need_packages; need_build
  cp -a zabrik package.json "$to/"; cp -a scripts/db.sh scripts/service.sh "$to/scripts/"
  cp -a packages/server/dist "$to/packages/server/"; cp -a packages/web/dist "$to/packages/web/"
  find "$to/packages" -name '*.map' -delete
  mkdir -p "$to/docs"; cp -a docs/operator.md docs/devices.md docs/security.md "$to/docs/"
  cp -a LICENSE CHANGELOG.md "$to/"
  if [ -n "${ZABRIK_BORROW_LIBRARIES:-}" ]; then ln -s "$ROOT/node_modules" "$to/node_modules" # for the tests: not to be carried away
  else
    local aside; aside=$(mktemp -d)
    cp package.json package-lock.json "$aside/"
    for part in packages/*/ e2e/; do mkdir -p "$aside/$part"; cp "$part/package.json" "$aside/$part"; done
    (cd "$aside" && quiet npm ci --omit=dev --ignore-scripts --no-audit --no-fund --workspace packages/server)
    rm -rf "$aside/node_modules/@zabrik"
    mv "$aside/node_modules" "$to/node_modules"
    rm -rf "$aside"
  fi
  version_here >"$to/RELEASE"
}
cmd_pack() {
  need_node
  local file; file=$(from_here "${1:-zabrik-$(version_here)-$(uname -m).tar.gz}")
  [ ! -e "$file" ] || die "$file is there already"
  local aside; aside=$(mktemp -d)
  stage "$aside/zabrik"
  (umask 022; tar -C "$aside" --owner=0 --group=0 --mode='u+rw,go+r,go-w,a+X' -czf "$file" zabrik)
  rm -rf "$aside"
  say "$file ($(du -h "$file" | cut -f1)), version $(version_here): it needs Node 20 and Debian's PostgreSQL, no compiler and no registry"
}

# --- the service
systemd() { [ -z "$PREFIX" ] && [ -d /run/systemd/system ]; }
by_service() { # into BY: what a command begins with to be the service's user's, with its records
  BY=(env -u ZABRIK_BACKUPS -u DB_HOME ZABRIK_STATE="$HOME_OF_STATE" ZABRIK_BACKUPS="$HOME_OF_STATE/backups" DB_HOME="$HOME_OF_STATE/pg")
  if [ -z "$PREFIX" ] && [ "$(id -u)" = 0 ]; then BY=(setpriv --reuid="$SERVICE_USER" --regid="$SERVICE_USER" --init-groups "${BY[@]}"); fi
}
as_service() { by_service; "${BY[@]}" "$@"; }
service_start() {
  if systemd; then systemctl start zabrik; return; fi
  # nothing starts it again at boot: said by install. Nothing of this shell is left open in it: who waits for the command would wait for the service
  by_service
  # shellcheck disable=SC2046
  (cd /; exec >>"$HOME_OF_STATE/service.log" 2>&1 </dev/null 8>&-; exec "${BY[@]}" setsid $(sed -n 's/^ExecStart=//p' "$UNIT")) &
  echo $! >"$HOME_OF_STATE/service.pid"
}
service_stop() {
  if systemd; then systemctl stop zabrik; return; fi
  local pid; pid=$(cat "$HOME_OF_STATE/service.pid" 2>/dev/null) || return 0
  kill -TERM "$pid" 2>/dev/null || true
  local i; for i in $(seq 1 300); do kill -0 "$pid" 2>/dev/null || break; sleep 0.2; done
  rm -f "$HOME_OF_STATE/service.pid"
}
service_runs() {
  if systemd; then systemctl is-active --quiet zabrik; return; fi
  local pid; pid=$(cat "$HOME_OF_STATE/service.pid" 2>/dev/null) && kill -0 "$pid" 2>/dev/null
}
service_ready() { # SECONDS: until it answers that it is ready; fails when it does not, or ends
  local i
  for i in $(seq 1 $(($1 * 2))); do
    if [ -s "$HOME_OF_STATE/port" ] && node -e 'fetch(process.argv[1]).then((r) => process.exit(r.ok ? 0 : 1), () => process.exit(1))' "http://127.0.0.1:$(cat "$HOME_OF_STATE/port")/readyz"; then return 0; fi
    service_runs || return 1
    sleep 0.5
  done
  return 1
}
need_root() { [ -n "$PREFIX" ] || [ "$(id -u)" = 0 ] || die "as root, please: sudo ./zabrik $1"; }
lead_to() { ln -sfn "$1" "$APP/next" && mv -Tf "$APP/next" "$APP/now"; } # at once: there is no moment without a version

cmd_install() {
  local serves=serve
  case "${1:-}" in '') ;; --lan) serves='serve --lan' ;; *) die "install knows only --lan" ;; esac
  need_root install; need_node
  [ ! -e "$APP/now" ] || die "version $(basename "$(readlink -f "$APP/now")") is installed already; another comes by ./zabrik upgrade FILE"
  need_debian postgresql '/usr/lib/postgresql/*/bin/initdb' postgresql-client '/usr/lib/postgresql/*/bin/pg_dump'
  local version; version=$(version_here)
  say "version $version to $APP"
  mkdir -p "$APP" "$HOME_OF_STATE" "$(dirname "$UNIT")"
  stage "$APP/$version.new"; rm -rf "${APP:?}/$version"; mv "$APP/$version.new" "$APP/$version"; chmod -R a+rX "$APP/$version"
  lead_to "$APP/$version"
  if [ -z "$PREFIX" ]; then
    id "$SERVICE_USER" >/dev/null 2>&1 || useradd --system --home-dir "$HOME_OF_STATE" --shell /usr/sbin/nologin "$SERVICE_USER"
    chown "$SERVICE_USER:$SERVICE_USER" "$HOME_OF_STATE"
  fi
  chmod 711 "$HOME_OF_STATE"
  cat >"$UNIT" <<UNIT
[Unit]
Description=Zabrik, the kitchen's server
After=network-online.target
Wants=network-online.target

[Service]
User=$SERVICE_USER
Environment=ZABRIK_STATE=$HOME_OF_STATE
WorkingDirectory=$HOME_OF_STATE
ExecStart=$APP/now/zabrik $serves
Restart=always
RestartSec=3
KillMode=mixed
TimeoutStopSec=90
NoNewPrivileges=yes
PrivateTmp=yes
ProtectSystem=strict
ProtectHome=yes
ReadWritePaths=$HOME_OF_STATE

[Install]
WantedBy=multi-user.target
UNIT
  if systemd; then systemctl daemon-reload; systemctl enable --quiet zabrik; fi
  service_start
  service_ready 120 || die "it is installed and does not answer: see $(where_it_says)"
  if systemd; then say "the service zabrik runs, and starts with the machine"
  else say "it runs; on a machine without systemd nothing starts it again after a reboot: $APP/now/zabrik $serves"; fi
  [ ! -s "$HOME_OF_STATE/set-up-code" ] || say "no kitchen stands here yet. Set yours up by this code: $(cat "$HOME_OF_STATE/set-up-code")"
  say "on this machine: http://localhost:$(cat "$HOME_OF_STATE/port")"
}
where_it_says() { if systemd; then echo "journalctl -u zabrik"; else echo "$HOME_OF_STATE/service.log"; fi; }

cmd_upgrade() {
  [ -n "${1:-}" ] || die "upgrade FILE: an archive made by ./zabrik pack"
  need_root upgrade; need_node
  local file before; file=$(from_here "$1")
  [ -f "$file" ] || die "upgrade FILE: no such file: $file"
  [ -e "$APP/now" ] || die "nothing is installed here; ./zabrik install first"
  before=$(readlink -f "$APP/now")
  local aside=$APP/unpacked; rm -rf "$aside"; mkdir -p "$aside"
  tar -C "$aside" -xzf "$file" 2>/dev/null && [ -s "$aside/zabrik/RELEASE" ] && [ -f "$aside/zabrik/packages/server/dist/main.js" ] ||
    { rm -rf "$aside"; die "$file is no release of Zabrik; nothing was changed"; }
  local version; version=$(cat "$aside/zabrik/RELEASE")
  [ "$(cat "$before/RELEASE")" != "$version" ] || { rm -rf "$aside"; die "version $version runs already"; }
  rm -rf "${APP:?}/$version"; mv "$aside/zabrik" "$APP/$version"; rm -rf "$aside"; chmod -R a+rX "$APP/$version"
  say "from $(cat "$before/RELEASE") to $version; the kitchen is away for a moment, tablets keep what is done"
  service_stop
  # what is kept is what the version before wrote, to its last line
  local kept; kept=$HOME_OF_STATE/backups/before-$version-$(date -u +%Y%m%dt%H%M%S).dump
  as_service mkdir -p "$HOME_OF_STATE/backups"
  as_service "$before/zabrik" backup "$kept" >>"$HOME_OF_STATE/upgrade.log" 2>&1 || { service_start; die "no backup could be made ($HOME_OF_STATE/upgrade.log); nothing was changed"; }
  lead_to "$APP/$version"
  service_start
  if service_ready 120; then
    say "version $version runs; the records of before are kept in $kept"
    # the one before stays, for a second thought; older ones go
    local old; for old in "$APP"/*/; do old=${old%/}; case "$old" in "$APP/$version" | "$before" | "$APP/now") ;; *) rm -rf "$old" ;; esac; done
    return
  fi
  say "version $version did not come up; going back"
  service_stop
  lead_to "$before"
  as_service "$before/zabrik" restore "$kept" >>"$HOME_OF_STATE/upgrade.log" 2>&1 || die "the version before is back but the records could not be: $HOME_OF_STATE/upgrade.log; they are whole in $kept"
  service_start
  service_ready 120 || die "the version before is back and does not answer: see $(where_it_says)"
  rm -rf "${APP:?}/$version"
  die "version $version did not come up (see $(where_it_says)); $(cat "$before/RELEASE") runs again, with every record"
}

# --- a look at everything
cmd_doctor() {
  need_node
  local state=$STATE
  if [ -e "$APP/now" ] && [ ! -f "$STATE/port" ]; then state=$HOME_OF_STATE; fi
  need_debian postgresql '/usr/lib/postgresql/*/bin/initdb'
  [ -f packages/server/dist/doctor.js ] || need_build
  DATABASE_URL=$(DB_HOME=$state/pg db url 2>/dev/null || true) ZABRIK_STATE=$state ZABRIK_BACKUPS=${ZABRIK_BACKUPS:-$state/backups} \
    node --enable-source-maps packages/server/dist/doctor.js || exit 1
}
