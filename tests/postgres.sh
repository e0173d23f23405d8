#!/bin/sh
# The server's tests on a PostgreSQL of their own, which goes with them. What follows is passed to the test runner.
set -eu
cd "$(dirname "$0")/.."
bin=$(ls -d /usr/lib/postgresql/*/bin | tail -1)
data=$(mktemp -d)
as=""
if [ "$(id -u)" = 0 ]; then
    as="runuser -u postgres --"
    chown postgres "$data"
fi
port=${PGPORT:-54329}
$as "$bin/initdb" --pgdata "$data/db" --auth trust --username pinakotheke --encoding UTF8 >/dev/null
$as "$bin/pg_ctl" --pgdata "$data/db" --log "$data/log" --wait \
    --options "-k $data -h 127.0.0.1 -p $port -c fsync=off -c max_connections=200" start >/dev/null
trap '$as "$bin/pg_ctl" --pgdata "$data/db" --mode immediate stop >/dev/null; rm -rf "$data"' EXIT
DATABASE_URL="postgresql://pinakotheke@127.0.0.1:$port/postgres" .venv/bin/python manage.py test "${@:-tests.server}" --noinput
