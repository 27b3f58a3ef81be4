# shellcheck shell=bash
# Taken in by `mossbank`: parts of which a fault is known, by the list that ships with the source, so that no network is needed.

# Name and version of each part, with where it is from.
parts_in_use() {
    local jar
    for jar in "$ROOT"/server/target/mossbank-server-*-exec.jar; do
        [ -e "$jar" ] || fail "build the server first: the parts are read from what ships"
        unzip -Z1 "$jar" | sed -nE 's#^BOOT-INF/lib/(.+)-([0-9][^/]*)\.jar$#maven \1 \2#p'
    done
    node -e '
        const { packages } = JSON.parse(require("fs").readFileSync(process.argv[1], "utf8"));
        for (const [path, part] of Object.entries(packages)) {
            if (path !== "" && part.version) console.log("npm", path.replace(/^.*node_modules\//, ""), part.version);
        }' "$ROOT/web/package-lock.json"
}

# before A B: whether version A is older than B.
before() { [ "$1" != "$2" ] && [ "$(printf '%s\n%s\n' "$1" "$2" | sort -V | head -n 1)" = "$1" ]; }

dependencies() {
    local list=${1:-$ROOT/docs/dependencies.csv} found=0 parts from name since mended why line version
    command -v unzip >/dev/null || install_packages unzip
    parts=$(parts_in_use)
    while IFS=, read -r from name since mended why; do
        [ "$from" != from ] && [ -n "$from" ] || continue
        while read -r line; do
            version=${line##* }
            if ! before "$version" "$since" && before "$version" "$mended"; then
                printf '%s %s: %s (mended in %s)\n' "$name" "$version" "$why" "$mended"
                found=$((found + 1))
            fi
        done < <(grep -F "$from $name " <<<"$parts" || true)
    done <"$list"
    if [ "$found" -gt 0 ]; then fail "$found parts have faults that are known; take newer ones"; fi
    say "No part has a fault that is known, of $(wc -l <<<"$parts") parts and $(($(wc -l <"$list") - 1)) faults."
}
