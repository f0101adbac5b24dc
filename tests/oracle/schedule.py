"""The best plan of small evenings by trying every order, the chance by NumPy, and calendars read by python3-icalendar.

Standard input: {"problems": [...], "chances": [...], "calendars": [...]}. A plan places tasks one after the other in an
order of hands, each as early as it can be; written from docs/cli.md alone.
"""
import itertools
import json
import sys

import numpy
from icalendar import Calendar

Z90 = 1.2815515655446004


def placed(problem, order, hands, alone):
    ends, taken, free_hands, done, late = {}, {}, 0.0, {}, 0.0
    for i in order:
        t = problem["tasks"][i]
        start = max(
            [free_hands if hands[i] > 0 else 0.0]
            + [ends[a] for a in t["after"]]
            + [taken.get(r, 0.0) for r in t["needs"]]
            + ([] if t["pinned"] is None else [t["pinned"]])
        )
        if t["pinned"] is not None:
            late += start - t["pinned"]
        off, over = start + hands[i], start + hands[i] + alone[i]
        if hands[i] > 0:
            free_hands = off
        for r in t["needs"]:
            taken[r] = over if r in t["keeps"] else off
        ends[i] = over
        done[t["box"]] = max(done.get(t["box"], 0.0), over)
    missed = sum(
        b["weight"] for n, b in enumerate(problem["boxes"])
        if problem["until"] is not None and done.get(n, 0.0) > problem["until"]
    )
    return late, missed, max(ends.values(), default=0.0)


def best(problem):
    n = len(problem["tasks"])
    hands = [(t["hands"]["low"] + t["hands"]["high"]) / 2 for t in problem["tasks"]]
    alone = [(t["alone"]["low"] + t["alone"]["high"]) / 2 for t in problem["tasks"]]
    found = None
    for order in itertools.permutations(range(n)):
        at = {t: i for i, t in enumerate(order)}
        if any(at[a] > at[i] for i in range(n) for a in problem["tasks"][i]["after"]):
            continue
        worth = placed(problem, order, hands, alone)
        if found is None or worth < found:
            found = worth
    return found


def chance(case, draws=6000):
    problem, order = case["problem"], case["order"]
    rng = numpy.random.default_rng(7)

    n = len(problem["tasks"])
    # Of one evening the steps go together; a step's hands and its time alone do so wholly.
    z = rng.multivariate_normal(numpy.zeros(n), numpy.array(problem["correlations"]), draws)

    def lengths(span, i):
        low, high = span["low"], span["high"]
        if high <= 0:
            return numpy.zeros(draws)
        low = numpy.log(max(low, high / 20))
        high = numpy.log(high)
        return numpy.exp((low + high) / 2 + z[:, i] * (high - low) / (2 * Z90))

    hands = [lengths(t["hands"], i) for i, t in enumerate(problem["tasks"])]
    alone = [lengths(t["alone"], i) for i, t in enumerate(problem["tasks"])]
    ends = [placed(problem, order, [h[d] for h in hands], [a[d] for a in alone])[2] for d in range(draws)]
    return {"done": float(numpy.mean(numpy.array(ends) <= problem["until"])), "middle": float(numpy.median(ends))}


def read(text):
    out = []
    for event in Calendar.from_ical(text).walk("VEVENT"):
        out.append({
            "title": str(event["SUMMARY"]),
            "words": str(event.get("DESCRIPTION", "")),
            "from": event["DTSTART"].dt.isoformat(),
            "to": event["DTEND"].dt.isoformat(),
            "busy": str(event["TRANSP"]) == "OPAQUE",
        })
    return out


def read_days(text):
    out = []
    for event in Calendar.from_ical(text).walk("VEVENT"):
        rule = event.get("RRULE")
        alarms = event.walk("VALARM")
        out.append({
            "title": str(event["SUMMARY"]),
            "day": event["DTSTART"].dt.isoformat(),
            "every": rule["INTERVAL"][0] if rule and rule["FREQ"] == ["DAILY"] else None,
            "notice": -alarms[0]["TRIGGER"].dt.days if alarms else None,
        })
    return out


given = json.load(sys.stdin)
print(json.dumps({
    "best": [best(p) for p in given["problems"]],
    "chances": [chance(c) for c in given["chances"]],
    "calendars": [read(c) for c in given["calendars"]],
    "days": read_days(given["days"]),
}))
