/**
 * A recorder for the machine itself: POSIX sh, reads only, one line a second, a table with its units in the heads. What it reads is
 * described in the kernel’s documentation (hwmon/sysfs-interface, power/powercap, ABI sysfs-class-power, cpufreq). It ends after
 * so many seconds, or by Ctrl C.
 */
export const recorderScript = `#!/bin/sh
# Readings of this machine, one line a second: temperatures, fans, clocks, power, battery. It only reads.
# Use: sh record.sh [seconds] > record.csv
LC_ALL=C
export LC_ALL
most=\${1:-0}
files=
head=seconds
clean() { tr -d '\\n' 2>/dev/null | tr ',;"\\t' '    '; }
add() { # file, what, unit
  [ -r "$1" ] || return 0
  read -r probe < "$1" 2>/dev/null || return 0
  case $probe in ''|*[!0-9-]*) return 0 ;; esac
  files="$files $1"
  head="$head,$2 ($3)"
}
for h in /sys/class/hwmon/hwmon*; do
  [ -r "$h/name" ] || continue
  chip=$(clean < "$h/name")
  for f in "$h"/temp*_input "$h"/fan*_input "$h"/power*_average "$h"/power*_input; do
    [ -r "$f" ] || continue
    n=\${f##*/}
    l=\${f%_*}_label
    if [ -r "$l" ]; then part="$chip $(clean < "$l")"; else part="$chip \${n%_*}"; fi
    case $n in
      temp*) add "$f" "temperature $part" 'm°C' ;;
      fan*) add "$f" "fan $part" rpm ;;
      power*) add "$f" "power $part" uW ;;
    esac
  done
done
for z in /sys/class/thermal/thermal_zone*; do
  [ -r "$z/type" ] && add "$z/temp" "temperature zone $(clean < "$z/type")" 'm°C'
done
for p in /sys/class/powercap/*:*; do
  [ -r "$p/name" ] && add "$p/energy_uj" "energy \${p##*/} $(clean < "$p/name")" uJ
done
for c in /sys/devices/system/cpu/cpu[0-9]*/cpufreq/scaling_cur_freq; do
  n=\${c#/sys/devices/system/cpu/}
  add "$c" "clock \${n%%/*}" kHz
done
for b in /sys/class/power_supply/BAT*; do
  add "$b/power_now" "power battery \${b##*/}" uW
  add "$b/capacity" "battery charge \${b##*/}" '%'
done
echo "# zealous box recorder 1, $(date -u '+%Y-%m-%dT%H:%M:%SZ' 2>/dev/null)"
echo "$head"
count=0
while :; do
  read -r now rest < /proc/uptime
  line=$now
  for f in $files; do
    value=
    read -r value < "$f" 2>/dev/null
    line="$line,$value"
  done
  echo "$line"
  count=$((count + 1))
  [ "$most" -gt 0 ] 2>/dev/null && [ "$count" -ge "$most" ] && break
  sleep 1
done
`;

/** Whether a text begins as our recorder’s does. */
export const isRecorded = (start: string): boolean => start.startsWith('# zealous box recorder 1');
