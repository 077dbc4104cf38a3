#!/usr/bin/env bash
# Puts a backup in the place of what Lumbix keeps now: npm run restore -- FILE
# Lumbix must not be running. What was there is replaced once the backup is whole, and not before.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
. tools/prepare.sh

file=${1:-}
[ -n "$file" ] || stop_with "name the backup: npm run restore -- FILE"
[ -r "$file" ] || stop_with "there is no file $file that you may read."
find_postgres
data=$(known_data)
exec 9>"$data/lock"
flock -n 9 || stop_with "Lumbix is running. Stop it first (Ctrl-C), then restore."
"$PG_BIN/pg_restore" --list "$file" >/dev/null 2>&1 || stop_with "$file is no backup of Lumbix, or it is damaged. Nothing was changed."

with_cluster "$data"
trap 'leave_cluster "$data"' EXIT
admin() { as_admin "$data" "$PG_PORT" -d postgres -c "$1"; }
admin 'drop database if exists lumbix_restored with (force)'
admin 'create database lumbix_restored owner lumbix_app'
if ! "$PG_BIN/pg_restore" --no-owner --exit-on-error --dbname="$(database_url "$data" "$PG_PORT" lumbix | sed 's#/lumbix$#/lumbix_restored#')" "$file"; then
  admin 'drop database lumbix_restored with (force)'
  stop_with "the backup could not be put back; the reason stands above. Nothing was changed."
fi
admin 'drop database lumbix with (force)'
admin 'alter database lumbix_restored rename to lumbix'
make_database "$data" "$PG_PORT" lumbix
say "Lumbix has what $file holds. Start it with ./start. Secrets open with the key that they were sealed with ($data/key)."
