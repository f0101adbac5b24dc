"""Times foretold from a record, worked out run by run with NumPy and SciPy, and exact intervals of shares.

Standard input: {"cases": [{"runs": [...], "asks": [...]}], "shares": [[k, n]]}. Written from docs/cli.md, “How times are
foretold”, alone: all runs stand for themselves in one matrix, which is inverted as it is.
"""
import json
import sys

import numpy
from scipy import stats

PACE, ACT, KIND, SYSTEM = 0.34, 0.42, 0.13, 0.11
CHANCE = [0.4, 0.2, 0.08, 0.65]
SURE = 8
Z90 = stats.norm.ppf(0.9)
A0 = SURE / 2
B0 = (Z90 / stats.t.ppf(0.9, SURE)) ** 2 * A0


def scale(table):
    high = max(table["high"], 3)
    low = min(max(table["low"], high / 20, 3), high)
    return (numpy.log(low) + numpy.log(high)) / 2, max((numpy.log(high) - numpy.log(low)) / (2 * Z90), 0.09)


def alike(a, b):
    return PACE + (a["act"] == b["act"]) * (
        ACT
        + KIND * (a["kind"] is not None and a["kind"] == b["kind"])
        + SYSTEM * (a["system"] is not None and a["system"] == b["system"])
    )


def wide(runs):
    log = 0.0
    for r in runs:
        if r["range"] is not None:
            held = r["range"]["low"] <= r["seconds"] <= r["range"]["high"]
            log = min(max(log + (-0.006 if held else 0.024), -numpy.log(2.5)), numpy.log(2.5))
    return numpy.exp(log)


def foretell(runs, asks):
    z = numpy.array([
        numpy.clip((numpy.log(max(r["seconds"], 1)) - scale(r["table"])[0]) / scale(r["table"])[1], -4, 4)
        for r in runs
    ])
    n = len(runs)
    like = numpy.array([[alike(a, b) for b in runs] for a in runs]).reshape(n, n)
    best = None
    for chance in CHANCE if n else CHANCE[:1]:
        k = like * (1 - chance) + chance * numpy.eye(n)
        inverse = numpy.linalg.inv(k) if n else k
        squares = float(z @ inverse @ z) if n else 0.0
        # Multivariate t: B0/A0 k with 2 A0 degrees of freedom.
        likely = stats.multivariate_t.logpdf(z, shape=k * B0 / A0, df=2 * A0) if n else 0.0
        if best is None or likely > best[0]:
            best = (likely, chance, inverse, squares)
    _, chance, inverse, squares = best
    dof = SURE + n
    variance = (2 * B0 + squares) / dof
    out = []
    for a in asks:
        c = numpy.array([alike(a, r) for r in runs]) * (1 - chance)
        at = float(c @ inverse @ z) if n else 0.0
        left = 1 - (float(c @ inverse @ c) if n else 0.0)
        middle, width = scale(a["table"])
        q = stats.t.ppf([0.1, 0.25, 0.5, 0.75, 0.9], dof) * wide(runs)
        out.append(list(numpy.exp(middle + width * (at + q * numpy.sqrt(variance * left)))))
    return out


given = json.load(sys.stdin)
json.dump({
    "foretold": [foretell(c["runs"], c["asks"]) for c in given["cases"]],
    "shares": [
        [stats.beta.ppf(0.025, k, n - k + 1) if k else 0.0, stats.beta.ppf(0.975, k + 1, n - k) if k < n else 1.0]
        for k, n in given["shares"]
    ],
}, sys.stdout)
