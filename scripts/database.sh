# Used by ./start: the MariaDB of one data folder, and keeping all of it in one file.
# $data is the folder: data/ (MariaDB's), keys (passwords and the key that seals bank details), lock, logs.

# Who runs what. Children end when ./start ends, however it ends. Root runs neither the database nor the application.
db_as=(setpriv --pdeathsig TERM)
app_as=(setpriv --pdeathsig TERM)
choose_users() {
  [ "$(id -u)" = 0 ] || return 0
  if ! id level-tally >/dev/null 2>&1; then
    useradd --system --no-create-home --home-dir /nonexistent --shell /usr/sbin/nologin level-tally ||
      fail "the user level-tally, who would run the application, cannot be made. Make one with: useradd --system level-tally"
  fi
  db_as=(setpriv --pdeathsig TERM --reuid=mysql --regid=mysql --init-groups)
  app_as=(setpriv --pdeathsig TERM --reuid=level-tally --regid=level-tally --init-groups)
}

# may_enter FOLDER: whether those who run the database and the application get into it
may_enter() { "${db_as[@]}" test -x "$1" && "${app_as[@]}" test -x "$1"; }

# random: 36 hex digits nobody can guess
random() { od -An -N18 -tx1 /dev/urandom | tr -d ' \n'; }

# read_keys: the passwords and keys of the folder; missing ones are made
read_keys() {
  owner=; app_password=; seal=; setup=; root=
  if [ -f "$data/keys" ]; then
    while IFS='=' read -r name value; do
      case $name in
        owner) owner=$value ;; app) app_password=$value ;; seal) seal=$value ;; setup) setup=$value ;; root) root=$value ;;
      esac
    done <"$data/keys"
  fi
  if [ -z "$owner" ] || [ -z "$root" ]; then
    : "${owner:=$(random)}" "${app_password:=$(random)}" "${seal:=$(random)}" "${setup:=$(random)}" "${root:=$(random)}"
    (umask 077 && printf '%s\n' "owner=$owner" "app=$app_password" "seal=$seal" "setup=$setup" "root=$root" >"$data/keys.new" &&
      mv "$data/keys.new" "$data/keys") || fail "the keys cannot be written to $data."
  fi
}

# root_client PASSWORD PROGRAM...: a client of MariaDB as its root, by the socket; the socket's whole path may be too long
root_client() {
  secret=$1 program=$2
  shift 2
  (cd "$data/data" && MYSQL_PWD=$secret "$program" --no-defaults -uroot --socket=./db.sock "$@")
}

# database_runs: whether one answers in this folder, whoever started it
database_runs() { root_client "$root" mariadb-admin ping >/dev/null 2>&1 || root_client "" mariadb-admin ping >/dev/null 2>&1; }

# hold_folder: no second ./start uses it at the same time; what a killed one left has a moment to end
hold_folder() {
  exec 9>"$data/lock" || fail "nothing can be written to $data. Choose another folder with --data."
  flock -n 9 || fail "another ./start already uses $data. Stop it, or choose another folder with --data."
  left=
  for _ in $(seq 100); do
    left=$(leftovers)
    [ -n "$left" ] || return 0
    sleep 0.2
  done
  fail "what an earlier ./start left in $data still runs:$left. Stop it with: kill$(printf '%s' "$left" | tr -dc '0-9 ')"
}

# leftovers: the processes of a ./start that was killed
leftovers() {
  for one in db:mariadbd:database app:java:application; do
    file=$data/${one%%:*}.pid word=${one#*:}
    [ -s "$file" ] || continue
    pid=$(cat "$file")
    # a number may long be somebody else's
    grep -qa "${word%%:*}" "/proc/$pid/cmdline" 2>/dev/null && grep -qaF "$data" "/proc/$pid/cmdline" 2>/dev/null &&
      printf ' its %s (process %s)' "${word#*:}" "$pid"
  done
}

# start_database: makes it when it is not there, starts it on $dbport, and lets root in by the socket and a password only
start_database() {
  if [ -d "$data/data" ] && [ "$(id -u)" != 0 ] && [ ! -w "$data/data" ]; then
    fail "the data in $data belong to the user $(stat -c %U "$data/data"): they were made by another user's ./start. Run it as that user, or choose another folder with --data."
  fi
  if [ -d "$data/data" ] && [ "$(id -u)" = 0 ] && [ "$(stat -c %U "$data/data")" != mysql ]; then
    fail "the data in $data belong to the user $(stat -c %U "$data/data"): they were made by that user's ./start. Run it as that user, or choose another folder with --data."
  fi
  if [ "$(id -u)" = 0 ]; then install -d -o mysql -g mysql -m 750 "$data/data"; else mkdir -p "$data/data"; fi
  if [ ! -d "$data/data/mysql" ]; then
    # as its user at once: told to change users it stumbles over a space in the path
    "${db_as[@]}" env TMPDIR="$data/data" mariadb-install-db --no-defaults --datadir="$data/data" --auth-root-authentication-method=normal \
      --skip-test-db >"$data/install.log" 2>&1 || fail "MariaDB could not be set up; see $data/install.log."
  fi
  dbport=$(free_port)
  # no folder for passing tables that another server clears away when it starts, as each does with the system's
  "${db_as[@]}" mariadbd --no-defaults --datadir="$data/data" --tmpdir="$data/data" --socket=db.sock --pid-file=db.pid --port="$dbport" \
    --bind-address=127.0.0.1 --character-set-server=utf8mb4 --collation-server=utf8mb4_unicode_ci \
    --log-error="$data/data/err.log" --skip-name-resolve >>"$data/install.log" 2>&1 9>&- &
  db=$!
  printf '%s' "$db" >"$data/db.pid"
  for _ in $(seq 300); do
    database_runs && break
    kill -0 "$db" 2>/dev/null || break
    sleep 0.1
  done
  database_runs || fail "MariaDB did not start; see $data/data/err.log."
  # before its first start root has no password
  secret=$root
  root_client "$root" mariadb </dev/null >/dev/null 2>&1 || secret=
  root_client "$secret" mariadb <<SQL || fail "MariaDB refused to make the two accounts."
CREATE DATABASE IF NOT EXISTS leveltally;
CREATE USER IF NOT EXISTS leveltally_owner@'%' IDENTIFIED BY '$owner';
CREATE USER IF NOT EXISTS leveltally_app@'%' IDENTIFIED BY '$app_password';
GRANT ALL ON leveltally.* TO leveltally_owner@'%' WITH GRANT OPTION;
ALTER USER root@localhost IDENTIFIED BY '$root';
DELETE FROM mysql.global_priv WHERE User = '' OR (User = 'root' AND Host <> 'localhost');
FLUSH PRIVILEGES;
SQL
}

# head_of_trail: how many records the trail has, and its head hash
head_of_trail() {
  root_client "$root" mariadb -N leveltally -e \
    "SELECT CONCAT(sequence, ' records in the trail, its head is ', hash) FROM audit_head"
}

# haste VALUE: 2 while made-up data is loaded, which no power cut has to spare; 1, each deed safe on the disk, from then on
haste() { root_client "$root" mariadb -e "SET GLOBAL innodb_flush_log_at_trx_commit = $1"; }

# keep_backup FILE: everything in one file; the application may go on meanwhile
keep_backup() {
  [ -f "$data/keys" ] && [ -d "$data/data/mysql" ] || fail "there is nothing to keep in $data: no database was made there yet."
  [ ! -e "$1" ] || fail "$1 is there already. Give the copy another name."
  read_keys
  started=no
  if ! database_runs; then hold_folder; start_database; started=yes; fi
  bundle=$(mktemp -d) || fail "no temporary folder can be made."
  (
    umask 077
    root_client "$root" mariadb-dump --single-transaction --quick --hex-blob --routines --triggers leveltally >"$bundle/dump.sql" &&
      root_client "$root" mariadb -N -e "SHOW GRANTS FOR leveltally_app@'%'" >"$bundle/all-grants" &&
      sed -n 's/$/;/; / ON \(PROCEDURE \)\?`leveltally`/p' "$bundle/all-grants" >"$bundle/grants.sql" &&
      head_of_trail >"$bundle/about" && cp "$data/keys" "$bundle/keys" &&
      tail -n 1 "$bundle/dump.sql" | grep -q 'Dump completed' &&
      tar -czf "$1.part" -C "$bundle" about dump.sql grants.sql keys && mv "$1.part" "$1"
  ) || { rm -rf "$bundle" "$1.part"; fail "the copy could not be written to $1; nothing was left there."; }
  say "kept in $1: $(cat "$bundle/about")."
  say "It holds the keys, too: whoever has it can read the bank details. Keep it where only you get at it."
  rm -rf "$bundle"
}

# whole_backup FILE: refuses what is no copy, or not all of one, before anything is thrown away for it
whole_backup() {
  [ -f "$1" ] || fail "there is no file $1."
  for part in about dump.sql grants.sql keys; do
    tar -xzOf "$1" "$part" >/dev/null 2>&1 || fail "$1 is not whole, or is no copy made by ./start --backup. Nothing was changed."
  done
  tar -xzOf "$1" dump.sql | tail -n 1 | grep -q 'Dump completed' ||
    fail "the dump in $1 is not whole. Nothing was changed."
}

# bring_back FILE: fills an empty folder from what keep_backup wrote
bring_back() {
  [ ! -d "$data/data/mysql" ] || fail "$data holds a database already; a copy comes back into an empty folder. Choose one with --data, or throw that database away with --fresh."
  bundle=$(mktemp -d) || fail "no temporary folder can be made."
  (umask 077 && tar -xzf "$1" -C "$bundle" about dump.sql grants.sql keys) ||
    { rm -rf "$bundle"; fail "$1 could not be unpacked; the temporary folder may be full."; }
  (umask 077 && cp "$bundle/keys" "$data/keys") || fail "nothing can be written to $data."
  read_keys
  start_database
  if ! { root_client "$root" mariadb leveltally <"$bundle/dump.sql" && root_client "$root" mariadb leveltally <"$bundle/grants.sql" &&
    [ "$(head_of_trail)" = "$(cat "$bundle/about")" ]; }; then
    kill "$db" && wait "$db"
    rm -rf "$bundle" "$data/data" "$data/keys"
    fail "the copy could not be brought back; $data is empty again."
  fi
  say "brought back from $1: $(cat "$bundle/about")."
  rm -rf "$bundle"
}

# keep_before_change: the database is of an older form, and nobody knows how its change will end. A copy that is still there
# is of a change that was cut off in the middle: it is begun again from there.
keep_before_change() {
  brings=$(find server/src/main/resources/db/migration -name 'V*__*.sql' | sed 's/.*\/V\([0-9]*\)__.*/\1/' | sort -n | tail -n 1)
  has=$(root_client "$root" mariadb -N leveltally -e "SELECT COALESCE(MAX(CAST(version AS UNSIGNED)), 0) FROM flyway_schema_history WHERE success" 2>/dev/null)
  if [ -e "$data/before-change" ]; then
    if [ "${has:-0}" -lt "$brings" ]; then
      say "the change of the database was cut off; it begins again from what was kept before."
      kill "$db" && wait "$db"
      db=
      rm -rf "$data/data"
      bring_back "$data/before-change"
    else
      rm -f "$data/before-change"
    fi
  elif [ "${has:-0}" -gt 0 ] && [ "$has" -lt "$brings" ]; then
    say "the database is of an older form; it is kept as it is, then changed."
    keep_backup "$data/before-change" >/dev/null
  fi
}
