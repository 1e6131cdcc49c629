# Sourced by ./knot: everything in one file, by itself each night, and back on an empty machine.

# Backups are the program's; here it gets what it needs for one.
backup_program() {
  KNOT_DB_URL="$DB_URL" KNOT_DB_OWNER_PASSWORD="$OWNER" KNOT_PG_BIN="$(pg_bin)" \
    java -Xmx192m -XX:+UseSerialGC -XX:TieredStopAtLevel=1 -Djava.io.tmpdir="$DATA/run" \
    -cp "$HERE/server/target/app/knot-tag.jar" app.knottag.server.backup.Backup "$@" 2>>"$DATA/run/backup.log"
}
said() { printf '%s\n' "$OUT" | sed -n "s/^KNOT $1 //p"; }
# What the program says is kept in OUT; when it fails its reason is the last word of this one.
backup_do() { OUT="$(backup_program "$@")" || die "$(said failed | tail -n 1 | grep . || echo "it did not work; see $DATA/run/backup.log")"; }

# Where ./knot start was told to keep them, unless this call says otherwise.
find_backups() { BACKUPS="${BACKUPS:-$(sed -n '/^--backups$/{n;p}' "$DATA/words" 2>/dev/null)}"; BACKUPS="${BACKUPS:-$DATA/backups}"; }
make_backups() { [ -d "$BACKUPS" ] || { mkdir -p "$BACKUPS" && chmod 700 "$BACKUPS"; } || die "cannot write in $BACKUPS"; }
find_data() {
  if [ -z "$DATA" ]; then DATA="$(default_data start)"; [ -e "$DATA/.knot-data" ] || DATA="$(default_data demo)"; fi
  [ -e "$DATA/.knot-data" ] || die "nothing of Knot Tag is in $DATA. Say where with --data DIR"
  DATA="$(cd "$DATA" && pwd)"; MODE="$(cat "$DATA/.knot-data")"; find_backups
}
one_backup_at_a_time() { exec 7>"$DATA/run/backup.lock"; flock -n 7 || die "another backup of $DATA is being made. Wait until it is done."; }

backup() {
  find_data; base_elsewhere; need_tools; build; one_backup_at_a_time
  local began=$SECONDS to="$TO" stood=yes
  : >"$DATA/run/backup.log"
  if [ -z "$to" ]; then make_backups; to="$BACKUPS"; fi
  [ -d "$to" ] && to="$to/knot-${NIGHTLY:+night-}$(date +%Y-%m-%d-%H%M).zip"
  [ -d "$(dirname "$to")" ] || die "there is no folder $(dirname "$to")"
  to="$(cd "$(dirname "$to")" && pwd)/$(basename "$to")"
  pg_running || stood=no
  pg_start ''
  OUT="$(backup_program make "$to" "$DATA" "$MODE")"; local made=$?
  if [ $made != 0 ]; then
    local why; why="$(said failed | tail -n 1)"; why="${why:-it did not work; see $DATA/run/backup.log}"
    backup_program failed "$(basename "$to")" "$why" >/dev/null
    [ $stood = yes ] || pg_stop
    die "$why"
  fi
  say "Backed up to $to ($(du -h "$to" | cut -f1), $((SECONDS - began)) s)"
  say "  $(said made)"
  [ "$(stat -c %d "$to")" != "$(stat -c %d "$DATA")" ] || say "  It lies on the same disk as the records: copy it to another one, or give one with --to."
  [ -z "$NIGHTLY" ] || OUT="$(backup_program prune "$BACKUPS")"
  [ $stood = yes ] || pg_stop
}

# Whatever a new version changes, the way back is the backup from before and the version that made it.
before_upgrade() {
  local pending to; pending="$(migrate_program pending | sed -n 's/^KNOT pending //p')"
  [ "${pending:-0}" -gt 0 ] || return 0
  local at="$BACKUPS"; find_backups; make_backups
  to="$BACKUPS/knot-before-upgrade-$(date +%Y-%m-%d-%H%M).zip"
  say "Backing up before the upgrade"
  OUT="$(backup_program make "$to" "$DATA" start)" || die "nothing was upgraded, since no backup could be made: $(said failed | tail -n 1)"
  say "  $to: $(said made)"
  say "  To go back: ./knot stop, move $DATA away, and ./knot restore that file with the version from before."
  BACKUPS="$at"
}

newest_backup() { ls -t "$BACKUPS"/knot-*.zip 2>/dev/null | head -n 1; }

# Brings it back beside what stands there, compares, and takes that away again.
rehearse() {
  find_data; base_elsewhere; need_tools; build; one_backup_at_a_time
  local file="${REST[0]:-$(newest_backup)}" began=$SECONDS real="$DATA" why
  [ -n "$file" ] || die "there is no backup in $BACKUPS yet. Make one with ./knot backup"
  DATA="$real/rehearsal"; pg_stop; rm -rf "$DATA"; mkdir -p "$DATA/run"; chmod 711 "$DATA"
  trap 'pg_stop; rm -rf "$DATA"' EXIT
  : >"$DATA/run/backup.log"
  pg_start ''
  OUT="$(backup_program restore "$file" "$DATA")" && why='' || why="$(said failed | tail -n 1)"
  [ -n "$why" ] || [ -n "$(said restored)" ] || why="it did not work; see $real/run/backup.log"
  [ -n "$why" ] || (migrate) || why="it cannot be brought up to date"
  local words; words="$(said restored)"
  cp "$DATA/run/backup.log" "$real/run/backup.log"
  pg_stop; rm -rf "$DATA"; trap - EXIT; DATA="$real"
  local stood=yes; pg_running || stood=no
  pg_start ''
  if [ -n "$why" ]; then backup_program failed "$(basename "$file")" "$why" >/dev/null; else backup_program rehearsed "$(basename "$file")" >/dev/null; fi
  [ $stood = yes ] || pg_stop
  [ -z "$why" ] || die "$why"
  say "$file can be brought back ($((SECONDS - began)) s)"
  say "  $words"
}

restore() {
  local file; file="$(realpath -e "${REST[0]:-}" 2>/dev/null)" || die "there is no file ${REST[0]:-}. Say which: ./knot restore FILE"
  need_tools; own_user; build
  # What it says of itself is read in a folder of its own, in a shell of its own: nothing that cleans up there can meet the records.
  local look; look="$(mktemp -d)"; mkdir "$look/run"
  OUT="$(DATA="$look" DB_URL='' OWNER='' backup_program read "$file")"; local read=$?
  rm -rf "$look"
  [ $read = 0 ] || die "$(said failed | tail -n 1 | grep . || echo "$file cannot be read")"
  MODE="$(said mode)"; DATA="${DATA:-$(default_data "$MODE")}"
  [ ! -e "$DATA/pg" ] && [ -z "$(ls -A "$DATA/lists" 2>/dev/null)" ] || die "there are records in $DATA already. Choose an empty folder with --data DIR, or move that one away."
  open_data "$MODE"
  say "Bringing back $(said holds)"
  local began=$SECONDS
  trap 'pg_stop; (cd "$DATA" && rm -rf pg db.secrets lists standins.json portal.json reservations.conf pace); say "Nothing was kept in $DATA." >&2' EXIT
  : >"$DATA/run/backup.log"
  pg_start ''
  backup_do restore "$file" "$DATA"
  migrate
  trap - EXIT
  pg_stop
  say "All of it is there, and the log is whole ($((SECONDS - began)) s). Start it with ./knot $MODE$([ "$DATA" = "$(default_data "$MODE")" ] || printf ' --data %s' "$DATA")"
}

# For whoever has the shell of this machine; it stands in the log.
let_in() {
  find_data; need_tools; build
  BASE="$(sed -n '/^--base$/{n;p}' "$DATA/words" 2>/dev/null)"
  if [ -n "$BASE" ]; then base_file; base_open
  else pg_running || die "Knot Tag does not run in $DATA. Start it first."; pg_start ''; fi
  OUT="$(KNOT_DB_URL="$DB_URL" KNOT_DB_OWNER_PASSWORD="$OWNER" \
    java -Xmx96m -XX:+UseSerialGC -XX:TieredStopAtLevel=1 -cp "$HERE/server/target/app/knot-tag.jar" app.knottag.server.account.LetIn "${REST[0]:-}" 2>"$DATA/run/let-in.log")" \
    || die "it did not work; see $DATA/run/let-in.log"
  [ -n "$(said link)" ] || die "say for which lead: ./knot let-in NAME. The leads are: $(said leads)"
  say "Good once, for an hour:  $(cat "$DATA/run/port")$(said link)"
}

# Runs beside the server: each night at its hour, or as soon as it runs again after that. What failed is tried again after an hour.
nightly() {
  find_data; make_backups
  local last at now again=0
  while sleep "${KNOT_NIGHTLY_PAUSE:-60}"; do
    [ -e "$DATA/run/server.pid" ] || exit 0
    at="$(date -d "$BACKUP_AT" +%s)"; now="$(date +%s)"; last="$(stat -c %Y "$DATA/run/night" 2>/dev/null || echo 0)"
    [ "$now" -ge "$at" ] && [ "$last" -lt "$at" ] && [ "$now" -ge "$again" ] || continue
    again=$((now + 3600))
    NIGHTLY=yes "$HERE/knot" backup --data "$DATA" --backups "$BACKUPS" || continue
    touch "$DATA/run/night"
    [ -n "$(find "$DATA/run/rehearsed" -mtime -7 2>/dev/null)" ] && continue
    "$HERE/knot" backup --check --data "$DATA" --backups "$BACKUPS" && touch "$DATA/run/rehearsed"
  done
}
begin_nightly() {
  end_process nightly nightly
  [ "$BACKUP_AT" != off ] || return 0
  rotate "$DATA/run/nightly.log"
  setsid "$HERE/knot" nightly --data "$DATA" ${BACKUPS:+--backups "$BACKUPS"} --backup-at "$BACKUP_AT" >"$DATA/run/nightly.log" 2>&1 </dev/null 8>&- 9>&- &
  echo $! >"$DATA/run/nightly.pid"
}
