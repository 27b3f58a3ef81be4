# Runs the command inside the sandbox: $1 bytes of each output are kept, $2 seconds are given.
# Everything it leaves behind is ended before its files are handed out as one archive.
cd /w || exit 98
tar -xf /in/files.tar || exit 97
mkfifo /x/o /x/e
head -c "$1" </x/o >/x/output & out=$!
head -c "$1" </x/e >/x/errors & err=$!
begun=$(date +%s%N)
timeout -s KILL "$2" sh /in/command </in/input >/x/o 2>/x/e & ran=$!
wait "$ran"
status=$?
ended=$(date +%s%N)
left=yes
tries=0
while [ "$left" = yes ] && [ "$tries" -lt 200 ]; do
    left=no
    tries=$((tries + 1))
    for p in /proc/[0-9]*; do
        p=${p##*/}
        case $p in
            1 | "$$" | "$out" | "$err") ;;
            *) kill -9 "$p" 2>/dev/null && left=yes ;;
        esac
    done
done
wait "$out" "$err"
echo "$status $(((ended - begun) / 1000000))" >/x/status
exec tar -cf - -C / --exclude=x/o --exclude=x/e x w
