"""
A second engine for plans, written from docs/plan.md and docs/rehearsal.md alone. Reads what `zb plan --export` prints, several
of them as a JSON array, and answers for each the last state, where the rehearsal begins, and how it ends without precautions
where it has few enough worlds.
"""
import copy
import json
import math
import sys
from concurrent.futures import ProcessPoolExecutor

import rehearse

MOST_WORLDS = 60_000
BUS = {"sata": "sata", "sas": "sata", "other": "sata", "nvme": "nvme", "ide": "ide", "mmc": "mmc", "usb": "usb"}
ESP = {"c12a7328-f81f-11d2-ba4b-00a0c93ec93b", "0xef", "ef"}
KEEP, LOST = "keep", "may be lost"


def medium(state, ident):
    return next((m for m in state["media"] if m["id"] == ident), None)


def changes(m, retention, **holds):
    m["revision"] += 1
    m.update(image=None, system=None, pool=None)
    m.update(holds)
    m["retention"] = retention


def do(state, step):
    build, machine = state["build"]["id"], state["machine"]
    code = step["code"]
    m = medium(state, step.get("item") or step.get("medium"))
    if code == "set fact":
        machine["facts"][step["fact"]] = step["value"]
    elif code == "enrol key":
        machine["keysEnrolled"] = [k for k in machine["keysEnrolled"] if k != step["system"]] + [step["system"]]
    elif code == "boot first":
        machine["bootFirst"] = step["medium"]
    elif code == "switch port":
        off = [i for i in machine["portsOff"] if i != step["medium"]]
        machine["portsOff"] = off if step["on"] else off + [step["medium"]]
    elif m is None:
        pass
    elif code == "move":
        m["in"] = step["to"]
    elif code == "move back":
        m["in"] = m["home"] = step["to"]
    elif code == "write image":
        if step["system"]:
            changes(m, KEEP, image=step["image"], system=build)
        else:
            changes(m, LOST, image=step["image"])
    elif code == "install":
        if m["system"] != build:
            changes(m, KEEP, system=build)
    elif code == "erase":
        changes(m, LOST)
    elif code == "make pool":
        if m["pool"] != build:
            changes(m, KEEP, pool=build)
    elif code == "make chain loader":
        changes(m, KEEP)
    else:
        raise ValueError(code)


def last_state(export):
    state = copy.deepcopy(export)
    for operation in state["operations"]:
        if operation["state"] in ("ready", "waits"):
            for step in operation["does"]:
                do(state, step)
    keep = ("id", "in", "retention", "revision", "image", "system", "pool")
    machine = state["machine"]
    return {
        "media": [{k: m[k] for k in keep} for m in state["media"]],
        "bootFirst": machine and machine["bootFirst"],
        "portsOff": machine and machine["portsOff"],
        "keysEnrolled": machine and sorted(machine["keysEnrolled"]),
    }


def at_first_start(export):
    """Ids of what is in the machine when it is started, precautions not taken."""
    build, machine = export["build"], export["machine"]["id"]
    place = {m["id"]: m["home"] for m in export["media"]}
    untaken = {p.split(":", 1)[1] for p in build["precautions"] if p.startswith("unplug:")}
    started = False
    for operation in export["operations"]:
        started = started or operation["kind"] == "start the stick"
        for step in operation["does"]:
            if step["code"] not in ("move", "move back") or step["item"] not in place:
                continue
            if operation["kind"] == "stick in":
                continue
            precaution = step["item"] in untaken
            if not started and not (precaution and step["to"] is None):
                place[step["item"]] = step["to"]
            if started and precaution and step["to"] == machine:
                place[step["item"]] = machine
    return {i for i, at in place.items() if at == machine}


def may_erase(export, m):
    return m["retention"] == LOST or m["system"] == export["build"]["id"]


def begins(export):
    build, machine, system = export["build"], export["machine"], export["system"]
    if machine is None:
        return {"code": "no machine"}
    if system is None:
        return {"code": "no system"}
    write = system["installer"] == "written straight to the final drive"
    target = medium(export, build["writtenMedium"] if write else build["systemDrive"])
    if target is None:
        return {"code": "no target"}
    if target["heldByAnother"]:
        return {"code": "target is held"}
    if not may_erase(export, target) and (write or not build["beside"]):
        return {"code": "target is kept"}
    if not write and machine["facts"]["firmware.mode"] == "board":
        return {"code": "starts by a board’s own loader"}
    stick = None if write else medium(export, build["writtenMedium"])
    if stick is target:
        stick = None
    away = write and not build["inPlace"]
    inside = set() if away else at_first_start(export)

    def alike(m, other):
        if other is None or m is other or m["removable"] != other["removable"]:
            return False
        return abs(m["bytes"] - other["bytes"]) <= 0.05 * max(m["bytes"], other["bytes"])

    loose = [m for m in export["media"] if m["in"] is None and m["removable"]]
    loose = [m for m in loose if alike(m, target) or alike(m, stick)]
    loose.sort(key=lambda m: m["retention"] == LOST)
    there = [] if away else [m for m in export["media"] if m["id"] in inside and m["home"] == machine["id"]]
    aside = [m for m in export["media"] if m["id"] in build["putAside"] or m["id"] == build["chainLoader"]]
    aside = [m for m in aside if not away or m["home"] != machine["id"]]
    media = []
    for m in there + [target] + ([stick] if stick else []) + aside + loose[:2]:
        if m not in media:
            media.append(m)
    if len(media) + 1 > 12:
        return {"code": "too many drives"}
    drives = [drive(export, m, target, stick, inside) for m in media]
    if away:
        own = dict(id="own", bytes=0, model="", serial=None, label=None, bus="sata", role="other", matters=True)
        own.update(starts={"uefi": None, "bios": None}, signed=installer(export)["signed"], startPart=drives_part(target))
        own.update(unplug=None, portOff=False, copyMinutes=None, chainsTo=None)
        drives.insert(0, own)
    elif stick is None and not write:
        none = dict(id="the stick", bytes=system["stickBytes"], model="the stick", serial=None, label=None, bus="usb")
        none.update(role="installer", matters=False, startPart=drives_part(target), unplug=None, portOff=False)
        none.update(copyMinutes=drive(export, target, None, None, inside)["copyMinutes"], chainsTo=None)
        none.update(installer(export))
        drives.append(none)
    manner = dict(system["manner"])
    if write:
        manner["lists"] = ["size", "model", "serial", "label"]
    return {
        "kind": "write" if write else "install",
        "machine": plain_machine(machine) if write else whole_machine(machine, drives),
        "drives": drives,
        "startBy": build["startBy"],
        "installer": {"choice": system["installer"], **manner, "enrols": enrols(export)},
        "refused": build["refused"],
    }


def enrols(export):
    machine, system = export["machine"], export["system"]
    done = any(o["kind"] == "enrol the key" and o["state"] == "done" for o in export["operations"])
    before = system["id"] in machine["keysEnrolled"] and not done
    return system["secureBoot"] == "own key at first restart" and not before


def drives_part(m):
    content = m["content"]
    return content is None or any(t.lower() in ESP for t in content["partitionTypes"])


def starts(m):
    content = m["content"]
    if content is not None and content["blank"]:
        return {"uefi": None, "bios": None}
    if content is None or content["boots"] is None:
        return {"uefi": "something", "bios": "something"}
    bios = [b["title"] for b in content["boots"] if b["firmware"] in (None, "bios")]
    uefi = [b["title"] for b in content["boots"] if b["firmware"] != "bios"]
    return {"uefi": uefi[0] if uefi else None, "bios": bios[0] if bios else None}


def installer(export):
    machine, system, image = export["machine"], export["system"], export["image"]
    arch, level = machine["facts"]["cpu.arch"], machine["facts"]["cpu.level"]
    refuses = arch is not None and arch not in system["archs"]
    if arch == "x86_64" and system["cpuLevel"] is not None and level is not None and level < system["cpuLevel"]:
        refuses = True

    def boots(mode):
        if refuses:
            return False
        if image is not None:
            return image[mode] != "no"
        return not system["firmware"] or mode in system["firmware"]

    signed = system["secureBoot"] != "must be off" and (image is None or image["refusedBySecureBoot"] is False)
    return {"starts": {m: "the installer" if boots(m) else None for m in ("uefi", "bios")}, "signed": signed}


def drive(export, m, target, stick, inside):
    build, machine = export["build"], export["machine"]
    role = "target" if m is target else "installer" if m is stick else "other"
    within = role != "installer" and m["transport"] != "usb" and m["id"] in inside
    chain = role == "other" and m["id"] == build["chainLoader"]
    sata = within and m["transport"] == "sata"
    unplug = None
    if within and m["transport"] == "mmc":
        unplug = {"minutes": 1, "screws": 0} if m["removable"] else None
    elif within:
        unplug = {"minutes": machine["openMinutes"], "screws": machine["screws"]}
    out = {
        "id": m["id"],
        "bytes": m["bytes"],
        "model": m["model"] or "",
        "serial": m["serial"],
        "label": m["label"] or None,
        "bus": BUS[m["transport"]] if within or m["transport"] == "usb" else "usb",
        "role": role,
        "matters": role != "installer" and (chain or not may_erase(export, m)),
        "starts": {"uefi": "a chain loader", "bios": "a chain loader"} if chain else starts(m),
        "signed": True,
        "startPart": drives_part(m),
        "unplug": unplug,
        "portOff": sata and machine["form"] in ("tower", "office desktop", "rack server"),
        "copyMinutes": m["copyMinutes"] if role == "other" and m["retention"] != LOST else None,
        "chainsTo": target["id"] if chain else None,
    }
    if role == "installer":
        out.update(installer(export))
    return out


def plain_machine(machine):
    return {"power": "secured" if machine["batteryCarriesIt"] else "mains", "mode": None, "secureBoot": None, "order": None,
            "biosTries": None, "cannotStart": [], "showsParts": False}


def whole_machine(machine, drives):
    facts = machine["facts"]
    offers, mode, order = facts["firmware.offers"] or [], facts["firmware.mode"], facts["firmware.order"]
    secure, tries = facts["firmware.secureBoot"], facts["firmware.triesEach"]
    groups = None
    if isinstance(order, list):
        named = [e for e in order if e in ("usb", "internal")]
        groups = [[d["id"] for d in drives if (d["bus"] == "usb") == (e == "usb")] for e in named]
        groups = [g for g in groups if g]
    out = plain_machine(machine)
    out.update(
        mode="both" if "uefi" in offers and "bios" in offers else mode if mode in ("uefi", "bios") else None,
        secureBoot=None if secure is None else "on" if secure == "on" else "off",
        order=groups,
        biosTries=None if tries is None else "each" if tries is True else "first",
        cannotStart=machine["cannotBoot"],
    )
    return out


def few(plan):
    """Are there few enough worlds to walk each? Counted without making them: orders alone can be half a thousand millions."""
    count = math.factorial(len(plan["drives"])) ** (2 if plan["kind"] == "install" else 1)
    return len(plan["drives"]) < 6 and count * 50 <= MOST_WORLDS


def answer(export):
    begin = begins(export)
    out = {"end": last_state(export), "begins": begin, "endings": None}
    if "code" not in begin and few(begin):
        tally = {}
        for world in rehearse.worlds(begin):
            ending = rehearse.Run(begin, world, frozenset()).ending()
            tally[ending] = tally.get(ending, 0) + 1
        out["endings"] = tally
    return out


if __name__ == "__main__":
    with ProcessPoolExecutor() as pool:
        json.dump(list(pool.map(answer, json.load(sys.stdin), chunksize=2)), sys.stdout)
