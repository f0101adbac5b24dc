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

# Whether a driver comes with the kernel: Y, N, or unknown where modinfo is missing or says nothing.
intree() {
  tree=
  if [ -n "$1" ] && have modinfo; then
    tree=$(modinfo -F intree "$1" 2>/dev/null)
    [ -z "$tree" ] && [ -e "/sys/module/$1" ] && tree=N
  fi
  printf '%s' "\${tree:-unknown}"
}

section zb-survey
echo 3

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

section topology
# Packages and cores of every processor: lscpu is not everywhere, and cpuinfo above counts one package alone.
for c in /sys/devices/system/cpu/cpu[0-9]*; do
  [ -r "$c/topology/core_id" ] || continue
  printf '%s package=%s core=%s\n' "\${c##*/}" "$(first "$c/topology/physical_package_id")" "$(first "$c/topology/core_id")"
done

section meminfo
if [ -r /proc/meminfo ]; then
  while IFS= read -r line; do
    case $line in MemTotal*|SwapTotal*) printf '%s\n' "$line" ;; esac
  done </proc/meminfo
fi

section dmi
# Memory modules and slots; only root may read them.
if have dmidecode; then dmidecode -q -t 16 -t 17 2>/dev/null; fi

section lsblk
if have lsblk; then lsblk -J -b -O 2>/dev/null; fi

section disks
# What carries each drive: its controller's class, a serial where lsblk has none, and whether a card or soldered flash.
for d in /sys/block/*; do
  [ -e "$d/device" ] || continue
  name=\${d##*/}
  case $name in sd*|nvme*|hd*|mmcblk*|vd*) ;; *) continue ;; esac
  up=$(cd -P "$d/device" 2>/dev/null && pwd)
  class=
  serial=
  while [ -n "$up" ] && [ "$up" != / ]; do
    [ -z "$serial" ] && [ -r "$up/serial" ] && serial=$(first "$up/serial")
    if [ -r "$up/class" ] && [ -r "$up/vendor" ]; then class=$(first "$up/class"); break; fi
    up=\${up%/*}
  done
  [ -z "$serial" ] && serial=$(first "$d/device/serial" 2>/dev/null)
  [ -z "$serial" ] && serial=$(first "$d/serial" 2>/dev/null)
  if [ -z "$serial" ] && [ -r "$d/device/vpd_pg80" ]; then serial=$(tr -cd '[:alnum:]_-' <"$d/device/vpd_pg80" 2>/dev/null); fi
  printf 'name=%s class=%s type=%s serial=%s\n' "$name" "$class" "$(first "$d/device/type" 2>/dev/null)" \
    "$(printf '%s' "$serial" | tr -d ' ')"
done

section pci
for d in /sys/bus/pci/devices/*; do
  [ -r "$d/class" ] || continue
  driver=$(readlink "$d/driver" 2>/dev/null)
  printf '%s class=%s id=%s:%s driver=%s\n' "\${d##*/}" "$(first "$d/class")" "$(first "$d/vendor")" \
    "$(first "$d/device")" "\${driver##*/}"
done

section smart
if have smartctl; then
  for d in /sys/block/*; do
    [ -e "$d/device" ] || continue
    case \${d##*/} in sd*|nvme*|hd*|mmcblk*) ;; *) continue ;; esac
    echo "---- \${d##*/}"
    smartctl -j -i -H -A -l devstat "/dev/\${d##*/}" 2>/dev/null
  done
fi

section pcie
for d in /sys/bus/pci/devices/*; do
  [ -r "$d/max_link_width" ] || continue
  printf '%s class=%s width=%s maxwidth=%s speed=%s maxspeed=%s\n' "\${d##*/}" "$(first "$d/class")" \
    "$(first "$d/current_link_width")" "$(first "$d/max_link_width")" \
    "$(first "$d/current_link_speed" | { read -r a b; echo "$a"; })" \
    "$(first "$d/max_link_speed" | { read -r a b; echo "$a"; })"
done

section ports
n=0
for d in /sys/class/ata_port/*; do [ -e "$d" ] && n=$((n + 1)); done
echo "ata=$n"

section firmware
if [ -d /sys/firmware/efi ]; then
  echo mode=uefi
  [ -r /sys/firmware/efi/fw_platform_size ] && echo "bits=$(first /sys/firmware/efi/fw_platform_size)"
  seen=
  for f in /sys/firmware/efi/efivars/SecureBoot-*; do
    [ -e "$f" ] && seen=1
    # Four bytes of attributes come first, then the value (UEFI 2.10 §8.2); not every od can skip.
    if [ -r "$f" ] && have od; then set -- $(od -An -v -tu1 "$f" 2>/dev/null); echo "secureboot=$5"; fi
  done
  # Variables can be read, and this one is not among them: the firmware does not know Secure Boot.
  set -- /sys/firmware/efi/efivars/*
  [ -z "$seen" ] && [ -e "$1" ] && echo secureboot=absent
elif [ -d /sys/firmware/devicetree ]; then
  echo mode=board
elif [ -d /sys/firmware/acpi ] || [ -d /sys/firmware/memmap ]; then
  echo mode=bios
else
  echo mode=unknown
fi
[ -r /sys/class/dmi/id/bios_date ] && echo "date=$(first /sys/class/dmi/id/bios_date)"

section bootentries
if [ -d /sys/firmware/efi ] && have efibootmgr; then efibootmgr -v 2>/dev/null; fi

section network
printf '['
comma=
for d in /sys/class/net/*; do
  [ -e "$d/device" ] || continue
  kind=wired
  [ -e "$d/wireless" ] && kind=wireless
  [ -e "$d/phy80211" ] && kind=wireless
  driver=$(readlink "$d/device/driver" 2>/dev/null)
  driver=\${driver##*/}
  bus=internal
  case $(cd -P "$d/device" 2>/dev/null && pwd) in */usb[0-9]*) bus=usb ;; esac
  most=null
  if have ethtool; then
    for m in $(ethtool "\${d##*/}" 2>/dev/null); do
      case $m in Advertised) break ;; *base*/Full|*base*/Half) m=\${m%%base*}; [ "$most" = null ] || [ "$m" -gt "$most" ] && most=$m ;; esac
    done
  fi
  speed=$(first "$d/speed" 2>/dev/null)
  case $speed in ''|-*|*[!0-9]*) speed=null ;; esac
  printf '%s\n {"name":"%s","kind":"%s","driver":"%s","intree":"%s","state":"%s","speed":%s,"most":%s,"bus":"%s","address":"%s"}' \
    "$comma" "\${d##*/}" "$kind" "$driver" "$(intree "$driver")" "$(first "$d/operstate")" "$speed" \
    "$most" "$bus" "$(first "$d/address")"
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
  # What drives the display may sit on a device of its own below the bus device.
  for below in "$d"/device/virtio*/driver; do
    [ -e "$below" ] && driver=$(readlink "$below") && driver=\${driver##*/}
  done
  printf '%s\n {"card":"%s","driver":"%s","intree":"%s"}' "$comma" "\${d##*/}" "$driver" "$(intree "$driver")"
  comma=,
done
printf '\n]\n'

section displays
for d in /sys/class/drm/card*-*; do
  [ -r "$d/status" ] || continue
  name=\${d##*/}
  printf '%s status=%s edid=' "\${name#*-}" "$(first "$d/status")"
  if have od; then for w in $(od -An -v -tx1 "$d/edid" 2>/dev/null); do printf '%s' "$w"; done; fi
  echo
done
for d in /dev/cec[0-9]*; do [ -e "$d" ] && echo "cec=\${d##*/}"; done

section power
for d in /sys/class/power_supply/*; do
  [ -r "$d/type" ] || continue
  echo "type=$(first "$d/type") name=\${d##*/} scope=$(first "$d/scope" 2>/dev/null)"
  for k in energy_full_design energy_full charge_full_design charge_full voltage_min_design cycle_count; do
    [ -r "$d/$k" ] && echo " $k=$(first "$d/$k")"
  done
done

section sensors
for d in /sys/class/hwmon/*; do
  chip=$(first "$d/name")
  for f in "$d"/fan[0-9]_input "$d"/fan[0-9][0-9]_input "$d"/temp[0-9]_input "$d"/temp[0-9][0-9]_input; do
    [ -r "$f" ] || continue
    value=$(first "$f" 2>/dev/null) || continue
    kind=\${f##*/}
    label=\${f%_input}_label
    [ -r "$label" ] && label=$(first "$label") || label=\${kind%_input}
    echo "\${kind%%[0-9]*} $value $chip: $label"
  done
done

section end
`.replaceAll('\\${', '${');

/** The name the script is saved under. */
export const SURVEY_FILE = 'survey.sh';
