#!/usr/bin/env bash
# Holds the files that two builds of steelk write against each other, byte for byte: of every document in a folder, and what
# each says of those that it refuses. For changes that should move nothing.
#   STEELK_OUT=/tmp/documents cargo test -p steelk-core --test all documents_for_comparison -- --ignored
#   scripts/compare_files.sh OLD NEW /tmp/documents
set -uo pipefail
old=$1 new=$2 documents=$3
work=$(mktemp -d)
trap 'rm -rf "$work"' EXIT
differ=0 same=0 files=0
for document in "$documents"/*.json; do
    name=$(basename "$document" .json)
    for side in old new; do
        rm -rf "${work:?}/$side"
        mkdir -p "$work/$side"
        # Where the files go is no difference.
        (cd "$work/$side" && "${!side}" build "$document" --out out > said 2>&1; echo "ended with $?" >> said)
    done
    if diff -rq "$work/old" "$work/new" > "$work/found"; then
        same=$((same + 1))
    else
        differ=$((differ + 1))
        echo "$name:"
        sed "s|$work/||g; s/^/  /" "$work/found"
    fi
    files=$((files + $(find "$work/new" -type f | wc -l) - 1))
done
echo "$same documents the same in $files files, $differ not"
[ "$differ" -eq 0 ]
