"""Every variable of tables QW-253 (SMAW) and QW-256 (GTAW) has its rule, in its category.

Source: ASME BPVC Section IX, 2019-2023, QW-253 and QW-256, listed from memory (H; QW-405.2, QW-404.7 M).
"""

import pytest

ESSENTIAL = {
    "both": "QW-403.8 QW-403.11 QW-404.4 QW-404.5 QW-404.30 QW-406.1 QW-407.1 QW-407.4 QW-410.64",
    "SMAW": "QW-403.9",
    "GTAW": "QW-404.14 QW-404.23 QW-408.2 QW-408.9 QW-408.10 QW-410.11",
}
SUPPLEMENTARY = {
    "both": "QW-403.5 QW-403.6 QW-404.12 QW-405.2 QW-406.3 QW-407.2 QW-409.1 QW-409.4 QW-410.9",
    "SMAW": "QW-404.7",
    "GTAW": "QW-410.10",
}
NONESSENTIAL = {
    "both": "QW-402.1 QW-402.10 QW-402.11 QW-404.33 QW-405.1 QW-405.3 QW-409.4 QW-409.8 QW-410.1 QW-410.5 QW-410.6 "
    "QW-410.9 QW-410.25 QW-410.26",
    "SMAW": "QW-402.4 QW-404.6 QW-406.2",
    "GTAW": "QW-402.5 QW-404.3 QW-404.22 QW-404.50 QW-408.1 QW-408.3 QW-408.5 QW-409.3 QW-409.12 QW-410.3 QW-410.7 "
    "QW-410.10 QW-410.15",
}
LISTS = {"essential": ESSENTIAL, "supplementary": SUPPLEMENTARY, "nonessential": NONESSENTIAL}
CASES = [
    (category, process, clause)
    for category, lists in LISTS.items()
    for process in ("SMAW", "GTAW")
    for clause in f"{lists['both']} {lists[process]}".split()
]


def rules_of(pack, category, process):
    """The rules of a category that can concern a process."""
    for rule in pack.rules:
        named = [condition.tokens for condition in rule.when if condition.fact == "process"]
        if rule.category == category and all(process in tokens for tokens in named):
            yield rule


@pytest.mark.parametrize(("category", "process", "clause"), CASES)
def test_a_variable_has_its_rule(asme, category, process, clause):
    clauses = {part.split("(")[0] for rule in rules_of(asme, category, process) for part in rule.clause.split(", ")}
    assert clause in clauses


@pytest.mark.parametrize(("category", "process"), [(c, p) for c in LISTS for p in ("SMAW", "GTAW")])
def test_no_variable_of_another_process_is_listed(asme, category, process):
    other = {"SMAW": "GTAW", "GTAW": "SMAW"}[process]
    foreign = set(LISTS[category][other].split()) - set(LISTS[category][process].split())
    own = [rule.clause for rule in rules_of(asme, category, process)]
    shared = {"QW-402.4", "QW-402.5", "QW-404.3", "QW-404.6"}  # one rule serves both clauses of a kind
    assert not (foreign - shared) & {part for clause in own for part in clause.split(", ")}
