"""
A second engine for rehearsals, written from docs/rehearsal.md alone: every world of every set of precautions, one after
another, nothing clever. Reads plans as a JSON array on standard input and answers, for each, the worlds, the endings without
precautions and under each set of them, and the smallest sets for both aims.
"""
import itertools
import json
import sys
from concurrent.futures import ProcessPoolExecutor

LOST = {"half written, for good", "kept start altered", "kept drive erased"}
RIGHT = {"right system starts", "written"}
ASKED = {"asks for the drive", "preselects the first drive", "written straight to the final drive"}


def alike(plan):
    inst = plan["installer"]
    columns = [c for c in ("size", "model", "label") if c in inst["lists"]]
    if inst["choice"] not in ASKED or not columns:
        return []
    target = next(d for d in plan["drives"] if d["role"] == "target")

    def same(d, c):
        if c == "size":
            return abs(d["bytes"] - target["bytes"]) <= 0.05 * max(d["bytes"], target["bytes"])
        return d[c] == target[c]

    return [d["id"] for d in plan["drives"] if shown(plan, d) and all(same(d, c) for c in columns)]


def shown(plan, d):
    return d["role"] != "installer" or plan["installer"]["listsItself"]


def offered(plan):
    inst, m = plan["installer"], plan["machine"]
    install = plan["kind"] == "install"
    asked = inst["choice"] in ASKED
    target = next(d for d in plan["drives"] if d["role"] == "target")
    minutes = {}
    for d in plan["drives"]:
        other = d["role"] == "other"
        if other and d["bus"] == "usb":
            minutes["away:" + d["id"]] = 1
        if other and d["bus"] != "usb" and d["unplug"]:
            minutes["unplug:" + d["id"]] = d["unplug"]["minutes"]
        if other and d["bus"] != "usb" and d["portOff"]:
            minutes["port off:" + d["id"]] = 3
        if d["matters"] and d["copyMinutes"] is not None:
            minutes["copy:" + d["id"]] = d["copyMinutes"]
    if asked and "label" in inst["lists"] and len(alike(plan)) > 1:
        minutes["label"] = 2
    if asked and "serial" in inst["lists"] and target["serial"] is not None:
        if sum(d["serial"] == target["serial"] for d in plan["drives"]) == 1:
            minutes["serial"] = 1
    if asked:
        minutes["read"] = 2
    if install:
        if m["mode"] in (None, "both"):
            minutes["mode"] = 3
        if m["secureBoot"] != "off" and m["mode"] != "bios":
            minutes["secure off"] = 3
        if plan["startBy"] == "menu":
            minutes["stick first"] = 4
        else:
            minutes["menu"] = 1
        if plan["startBy"] == "menu" or "menu" not in plan["refused"]:
            minutes["key"] = 2
        if inst["enrols"] and m["secureBoot"] != "off" and m["mode"] != "bios":
            minutes["enrol"] = 2
        minutes["stick out"] = 10 if inst["ends"] == "restarts by itself" else 1
        minutes["target first"] = 3
    if m["power"] == "mains":
        minutes["power"] = 5
    return {p: n for p, n in minutes.items() if p not in plan["refused"]}


def orders(plan):
    yield from (list(p) for p in itertools.permutations([d["id"] for d in plan["drives"]]))


def firmware_orders(plan):
    ids = [d["id"] for d in plan["drives"]]
    groups = [list(g) for g in (plan["machine"]["order"] or [])]
    rest = [i for i in ids if not any(i in g for g in groups)]
    if rest:
        groups.append(rest)
    for parts in itertools.product(*(list(itertools.permutations(g)) for g in groups)):
        yield [i for part in parts for i in part]


def worlds(plan):
    inst, m = plan["installer"], plan["machine"]
    install = plan["kind"] == "install"
    asked = inst["choice"] in ASKED
    offers = offered(plan)
    by_menu = install and (plan["startBy"] == "menu" or "menu" in offers)
    by_order = install and (plan["startBy"] == "order" or "stick first" in offers)
    menu = [None]
    if by_menu:
        stick = next(d for d in plan["drives"] if d["role"] == "installer")
        menu = []
        for d in plan["drives"]:
            if d is stick or (d["bus"] == "usb" and d["model"] == stick["model"]):
                for mode in ("uefi", "bios") if m["mode"] == "both" else (None,):
                    menu.append((d["id"], mode, False))
                if m["showsParts"]:
                    menu.append((d["id"], None, True))
    stick_moments = ["in time", "left in"] + ([] if inst["ends"] == "powers off" else ["too early"])
    power = ["holds", "before the table", "while copying"]
    power += ["before the loader", "before the restart"] if install else []
    dims = {
        "order": list(orders(plan)),
        "firmware order": list(firmware_orders(plan)) if install else [[]],
        "mode": ["uefi", "bios"] if install and m["mode"] is None else [None],
        "bios tries": ["each", "first"] if install and m["biosTries"] is None and m["mode"] != "uefi" else [None],
        "secure": ["off", "on"] if install and m["secureBoot"] is None and m["mode"] != "bios" else [None],
        "key": ["caught", "missed"] if by_menu else [None],
        "entry": menu,
        "read": [True, False] if asked else [None],
        "pick": alike(plan) or [None],
        "loader": ["the chosen drive", "the first start part found", "the first drive"]
        if install and inst["loader"] is None
        else [inst["loader"]],
        "stick": stick_moments if install else [None],
        "enrol": ["in time", "missed"]
        if install and inst["enrols"] and m["secureBoot"] != "off" and m["mode"] != "bios"
        else [None],
        "set back": [True, False] if by_order else [None],
        "power": power if m["power"] == "mains" else ["holds"],
        "forgets": [False, True] if install and any(p.startswith("unplug:") for p in offers) else [None],
    }
    for values in itertools.product(*dims.values()):
        yield dict(zip(dims, values))


class Run:
    def __init__(self, plan, world, taken):
        self.plan, self.w, self.taken = plan, world, taken
        self.ids = [d["id"] for d in plan["drives"]]
        self.by = {d["id"]: d for d in plan["drives"]}
        self.stick = next((d["id"] for d in plan["drives"] if d["role"] == "installer"), None)
        self.target = next(d["id"] for d in plan["drives"] if d["role"] == "target")
        self.starts = {
            i: {m: None if self.by[i]["starts"][m] is None else "old" for m in ("uefi", "bios")} for i in self.ids
        }
        self.signed = {i: self.by[i]["signed"] for i in self.ids}
        self.back = False
        self.first = None
        if plan["startBy"] == "order":
            self.stick_first = "menu" not in taken
        else:
            self.stick_first = "stick first" in taken

    def there(self, i):
        if "away:" + i in self.taken:
            return False
        return self.back or not ("unplug:" + i in self.taken or "port off:" + i in self.taken)

    def matters(self, i):
        return self.by[i]["matters"] and "copy:" + i not in self.taken

    def modes(self):
        mode = self.plan["machine"]["mode"]
        if mode in (None, "both") and "mode" in self.taken:
            return ["uefi"] if self.by[self.stick]["starts"]["uefi"] is not None else ["bios"]
        mode = mode or self.w["mode"]
        return ["uefi", "bios"] if mode == "both" else [mode]

    def secure(self):
        if "secure off" in self.taken:
            return False
        return (self.plan["machine"]["secureBoot"] or self.w["secure"]) == "on"

    def try_drive(self, i, mode):
        what = self.starts[i][mode]
        if what is None or self.by[i]["bus"] in self.plan["machine"]["cannotStart"] or not self.there(i):
            return None
        if mode == "uefi" and self.secure() and not self.signed[i]:
            enrolled = "enrol" in self.taken or self.w["enrol"] == "in time"
            if not (what == "new" and self.plan["installer"]["enrols"] and enrolled):
                return None
        hands = self.by[i]["chainsTo"]
        if hands is not None and what == "old":
            if not self.there(hands) or self.starts[hands][mode] is None:
                return None
            what = self.starts[hands][mode]
        return i, mode, what

    def by_order(self, stick_in):
        ahead = [i for i in (self.first, self.stick if self.stick_first else None) if i is not None]
        rest = [i for i in self.w["firmware order"] if i not in ahead]
        gone = [i for i in rest if self.back and self.w["forgets"] and "unplug:" + i in self.taken]
        for i in ahead + [i for i in rest if i not in gone] + gone:
            if i == self.stick and not stick_in:
                continue
            for mode in self.modes():
                found = self.try_drive(i, mode)
                if found:
                    return found
            there = self.there(i) and self.by[i]["bus"] not in self.plan["machine"]["cannotStart"]
            tries = self.plan["machine"]["biosTries"] or self.w["bios tries"]
            if self.modes() == ["bios"] and tries == "first" and there:
                return None
        return None

    def ends_with(self, found):
        if found is None:
            return "nothing starts"
        if found[2] == "new":
            return "right system starts"
        return "installer starts again" if found[0] == self.stick else "another system starts"

    def first_start(self):
        if self.stick_first or ("key" not in self.taken and self.w["key"] == "missed"):
            return self.by_order(True)
        drive, mode, dead = self.w["entry"]
        if dead:
            return self.by_order(True)
        if not self.there(drive):
            drive = self.stick
        for m in [mode] if mode in self.modes() else self.modes():
            found = self.try_drive(drive, m)
            if found:
                return found
        return self.by_order(True)

    def take(self):
        """The drive that is taken, and whether somebody read."""
        choice = self.plan["installer"]["choice"]
        listed = [i for i in self.w["order"] if shown(self.plan, self.by[i]) and self.there(i)]
        if choice == "takes the first drive unasked":
            return listed[0], False
        if choice == "takes the largest drive unasked":
            most = max(self.by[i]["bytes"] for i in listed)
            return next(i for i in listed if self.by[i]["bytes"] == most), False
        if "serial" in self.taken:
            return self.target, True
        reads = "read" in self.taken or self.w["read"]
        if not reads and choice == "preselects the first drive":
            return next((i for i in listed if self.by[i]["bus"] != "usb"), listed[0]), False
        if not reads or not {"size", "model", "label"} & set(self.plan["installer"]["lists"]):
            expected = [i for i in self.ids if i in listed]
            return listed[expected.index(self.target)], reads
        if "label" in self.taken or self.w["pick"] not in listed:
            return self.target, True
        return self.w["pick"], True

    def ending(self):
        install = self.plan["kind"] == "install"
        mode = None
        if install:
            found = self.first_start()
            if found is None or found[0] != self.stick:
                return self.ends_with(found)
            mode = found[1]
        drive, read = self.take()
        power = "holds" if "power" in self.taken else self.w["power"]
        if power == "before the table":
            return self.ends_with(self.by_order(True)) if install else "nothing written"
        whole = not (drive == self.target and read and self.plan["installer"]["beside"])
        if whole:
            self.starts[drive] = {"uefi": None, "bios": None}
            if self.matters(drive):
                return "kept drive erased"
        if drive != self.target:
            return "other drive erased"
        half = "half written, for good" if self.matters(drive) else "half written, again"
        if power in ("while copying", "before the loader"):
            return half
        if not install:
            return "written"
        moment = "in time" if "stick out" in self.taken else self.w["stick"]
        if moment == "too early":
            return half
        place = self.w["loader"]
        there = [i for i in self.w["order"] if i != self.stick and self.there(i)]
        goes = self.target
        if place == "the first drive":
            goes = there[0]
        elif place == "the first start part found" and mode == "uefi":
            goes = next(i for i in there if i == self.target or self.by[i]["startPart"])
        stood_there = self.starts[goes].get(mode) is not None
        self.starts[goes][mode] = "new"
        # A signature is asked for under UEFI alone: an installation under BIOS leaves what UEFI starts as it was.
        if mode == "uefi":
            self.signed[goes] = self.by[self.stick]["signed"] and not self.plan["installer"]["enrols"]
        if (mode == "uefi" and self.plan["installer"]["entry"] == "made") or "target first" in self.taken:
            self.first = goes
        fallback = mode == "bios" or self.plan["installer"]["entry"] != "made"
        if (goes != self.target or (stood_there and fallback)) and self.matters(goes):
            return "kept start altered"
        cut = power == "before the restart"
        if self.stick_first and not cut and self.w["set back"]:
            self.stick_first = False
        found = self.by_order(cut or moment == "left in")
        if found is None or found[2] != "new":
            return self.ends_with(found)
        self.back = True
        return self.ends_with(self.by_order(False))


def rehearse(plan):
    offers = offered(plan)
    ids = list(offers)
    every = list(worlds(plan))
    counts = {}
    for n in range(2 ** len(ids)):
        taken = frozenset(p for i, p in enumerate(ids) if n >> i & 1)
        tally = {}
        for w in every:
            e = Run(plan, w, taken).ending()
            tally[e] = tally.get(e, 0) + 1
        counts[taken] = tally
    out = {"worlds": len(every), "precautions": offers, "counts": [[sorted(s), c] for s, c in counts.items()]}
    out["sets"] = {}
    for aim, misses in (("nothing lost", lambda e: e in LOST), ("right at once", lambda e: e not in RIGHT)):
        safe = [s for s, c in counts.items() if not any(misses(e) for e in c)]
        out["sets"][aim] = sorted(sorted(s) for s in safe if not any(t < s for t in safe))
    return out


if __name__ == "__main__":
    with ProcessPoolExecutor() as pool:
        json.dump(list(pool.map(rehearse, json.load(sys.stdin), chunksize=4)), sys.stdout)
