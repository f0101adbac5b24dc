"""Works the shares of causes and the bits of looks out once more, by brute force from the tables alone.

Standard input: {"tables": [...], "cases": [{"moment", "seen", "answered"}]}, standard output: a list of
{"shares": {cause: share}, "bits": {look: bits}, "next": [looks that tell as much as any, to 0.01 bit] or null}.
Bayes' rule over all causes; a look's bits are the entropy now less the mean entropy over its answers (Shannon 1948).
"""
import json
import math
import sys

ENOUGH, LEAST, ALIKE = 0.9, 0.04, 0.01


def entropy(shares):
    return -sum(p * math.log2(p) for p in shares if p > 0)


def normal(weights):
    whole = sum(weights.values())
    return {c: w / whole for c, w in weights.items()}


def worked_out(table, case):
    looks = {look["look"]: look for look in table["looks"]}

    def of(look, cause, answer):
        return looks[look]["of"][cause][looks[look]["answers"].index(answer)]

    weights = {}
    for suspect in table["suspects"]:
        w = suspect["weight"]
        for symptom in case["seen"]:
            w *= suspect["shows"][symptom]
        for said in case["answered"]:
            if said["answer"] is not None:
                w *= of(said["look"], suspect["cause"], said["answer"])
        weights[suspect["cause"]] = w
    shares = normal(weights)
    asked = {said["look"] for said in case["answered"]}
    bits = {}
    for name, look in looks.items():
        mean = 0.0
        for answer in look["answers"]:
            joint = {c: p * of(name, c, answer) for c, p in shares.items()}
            p = sum(joint.values())
            if p > 0:
                mean += p * entropy(normal(joint).values())
        bits[name] = entropy(shares.values()) - mean
    offered = {n: b for n, b in bits.items() if n not in asked and b >= LEAST}
    best = None
    if max(shares.values()) < ENOUGH and offered:
        most = max(offered.values())
        as_good = [n for n, b in offered.items() if b >= most - ALIKE]
        quickest = min(looks[n]["minutes"] for n in as_good)
        best = [n for n in as_good if looks[n]["minutes"] == quickest]
    return {"shares": shares, "bits": bits, "next": best}


given = json.load(sys.stdin)
tables = {t["moment"]: t for t in given["tables"]}
print(json.dumps([worked_out(tables[c["moment"]], c) for c in given["cases"]]))
