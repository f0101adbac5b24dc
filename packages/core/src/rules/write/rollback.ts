import { fixedShell, sh } from '../../formats/writer/shell';
import { writeNft } from './nft';
import type { GatePlan } from '../../model/gate';
import type { Ruleset } from '../ruleset';

/**
 * A script for the gate (POSIX sh, as root): keeps what is in force, loads the new rules in one step, and puts the old ones back
 * by itself unless somebody confirms in time from a connection that was made anew. Nothing of it needs the network to come back.
 */
export function rollbackScript(ruleset: Ruleset, plan: GatePlan): string {
  // Every line of the rules is indented or fixed: none of them is the end that is looked for.
  const rules = fixedShell(writeNft(ruleset, plan));
  return sh`#!/bin/sh
# New rules for this gate, with a way back.
#   sh rules.sh            loads them; the old ones come back after ${plan.confirmSeconds} s
#   sh rules.sh confirm    keeps them: say it from a connection made after they were loaded
#   sh rules.sh back       puts the old ones back at once
set -eu
WAIT=\${WAIT:-${plan.confirmSeconds}}
KEEP=\${KEEP:-/var/lib/gate-rules}
LIVE=\${LIVE:-/etc/nftables.conf}
mkdir -p "$KEEP"

back() {
	# In one transaction: all that is there goes, all that was there before comes.
	nft -f "$KEEP/before.nft"
	rm -f "$KEEP/waiting"
	echo "The rules from before are in force again."
}

case "\${1:-load}" in
confirm)
	if [ ! -e "$KEEP/waiting" ]; then
		echo "Nothing waits to be confirmed. Nothing was changed." >&2
		exit 1
	fi
	rm -f "$KEEP/waiting"
	cp "$KEEP/new.nft" "$LIVE"
	echo "Kept, and written to $LIVE for the next start."
	;;
back)
	back
	;;
load)
	if [ -e "$KEEP/waiting" ]; then
		echo "Rules loaded before still wait to be confirmed. Nothing was changed." >&2
		exit 1
	fi
	cat > "$KEEP/new.nft" <<'END_OF_RULES'
${rules}END_OF_RULES
	if ! nft -c -f "$KEEP/new.nft"; then
		echo "The new rules are not accepted. Nothing was changed." >&2
		exit 1
	fi
	{ echo "flush ruleset"; nft list ruleset; } > "$KEEP/before.nft"
	: > "$KEEP/waiting"
	# The clock runs before the rules change, and goes on when this connection is cut.
	(
		trap '' HUP
		sleep "$WAIT"
		if [ -e "$KEEP/waiting" ]; then back; fi
	) > "$KEEP/log" 2>&1 < /dev/null &
	nft -f "$KEEP/new.nft"
	echo "In force for $WAIT s. Open a new connection and say: sh $0 confirm"
	;;
*)
	echo "Say nothing, confirm or back." >&2
	exit 2
	;;
esac
`.text;
}
