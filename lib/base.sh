# Sourced by ./knot: records in a PostgreSQL that stands elsewhere, so that several servers can work on them.

# Nothing of it crosses a network in the open, and nobody else on this machine reads its passwords.
base_file() {
  [ $((0$(stat -c %a "$BASE") & 077)) = 0 ] || die "others can read $BASE, in which passwords stand. Close it: chmod 600 $BASE"
  local name
  for name in url owner app; do
    [ -n "$(sed -n "s/^$name=//p" "$BASE")" ] || die "$BASE has no line $name=. It wants three: url=jdbc:postgresql://HOST:PORT/knot…, owner=PASSWORD of knot_owner, app=PASSWORD of knot_app"
  done
  DB_URL="$(sed -n 's/^url=//p' "$BASE")"
  [[ "$DB_URL" =~ ^jdbc:postgresql://[^/]+/[^?]+ ]] || die "the url in $BASE is not one of PostgreSQL: jdbc:postgresql://HOST:PORT/knot"
  [[ "$DB_URL" =~ ^jdbc:postgresql://(localhost|127\.[0-9.]+)(:[0-9]+)?/ ]] || [[ "$DB_URL" =~ [?\&]sslmode=verify-(full|ca)(\&|$) ]] \
    || die "the url in $BASE goes over a network in the open. Add ?sslmode=verify-full&sslrootcert=FILE"
}

base_open() { OWNER="$(sed -n 's/^owner=//p' "$BASE")"; APP_PASSWORD="$(sed -n 's/^app=//p' "$BASE")"; }

# A backup of a base that stands elsewhere is made there; whoever lets it be changed says that there is one.
base_migrate() {
  local said pending
  said="$(migrate_program pending)" || die "$(printf '%s\n' "$said" | sed -n 's/^KNOT [a-z]* //p' | tail -n 1 | grep . || echo "the base that $BASE names does not answer.") Its log: $DATA/run/migrate.log"
  pending="$(sed -n 's/^KNOT pending //p' <<<"$said")"
  [ "$pending" = 0 ] || [ "$BACKED_UP" = yes ] \
    || die "this version changes the base in $pending steps. Stop all servers on it, make a backup of it there, and start this one with --backed-up."
  said="$(migrate_program)" || die "$(printf '%s\n' "$said" | sed -n 's/^KNOT [a-z]* //p' | tail -n 1) Its log: $DATA/run/migrate.log"
}

base_elsewhere() { ! grep -q '^--base$' "$DATA/words" 2>/dev/null || die "the records of $DATA lie in a base of their own: make and try backups there (docs/operate.md)."; }
