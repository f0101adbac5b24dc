/** Rulesets as others write them: maps, sets, chains that are gone to, two tables at one hook, all that is turned round. */
import type { Topology } from '@zb/core/rules/ruleset';

const TOPOLOGY: Topology = {
  ports: [
    { name: 'wan', own: ['100.72.16.9', '2600:77::9'], fromLine: false, prefixes: [], outside: true },
    {
      name: 'lan0',
      own: ['10.0.0.1', 'fd00:0:0:1::1'],
      fromLine: false,
      prefixes: ['10.0.0.0/24', 'fd00:0:0:1::/64'],
      outside: false,
    },
    {
      name: 'lan1',
      own: ['10.0.1.1'],
      fromLine: false,
      prefixes: ['10.0.1.0/24', '10.0.0.128/26'],
      outside: false,
    },
  ],
  reversePath: false,
};

/** Texts for nft, and the machine they are loaded in. */
export const HOSTILE: { name: string; topology: Topology; text: string }[] = [
  {
    name: 'maps to verdicts, chains in chains',
    topology: TOPOLOGY,
    text: `
table inet one {
	set trusted { type ipv4_addr; flags interval; elements = { 10.0.0.0/27, 10.0.0.64-10.0.0.90 }; }
	set pairs { type ipv4_addr . inet_proto . inet_service; flags interval; elements = { 10.0.0.20 . tcp . 80-90, 10.0.1.0/28 . udp . 53, 10.0.1.77 . tcp . 443 }; }
	map ways { type ifname : verdict; elements = { "lan0" : jump inner, "lan1" : goto outer }; }
	chain outer {
		ip daddr . meta l4proto . th dport @pairs accept
		tcp dport { 22, 80-90, 443 } return
		udp dport != 1000-2000 drop
	}
	chain deep {
		ip saddr @trusted return
		tcp dport 81 accept
		meta l4proto icmp accept
	}
	chain inner {
		tcp dport vmap { 22 : accept, 23 : drop, 80-90 : jump deep, 443 : continue }
		ip saddr != @trusted counter drop
		udp sport < 30000 accept
	}
	chain forward {
		type filter hook forward priority 0; policy drop;
		ct state vmap { established : accept, related : accept, invalid : drop }
		iifname vmap @ways
		ip6 saddr fd00:0:0:1::/64 ip6 daddr != fd00::/8 accept
		icmpv6 type { echo-request, nd-neighbor-solicit } accept
	}
	chain input {
		type filter hook input priority 0; policy accept;
		iifname "wan" tcp dport >= 1024 reject
		iifname { "lan0", "lan1" } udp dport { 53, 67 } accept
		meta nfproto ipv6 meta l4proto tcp drop
	}
}
`,
  },
  {
    name: 'two tables at one hook, priorities turned about',
    topology: TOPOLOGY,
    text: `
table ip later {
	chain f {
		type filter hook forward priority 20; policy accept;
		ip daddr 10.0.0.0/25 tcp dport 100-200 drop
		ip protocol udp ip saddr 10.0.1.0/25 reject with icmp type host-prohibited
	}
}
table inet first {
	chain f {
		type filter hook forward priority -10; policy accept;
		iifname "wan" oifname "lan0" tcp dport 150 accept
		iifname "wan" ct state new udp dport 1-1024 drop
		oifname != "wan" tcp sport > 50000 drop
	}
	chain late {
		type filter hook prerouting priority 10; policy accept;
		ip daddr 10.0.1.99 drop
	}
	chain out {
		type filter hook output priority 0; policy drop;
		oifname "lan*" accept
		udp dport 53 accept
	}
}
table ip6 six {
	chain f {
		type filter hook forward priority 0; policy drop;
		ip6 nexthdr tcp accept
		ip6 daddr 2600::/16 udp dport 443 accept
	}
	chain post {
		type filter hook postrouting priority 50; policy accept;
		tcp dport 25 drop
	}
}
`,
  },
  {
    name: 'translation by several rules, source and destination',
    topology: TOPOLOGY,
    text: `
table ip nat {
	chain pre {
		type nat hook prerouting priority -100; policy accept;
		iifname "wan" fib daddr type local tcp dport 8000-8005 dnat to 10.0.0.20:80
		iifname "wan" ip saddr 8.0.0.0/8 tcp dport 8006 dnat to 10.0.1.30
		iifname "wan" tcp dport 8006 dnat to 10.0.0.21
		iifname "lan0" udp dport 53 ip daddr != 10.0.0.1 redirect
	}
	chain post {
		type nat hook postrouting priority 100; policy accept;
		oifname "wan" ip saddr 10.0.1.0/24 snat to 100.72.16.77
		oifname "wan" masquerade
	}
}
table inet filter {
	chain f {
		type filter hook forward priority 0; policy drop;
		ct status dnat ip daddr 10.0.0.0/24 accept
		iifname "lan0" accept
		iifname "lan1" oifname "wan" tcp dport { 80, 443, 8006 } accept
	}
	chain i {
		type filter hook input priority 0; policy drop;
		udp dport 53 accept
		tcp dport 8000 accept
	}
}
`,
  },
  {
    name: 'hours, days, rates and logs',
    topology: TOPOLOGY,
    text: `
table inet clock {
	chain f {
		type filter hook forward priority 0; policy drop;
		tcp dport 80 meta hour "00:00"-"23:59:59" accept
		tcp dport 81 meta hour "00:00"-"00:00:01" accept
		udp dport 80 meta day { "Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday" } accept
		tcp dport 90-95 limit rate 100000/second burst 100000 packets log prefix "seen " counter accept
		tcp dport 96 limit rate over 100000/second burst 100000 packets drop
		tcp dport 96 accept
		meta mark set 0x7 tcp option maxseg size set 1300
		ip daddr { 10.0.0.1-10.0.0.9, 10.0.1.128/25 } ip saddr { 8.0.0.0/8, 9.9.9.9 } accept
	}
	chain i {
		type filter hook input priority filter; policy drop;
		ip daddr . tcp dport { 10.0.0.1 . 22, 10.0.1.1 . 22-25 } accept
		icmp type { echo-request, timestamp-request } accept
		icmpv6 type 128-129 accept
	}
}
`,
  },
];
