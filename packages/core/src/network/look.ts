/**
 * The script that looks at a network from one machine. POSIX sh, reads only, needs no root. It asks nobody by itself: of the
 * hosts named behind it alone it fetches a certificate (`https:HOST:PORT`) or the keys of a remote shell (`ssh:HOST`).
 */
export const LOOK_SCRIPT = String.raw`#!/bin/sh
# Looks at the network from this machine. Reads only; writes no file and changes nothing.
#   sh look.sh > look.txt
#   sh look.sh https:NAME:PORT ssh:NAME > look.txt      asks these hosts, and no others, what they show
LC_ALL=C
export LC_ALL
section() { printf '\n==== %s ====\n' "$1"; }
have() { command -v "$1" >/dev/null 2>&1; }

section zb-look
echo 1
section when
date -u +%Y-%m-%dT%H:%M:%SZ

# Small machines have an "ip" that knows no JSON: it prints nothing here, and arp tells the rest.
section addr
if have ip; then ip -j addr 2>/dev/null; fi
section route
if have ip; then ip -j route 2>/dev/null; fi
section route6
if have ip; then ip -j -6 route 2>/dev/null; fi
section neigh
if have ip; then ip -j neigh 2>/dev/null; fi
section arp
if have arp; then arp -an 2>/dev/null; fi

section resolv
# Where a helper answers on the machine itself, the servers behind it stand in its own file.
for f in /run/systemd/resolve/resolv.conf /etc/resolv.conf; do
  [ -r "$f" ] && { while IFS= read -r line; do case $line in nameserver*) printf '%s\n' "$line" ;; esac; done <"$f"; break; }
done

section shown
for asked in "$@"; do
  case $asked in
    https:*)
      at=\${asked#https:}
      host=\${at%:*}
      port=\${at##*:}
      [ "$host" = "$port" ] && port=443
      have openssl || continue
      shows=$(openssl s_client -connect "$host:$port" -servername "$host" </dev/null 2>/dev/null |
        openssl x509 -noout -fingerprint -sha256 -enddate 2>/dev/null | tr '\n' ' ')
      [ -n "$shows" ] && printf 'certificate %s %s\n' "$host:$port" "$(printf '%s' "$shows" | sed 's/^SHA256/sha256/; s/ *$//')"
      ;;
    ssh:*)
      have ssh-keyscan || continue
      ssh-keyscan -T 5 "\${asked#ssh:}" 2>/dev/null | while read -r host type key; do
        case $host in '#'*|'') ;; *) printf 'hostkey %s %s %s\n' "$host" "$type" "$key" ;; esac
      done
      ;;
  esac
done
section end
`.replaceAll('\\${', '${');
