# Sourced by ./knot bench. Prints a table; keeps nothing but what it prints.
DATA="$(mktemp -d /tmp/knot-bench-XXXXXX)"; chmod 755 "$DATA"; mkdir -p "$DATA/run" "$DATA/web"; own_user; own "$DATA/web"
trap 'stop_all; rm -rf "$DATA"' EXIT
PORT="$(free_port 8900)"; RUNS=5
say "Measuring on $(nproc) cores; durable PostgreSQL settings" >&2
pg_start ''
PGPASSWORD="$ADMIN" "$(pg_bin)/psql" -q -h 127.0.0.1 -p "$PG_PORT" -U knot_admin -d postgres -c 'create database bare owner knot_owner' >/dev/null
bench_programs

seconds() { sed -n 's/.*process running for \([0-9.]*\)).*/\1/p' "$DATA/web/server.log" | tail -n 1; }
middle() { sort -n | sed -n "$((RUNS / 2 + 1))p"; }
bare() {
  : >"$DATA/web/server.log"
  setsid java -Xmx640m -XX:+UseSerialGC -Dknot-tag.bare=yes -cp "$HERE/target/bench:$HERE/server/target/app/lib/*" bench.BareApp --server.port="$PORT" \
    --spring.datasource.url="jdbc:postgresql://127.0.0.1:$PG_PORT/bare" --spring.datasource.username=knot_owner --spring.datasource.password="$OWNER" \
    --spring.session.jdbc.initialize-schema=always >"$DATA/web/server.log" 2>&1 </dev/null &
  echo $! >"$DATA/run/server.pid"; wait_line server "$DATA/web/server.log" 'KNOT ready' 120
}
place_app; migrate
run_server start; end_process server knot-tag
for _ in $(seq $RUNS); do
  bare; seconds >>"$DATA/bare"; end_process server knot-tag
  run_server start; seconds >>"$DATA/ours"; end_process server knot-tag
done
as_owner() { PGPASSWORD="$OWNER" "$(pg_bin)/psql" -Atq -h 127.0.0.1 -p "$PG_PORT" -U knot_owner -d knot -c "$1"; }
printf '\n| %-38s | %12s | %-20s | %s |\n' what 'Knot Tag' 'compared with' remark
printf '|%s|%s|%s|%s|\n' ---------------------------------------- -------------- ---------------------- --------
printf '| %-38s | %10s s | bare Boot %8s s | median of %s, tables there already |\n' 'start-up of the process' "$(middle <"$DATA/ours")" "$(middle <"$DATA/bare")" "$RUNS"
run_server start; TOKEN="$(sed 's|^/join/||' "$DATA/web/first-lead")"
java -cp "$HERE/target/bench:$HERE/server/target/app/knot-tag.jar:$HERE/server/target/app/lib/*" bench.Measure "http://127.0.0.1:$PORT" "$TOKEN" "jdbc:postgresql://127.0.0.1:$PG_PORT/knot" "$OWNER" || die "list and finder could not be measured"
java -cp "$HERE/target/bench:$HERE/server/target/app/lib/*" bench.Load "http://127.0.0.1:$PORT" "jdbc:postgresql://127.0.0.1:$PG_PORT/knot" "$OWNER" || die "fifty people at work could not be measured"
# All that was measured until here, in one file, and back into a cluster of its own.
began=$(date +%s%N); OUT="$(backup_program make "$DATA/b.zip" "$DATA" start)" || die "$(said failed)"
printf '| %-38s | %10s s | %-20s | %s |\n' 'backup of all that' "$((($(date +%s%N) - began) / 1000000000))" 'wanted < 60 s' "$(($(stat -c %s "$DATA/b.zip") / 1000000)) MB, of $(as_owner "select pg_database_size('knot') / 1000000") MB in the base"
(real="$DATA"; DATA="$real/back"; mkdir -p "$DATA/run"; chmod 711 "$DATA"; trap 'pg_stop' EXIT; pg_start ''; began=$(date +%s%N)
  OUT="$(backup_program restore "$real/b.zip" "$DATA")" || die "$(said failed)"
  printf '| %-38s | %10s s | %-20s | %s |\n' 'brought back, its log checked' "$((($(date +%s%N) - began) / 1000000000))" 'wanted < 180 s' 'into a fresh cluster on the same disk') || exit 1
rm -rf "$DATA/back" "$DATA/b.zip"
(cd "$HERE" && mvn -B -ntp -q -pl e2e test -Dtest=FirstPage -Dknot.url="http://127.0.0.1:$PORT" 2>&1 | grep '^|') || die "the first page could not be measured"
java -cp "$HERE/target/bench:$HERE/server/target/app/lib/*" bench.PlanMeasure || die "the plan could not be measured"
(cd "$HERE" && mvn -B -ntp -q -pl e2e test -Dtest=TapeFrames -Dknot.url="http://127.0.0.1:$PORT" 2>&1 | grep '^|') || die "the tape could not be measured"
(cd "$HERE" && mvn -B -ntp -q -pl core test-compile) && java -cp "$HERE/core/target/test-classes:$HERE/server/target/app/lib/*" app.knottag.core.reach.DiagnosisBench \
  || die "the diagnosis could not be measured"
java -cp "$HERE/core/target/test-classes:$HERE/server/target/app/lib/*" app.knottag.core.visit.VisitBench || die "the visits could not be measured"
(cd "$HERE" && mvn -B -ntp -q -pl core test -Dtest='VisitPlannerTest#nothingTriedByHandIsEverBetter' -Dknot.visits=200 >/dev/null 2>&1) \
  && printf '| %-38s | %12s | %-20s | %s |\n' 'visits against trying everything' 'as good' 'seeds 0 to 199' 'tiny visits: never a better finish, never a bound above it' \
  || die "a plan of a visit is worse than trying everything"
(cd "$HERE" && mvn -B -ntp -q -pl core test -Dtest='PlacementTest#asGoodAsTryingEverything,RenumberingTest#movesAsFewAsCanBe' -Dknot.sites=1000 >/dev/null 2>&1) \
  && printf '| %-38s | %12s | %-20s | %s |\n' 'planner against trying everything' 'as good' 'seeds 1, 2, 3' '1 000 random small sites each: finds a plan whenever there is one, grants as many wishes, moves as few' \
  || die "the planner is worse than trying everything on one of 1 000 sites"
(test_database; cd "$HERE" && maven -pl core,server -Dknot.failIfNoTests=false -Dsurefire.failIfNoSpecifiedTests=false -Dtest=HostileTest -Dknot.hostile=20000 test 2>&1 | grep '^|') || die "one of 20 000 hostile requests was not answered as it should be"
(test_database; cd "$HERE" && maven -pl core,server -Dknot.failIfNoTests=false -Dsurefire.failIfNoSpecifiedTests=false -Dtest=RacesTest -Dknot.races=56 test 2>&1 | grep '^|') || die "of those who raced for one thing, not exactly one got it"
(cd "$HERE" && mvn -B -ntp -q -pl e2e test -Dtest='CrashTest#nothingAcknowledgedIsLost' -Dknot.crashes=20 -Dknot.writes=10000 2>&1 | grep '^|') || die "something acknowledged was lost in a crash, or the crashes could not be made"
printf '\nList and finder: 50 000 endpoints, loops warmed by 60, medians of 101, one caller on loopback, Java HttpClient and JDBC.\n'
printf 'First page: headless Chromium, a fresh profile each time, medians of 9.\n'
printf 'Site of 5 000: with a cable to a port for each, five registries and two thirds of all entries in them; medians of 9, one caller.\n'
printf 'Plan: warmed loops of core alone, medians of 101. Tape: script, style and layout of 240 turns of the wheel in headless Chromium.\n'
