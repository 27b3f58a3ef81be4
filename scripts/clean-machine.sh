#!/usr/bin/env bash
# usage: scripts/clean-machine.sh FOLDER
#
# Follows "From nothing to behind TLS" in docs/operating.md on a Debian of its own: a fresh one from Debian's packages, started with
# systemd in a container without any network, so that the server is seen to need none. FOLDER holds what `./mossbank package` made. As
# root, with debootstrap and systemd-container. Ends with 3 where no such container can be started here.
set -euo pipefail

MADE=$(cd "$1" && pwd)
PLACE=$(mktemp -d /var/tmp/mossbank-clean.XXXXXX)
SUITE=$(. /etc/os-release && echo "$VERSION_CODENAME")
PACKAGES=systemd,systemd-sysv,dbus,adduser,ca-certificates,openssl,curl,git,postgresql,nginx-light,bubblewrap,openjdk-17-jdk-headless
CONTAINER=

leave() {
    trap - EXIT
    if [ -n "$CONTAINER" ] && kill -0 "$CONTAINER" 2>/dev/null; then
        kill -TERM "$CONTAINER" 2>/dev/null || true
        wait "$CONTAINER" 2>/dev/null || true
    fi
    rm -rf "$PLACE"
}
trap leave EXIT
trap 'exit 130' INT TERM

debootstrap --variant=minbase --include="$PACKAGES" "$SUITE" "$PLACE/root" >"$PLACE/debootstrap.log" 2>&1 ||
    { tail -n 5 "$PLACE/debootstrap.log" >&2; exit 3; }
cp "$MADE"/* "$PLACE/root/root/"

systemd-nspawn --quiet --register=no --keep-unit --private-network --boot --directory="$PLACE/root" >"$PLACE/boot.log" 2>&1 </dev/null &
CONTAINER=$!
leader=
for _ in $(seq 60); do
    kill -0 "$CONTAINER" 2>/dev/null || { tail -n 5 "$PLACE/boot.log" >&2; exit 3; }
    leader=$(pgrep -P "$CONTAINER" | head -n 1 || true)
    if [ -n "$leader" ] && inside=$(nsenter -t "$leader" -a systemctl is-system-running 2>/dev/null || true) &&
        [[ $inside =~ ^(running|degraded)$ ]]; then break; fi
    sleep 1
done
[[ ${inside:-} =~ ^(running|degraded)$ ]] || exit 3

cat >"$PLACE/root/root/guide.sh" <<'GUIDE'
set -euo pipefail
started=$SECONDS
cd /root
openssl pkeyutl -verify -rawin -pubin -inkey mossbank-release.pem -in SHA256SUMS -sigfile SHA256SUMS.sig
sha256sum -c --ignore-missing --quiet SHA256SUMS
DEBIAN_FRONTEND=noninteractive dpkg -i ./mossbank_*.deb >/dev/null

# 2. A database of its own
systemctl start postgresql
head -c 24 /dev/urandom | base64 >/etc/mossbank/db-password
cd / && runuser -u postgres -- psql -q -c "create role mossbank login password '$(cat /etc/mossbank/db-password)'" -c "create database mossbank owner mossbank"
head -c 24 /dev/urandom | base64 | tr '+/' '-_' >/etc/mossbank/first-lead
chown root:mossbank /etc/mossbank/* && chmod 640 /etc/mossbank/*

# 3. Settings
cat >/etc/mossbank/mossbank.yaml <<'YAML'
db-url: jdbc:postgresql://127.0.0.1:5432/mossbank
db-password-file: /etc/mossbank/db-password
first-lead-token-file: /etc/mossbank/first-lead
proxies: [127.0.0.1]
YAML

# 4. Start it
systemctl enable --now mossbank 2>/dev/null
for _ in $(seq 180); do curl -fs -o /dev/null http://127.0.0.1:8750/actuator/health/readiness && break; sleep 1; done
echo "service: $(systemctl is-active mossbank), as $(stat -c %U "/proc/$(systemctl show -p MainPID --value mossbank)")"
systemd-analyze security mossbank --no-pager | tail -n 1
MOSSBANK_SETTINGS=/etc/mossbank/mossbank.yaml mossbank doctor

# 5. The proxy
openssl req -x509 -newkey rsa:2048 -nodes -days 2 -subj /CN=moss.example -keyout /etc/ssl/private/mossbank.key -out /etc/ssl/certs/mossbank.pem 2>/dev/null
sed '/127.0.0.1:8751/d' /usr/share/mossbank/packaging/nginx.conf >/etc/nginx/sites-available/mossbank
ln -s ../sites-available/mossbank /etc/nginx/sites-enabled/
nginx -t 2>/dev/null && (systemctl reload nginx 2>/dev/null || systemctl restart nginx)

# 6. Come in, and do what a lead does first
ask() {
    curl -sk --resolve mossbank.example:443:127.0.0.1 -b /root/jar -c /root/jar -H 'Content-Type: application/json' \
        -H "X-XSRF-TOKEN: $(awk '$6 == "XSRF-TOKEN" { print $7 }' /root/jar 2>/dev/null)" "$@"
}
at=https://mossbank.example
# What was reloaded listens a moment later.
for _ in $(seq 60); do ask -o /dev/null "$at/api/session" && break; sleep 1; done
echo "come in: $(ask -o /dev/null -w '%{http_code}' "$at/api/links/use" \
    -d "{\"token\": \"$(cat /etc/mossbank/first-lead)\", \"displayName\": \"Ada Reed\", \"password\": \"tide and lantern 7\"}")"
study=$(ask "$at/api/studies" -d '{"title": "A first one"}' | sed 's/.*"id":"\([^"]*\)".*/\1/')
echo "trials: $(ask "$at/api/studies/$study/toolchains" | tr ',' '\n' | grep -E '"missing"|"key"' | tr -d '{}[]' | paste -sd ' ')"
echo "cookies: $(grep -c '#HttpOnly_mossbank.example.*TRUE.*mossbank-session' /root/jar) session, for TLS alone"

# Killed, it is there again.
systemctl kill -s KILL mossbank
sleep 4
for _ in $(seq 180); do curl -fs -o /dev/null http://127.0.0.1:8750/actuator/health/readiness && break; sleep 1; done
echo "after a kill: $(ask -o /dev/null -w '%{http_code}' "$at/api/studies/$study")"
echo "all of it took $((SECONDS - started)) s"
GUIDE
nsenter -t "$leader" -a --wd=/ env -i PATH=/usr/sbin:/usr/bin:/sbin:/bin HOME=/root bash /root/guide.sh
