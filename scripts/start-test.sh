#!/usr/bin/env bash
# Tries ./start where it was seen to stumble: odd folders, two at once, a kill, keeping a copy and bringing it back.
# start-test.sh [FILE]: leaves the copy of the demo it made in FILE, for other tests to begin from
set -u
cd "$(dirname "$(readlink -f "$0")")/.." || exit 1
. scripts/lib.sh
. scripts/database.sh
need_base

dir=$(mktemp -d /tmp/level-tally-start.XXXXXX)
chmod 755 "$dir"
# a space and an apostrophe, as folders have them
data="$dir/the clerk's data"
running=()
stop() {
  trap - EXIT
  for pid in "${running[@]}"; do kill "$pid" 2>/dev/null && wait "$pid" 2>/dev/null; done
  rm -rf "$dir"
}
trap 'exit 130' INT TERM
trap stop EXIT

# refused WORDS ARGUMENT...: ./start ends with a sentence that holds the words
refused() {
  words=$1
  shift
  if ./start "$@" >"$dir/said" 2>&1; then fail "./start $* went on."; fi
  grep -qF -- "$words" "$dir/said" || { cat "$dir/said" >&2; fail "./start $* did not say: $words"; }
}
# ready PID LOG: waits until the address is printed, as long as ./start itself has patience, and says it; the log is emptied
# before each start, because the shell that begins it may come to that later than this reads
ready() {
  while kill -0 "$1" 2>/dev/null; do
    address=$(sed -n 's/^Level Tally is ready: //p' "$2")
    [ -z "$address" ] || return 0
    sleep 0.2
  done
  cat "$2" "$data/app.log" >&2
  fail "./start did not become ready."
}
# ends PID: whether a process is gone within ten seconds
ends() {
  for _ in $(seq 100); do
    case $(ps -o stat= -p "$1" 2>/dev/null) in "" | Z*) return 0 ;; esac
    sleep 0.1
  done
  return 1
}
# rights: what the application's account may do
rights() {
  (
    read_keys
    root_client "$root" mariadb -N mysql -e "
      SELECT Table_name AS a, '' AS b, Table_priv AS c FROM tables_priv WHERE User = 'leveltally_app'
      UNION ALL SELECT Table_name, Column_name, Column_priv FROM columns_priv WHERE User = 'leveltally_app'
      UNION ALL SELECT Routine_name, Routine_type, Proc_priv FROM procs_priv WHERE User = 'leveltally_app' ORDER BY a, b"
  )
}

# proof ADDRESS: the head of a clean proof, as the controller sees it
proof() {
  node - "$1" <<'JS'
const [, , address] = process.argv;
const jar = new Map();
async function ask(path, options = {}) {
  const headers = { ...options.headers, cookie: [...jar].map((pair) => pair.join("=")).join("; ") };
  const answer = await fetch(address + path, { ...options, headers });
  for (const cookie of answer.headers.getSetCookie()) {
    const [name, ...value] = cookie.split(";")[0].split("=");
    jar.set(name, value.join("="));
  }
  if (!answer.ok) throw new Error(path + " " + answer.status);
  return answer.json();
}
const door = await ask("/api/session/door");
await ask("/api/session", {
  method: "POST",
  headers: { "content-type": "application/json", "x-xsrf-token": jar.get("XSRF-TOKEN") },
  body: JSON.stringify({ signIn: "ruth", password: door.password }),
});
const report = await ask("/api/proof");
if (report.laws.some((law) => law.findings.length > 0)) throw new Error(JSON.stringify(report));
console.log(report.records, report.head);
JS
}

refused "--port needs a number from 1 to 65535, not 99999" --port 99999
refused "--port needs a number from 1 to 65535, not x" --port x
refused "--data needs something after it" --data
refused "unknown option --nothing" --nothing
refused "cannot be made" --fresh --data /proc/nowhere
mkdir "$dir/others" && echo mine >"$dir/others/letter"
refused "holds files that are not Level Tally's" --fresh --data "$dir/others"
[ "$(cat "$dir/others/letter")" = mine ] || fail "--fresh threw somebody else's file away."
mkdir -p "$dir/lost/data/mysql"
refused "the keys beside the database" --data "$dir/lost"
refused "nothing to keep" --data "$dir/none" --backup "$dir/copy"
if [ "$(id -u)" = 0 ]; then
  mkdir -m 700 "$dir/closed"
  refused "cannot enter" --data "$dir/closed/data"
fi

: >"$dir/log"
./start --data "$data" >"$dir/log" 2>&1 &
first=$!
running+=("$first")
ready "$first" "$dir/log"
before=$(proof "$address") || fail "the proof of a new demo is not clean."
allowed=$(rights)
refused "another ./start already uses" --data "$data"
./start --data "$data" --backup "$dir/copy" >"$dir/said" 2>&1 || { cat "$dir/said" >&2; fail "no copy was kept."; }
[ "$(stat -c %a "$dir/copy")" = 600 ] || fail "others may read the copy."
[ -z "${1:-}" ] || { cp -p "$dir/copy" "$1.part" && mv "$1.part" "$1"; } || fail "the copy of the demo could not be left in $1."
refused "is there already" --data "$data" --backup "$dir/copy"

# beside the work it keeps the classes of this build, for each later start; in the data folder where the clone is closed
classes=server/target/app/kept/classes.jsa
for _ in $(seq 1500); do
  [ -e "$classes" ] || [ -e "$data/app/kept/classes.jsa" ] && break
  sleep 0.2
done
[ -e "$classes" ] || [ -e "$data/app/kept/classes.jsa" ] || fail "the classes were not kept."

# killed without a word: what it started ends by itself
db=$(cat "$data/db.pid") app=$(cat "$data/app.pid")
if [ "$(id -u)" = 0 ]; then
  case $(ps -o user= -p "$db" -p "$app") in *root*) fail "root runs the database or the application." ;; esac
fi
kill -9 "$first"
wait "$first" 2>/dev/null
running=()
ends "$db" && ends "$app" || fail "a killed ./start left its database or its application."

# half a copy throws nothing away, not even when a fresh start is asked for
head -c 2000 "$dir/copy" >"$dir/half"
refused "is not whole" --fresh --data "$data" --restore "$dir/half"
[ -f "$data/keys" ] && [ -d "$data/data/mysql" ] || fail "a database was thrown away for half a copy."

# destroyed, and brought back from the copy
rm -rf "$data"
refused "is not whole" --data "$data" --restore "$dir/half"
[ ! -e "$data/keys" ] || fail "half a copy left something behind."
: >"$dir/log"
./start --data "$data" --restore "$dir/copy" >"$dir/log" 2>&1 &
running+=("$!")
ready "$!" "$dir/log"
[ ! -e "$classes" ] || grep -q "$classes" "/proc/$(cat "$data/app.pid")/maps" || fail "a later start does not use the classes that were kept."
after=$(proof "$address") || fail "the proof of what was brought back is not clean."
# signing in for the proof is a record more
[ "${before%% *}" -lt "${after%% *}" ] || fail "records of the trail are missing: $before, then $after."
kept=$(sed -n 's/.*its head is \([0-9a-f]*\).*/\1/p' "$dir/log")
[ "$kept" = "${before##* }" ] || fail "the head of the trail is another: ${before##* }, then $kept."
[ "$(rights)" = "$allowed" ] || fail "the application may do something else on what was brought back."
kill "$!" && wait "$!"
running=()
[ -z "$(find "$data" -name '*.sock')" ] || fail "a socket was left behind."

# a database of an older form: kept before it is changed, and a change that is cut off begins again from there
old=$dir/old
before=server/src/test/resources/before/numbers-were-payments.tgz
data=$old
: >"$dir/log"
./start --data "$old" --restore "$before" >"$dir/log" 2>&1 &
first=$!
running+=("$first")
for _ in $(seq 6000); do
  grep -q 'the database is of an older form' "$dir/log" || { sleep 0.1; continue; }
  [ -n "${root:-}" ] || read_keys
  [ -n "$(root_client "$root" mariadb -N leveltally -e "SHOW TABLES LIKE 'payment_event'" 2>/dev/null)" ] && break
  sleep 0.02
done
[ -e "$old/before-change" ] || fail "nothing was kept before the database was changed."
# however fast it was: it is cut off before it is written down as done
kill -STOP "$first"
kill -9 "$(cat "$old/app.pid")"
root_client "$root" mariadb leveltally -e "DELETE FROM flyway_schema_history WHERE version = '8'" || fail "the change could not be cut off."
kill -CONT "$first"
wait "$first" && fail "./start went on without its application."
running=()
grep -q 'as it was before is kept in' "$dir/log" || { cat "$dir/log" >&2; fail "./start does not say where the older database is."; }
: >"$dir/log"
./start --data "$old" >"$dir/log" 2>&1 &
running+=("$!")
ready "$!" "$dir/log"
grep -q 'cut off' "$dir/log" || { cat "$dir/log" >&2; fail "a change that was cut off was not begun again."; }
proof "$address" >/dev/null || fail "the proof of what was changed is not clean."
[ ! -e "$old/before-change" ] || fail "what was kept before the change was left there."
kill "$!" && wait "$!"
running=()
say "./start does as it says."
