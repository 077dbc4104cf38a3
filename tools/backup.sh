#!/usr/bin/env bash
# Writes everything that Lumbix keeps into one file, whether it is running or not:
#   npm run backup            into backups/
#   npm run backup -- FILE    into that file
# The key that secrets are sealed with is not in it: keep a copy of it apart.
set -euo pipefail
cd "$(dirname "${BASH_SOURCE[0]}")/.."
. tools/prepare.sh

find_postgres
data=$(known_data)
file=${1:-backups/lumbix-$(date +%Y-%m-%d-%H%M%S).dump}
mkdir -p "$(dirname "$file")" 2>/dev/null || stop_with "the folder of $file cannot be made."
[ ! -e "$file" ] || stop_with "$file is there already. Name another file; nothing was written."

with_cluster "$data"
trap 'rm -f "$file.part"; leave_cluster "$data"' EXIT
# Only whoever keeps Lumbix reads it; it gets its name when it is whole.
(umask 077; "$PG_BIN/pg_dump" -Fc --no-owner --dbname="$(database_url "$data" "$PG_PORT" lumbix)" --file="$file.part") ||
  stop_with "the backup could not be written; the reason stands above."
mv "$file.part" "$file"
say "Everything is in $file. The key is in $data/key: keep a copy of it apart."
