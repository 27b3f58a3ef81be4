# shellcheck shell=bash
# Taken in by `mossbank`: what is installed elsewhere, made of this source.

CYCLONEDX=org.cyclonedx:cyclonedx-maven-plugin:2.9.3

package() {
    need_trials
    local out=$ROOT/target/release name
    name=mossbank-$(version)
    rm -rf "$out"
    mkdir -p "$out/$name"
    build
    with_progress "Lists of parts" "$HOME_DIR/parts.log" parts "$out"
    release_tree "$out/$name"
    tar -C "$out" --sort=name --owner=0 --group=0 --numeric-owner -czf "$out/$name.tar.gz" "$name"
    if command -v dpkg-deb >/dev/null; then debian_package "$out" "$name"; else say "Without dpkg-deb there is no Debian package."; fi
    rm -rf "${out:?}/$name"
    checksums "$out"
    say "Made, in $out:"
    (cd "$out" && du -h -- *)
}

# Everything that a server needs but Java and its database, and everything that tells what it is.
release_tree() {
    local tree=$1
    cp -r "$APP" "$tree/app"
    rm -f "$tree"/app/classes.jsa "$tree"/app/built
    with_progress "Commands" "$HOME_DIR/commands.log" mvn -B -ntp -f "$ROOT/pom.xml" -pl commands -am -DskipTests -Dspotless.check.skip package
    cp "$ROOT"/commands/target/mossbank-commands-*.jar "$tree/app/commands.jar"
    cp -r "$TRIAL_LIBRARIES" "$tree/trial-libraries"
    mkdir -p "$tree/server" "$tree/scripts" "$tree/packaging"
    cp "$ROOT/server/jvm.args" "$tree/server/"
    cp "$ROOT/mossbank" "$ROOT/LICENSE" "$ROOT/README.md" "$tree/"
    cp "$ROOT/scripts/backup.sh" "$ROOT/scripts/doctor.sh" "$tree/scripts/"
    cp "$ROOT"/packaging/mossbank.* "$ROOT/packaging/nginx.conf" "$tree/packaging/"
    cp -r "$ROOT/docs" "$ROOT"/demo* "$tree/"
    cp "$ROOT"/target/release/*.cdx.json "$tree/"
    { version; newest_migration; } >"$tree/RELEASE"
    chmod -R a+rX,go-w "$tree"
}

# What the server and the client are made of, in CycloneDX.
parts() {
    mvn -B -ntp -q -f "$ROOT/pom.xml" -pl server -am "$CYCLONEDX:makeBom" -DincludeTestScope=false -DoutputFormat=json \
        -DoutputName=parts.cdx || return 1
    cp "$ROOT/server/target/parts.cdx.json" "$1/server.cdx.json"
    (cd "$ROOT/web" && npm sbom --sbom-format=cyclonedx --omit=dev) >"$1/client.cdx.json"
}

debian_package() {
    local out=$1 name=$2 tree=$1/debian architecture
    architecture=$(dpkg --print-architecture)
    mkdir -p "$tree/DEBIAN" "$tree/usr/share" "$tree/usr/bin" "$tree/etc/mossbank" "$tree/lib/systemd/system"
    cp -r "$out/$name" "$tree/usr/share/mossbank"
    ln -s ../share/mossbank/mossbank "$tree/usr/bin/mossbank"
    cp "$ROOT/packaging/mossbank.yaml" "$tree/etc/mossbank/"
    cp "$ROOT/packaging/mossbank.service" "$tree/lib/systemd/system/"
    echo /etc/mossbank/mossbank.yaml >"$tree/DEBIAN/conffiles"
    sed "s/@VERSION@/$(version)/; s/@ARCHITECTURE@/$architecture/; s/@SIZE@/$(du -sk "$tree" | cut -f1)/" \
        "$ROOT/packaging/debian/control" >"$tree/DEBIAN/control"
    local script
    for script in postinst prerm postrm; do install -m 755 "$ROOT/packaging/debian/$script" "$tree/DEBIAN/$script"; done
    chmod -R go-w "$tree"
    with_progress "Debian package" "$HOME_DIR/debian.log" dpkg-deb --root-owner-group -Zgzip -z1 --build "$tree" "$out/mossbank_$(version)_$architecture.deb"
    rm -rf "$tree"
}

# Whoever has the public key knows that the files are those that were made here. The key is that of MOSSBANK_RELEASE_KEY, or one of
# this clone.
checksums() {
    local out=$1 key=${MOSSBANK_RELEASE_KEY:-$HOME_DIR/release-key.pem}
    if [ ! -e "$key" ]; then (umask 077; openssl genpkey -algorithm ed25519 -out "$key" 2>/dev/null); fi
    (cd "$out" && sha256sum -- *.tar.gz *.deb *.json 2>/dev/null >SHA256SUMS)
    openssl pkeyutl -sign -rawin -inkey "$key" -in "$out/SHA256SUMS" -out "$out/SHA256SUMS.sig"
    openssl pkey -in "$key" -pubout -out "$out/mossbank-release.pem"
}
