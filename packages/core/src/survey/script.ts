/**
 * The script handed out at the survey stop. POSIX sh, reads only, writes nothing, needs no root and no tool beyond
 * the shell: every section is optional and labelled, so that a missing tool costs one section and not the report.
 */
export const SURVEY_SCRIPT = String.raw`#!/bin/sh
# Survey of this machine. Reads only; writes no file and changes nothing.
# Run it as you are:  sh survey.sh > report.txt   and give the report to the bench.
LC_ALL=C
export LC_ALL
section() { printf '\n==== %s ====\n' "$1"; }
have() { command -v "$1" >/dev/null 2>&1; }
first() { read -r line 2>/dev/null <"$1" && printf '%s' "$line"; }

section zb-survey
echo 1

section machine
uname -m

section lscpu
if have lscpu; then lscpu -J 2>/dev/null; fi

section cpuinfo
if [ -r /proc/cpuinfo ]; then
  while IFS= read -r line; do
    [ -z "$line" ] && break
    printf '%s\n' "$line"
  done </proc/cpuinfo
fi

section meminfo
if [ -r /proc/meminfo ]; then
  while IFS= read -r line; do
    case $line in MemTotal*|SwapTotal*) printf '%s\n' "$line" ;; esac
  done </proc/meminfo
fi

section lsblk
if have lsblk; then lsblk -J -b -O 2>/dev/null; fi

section firmware
if [ -d /sys/firmware/efi ]; then
  echo mode=uefi
  [ -r /sys/firmware/efi/fw_platform_size ] && echo "bits=$(first /sys/firmware/efi/fw_platform_size)"
  for f in /sys/firmware/efi/efivars/SecureBoot-*; do
    if [ -r "$f" ] && have od; then echo "secureboot=$(od -An -tu1 -j4 -N1 "$f" 2>/dev/null | tr -d ' ')"; fi
  done
elif [ -d /sys/firmware/devicetree ]; then
  echo mode=board
elif [ -d /sys/firmware/acpi ] || [ -d /sys/firmware/memmap ]; then
  echo mode=bios
else
  echo mode=unknown
fi

section network
printf '['
comma=
for d in /sys/class/net/*; do
  [ -e "$d/device" ] || continue
  kind=wired
  [ -e "$d/wireless" ] && kind=wireless
  [ -e "$d/phy80211" ] && kind=wireless
  driver=$(readlink "$d/device/driver" 2>/dev/null)
  speed=$(first "$d/speed" 2>/dev/null)
  case $speed in ''|-*|*[!0-9]*) speed=null ;; esac
  printf '%s\n {"name":"%s","kind":"%s","driver":"%s","state":"%s","speed":%s}' \
    "$comma" "\${d##*/}" "$kind" "\${driver##*/}" "$(first "$d/operstate")" "$speed"
  comma=,
done
printf '\n]\n'

section graphics
printf '['
comma=
for d in /sys/class/drm/card[0-9] /sys/class/drm/card[0-9][0-9]; do
  [ -e "$d/device" ] || continue
  driver=$(readlink "$d/device/driver" 2>/dev/null)
  driver=\${driver##*/}
  intree=unknown
  if [ -n "$driver" ] && have modinfo; then
    intree=$(modinfo -F intree "$driver" 2>/dev/null)
    [ -z "$intree" ] && [ -e "/sys/module/$driver" ] && intree=N
    [ -z "$intree" ] && intree=unknown
  fi
  printf '%s\n {"card":"%s","driver":"%s","intree":"%s"}' "$comma" "\${d##*/}" "$driver" "$intree"
  comma=,
done
printf '\n]\n'

section power
for d in /sys/class/power_supply/*; do
  [ -r "$d/type" ] && echo "type=$(first "$d/type")"
done

section end
`.replaceAll('\\${', '${');

/** The name the script is saved under. */
export const SURVEY_FILE = 'survey.sh';
