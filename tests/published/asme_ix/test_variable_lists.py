"""Every variable of the tables of procedure variables has its rule, in its category, for its processes alone.

Source: ASME BPVC Section IX, 2019-2023, QW-253 (SMAW), QW-254 (SAW), QW-255 (GMAW and FCAW), QW-256 (GTAW), QW-257
(PAW), listed from memory (H; QW-405.2, QW-404.7, QW-408.21 and the plasma row of QW-403.9 M). Metal-cored wire is gas
metal arc.
"""

import pytest

GAS_METAL = ("GMAW", "FCAW", "MCAW")
ESSENTIAL = {
    "all": "QW-403.8 QW-403.11 QW-404.4 QW-404.5 QW-404.30 QW-406.1 QW-407.1 QW-407.4 QW-410.64",
    "SMAW": "QW-403.9",
    "SAW": "QW-403.9 QW-404.9 QW-404.10 QW-404.24 QW-404.27 QW-404.34 QW-404.36",
    "GMAW": "QW-403.9 QW-403.10 QW-404.23 QW-404.24 QW-404.27 QW-404.32 QW-408.2 QW-408.9 QW-408.10 QW-409.2",
    "FCAW": "QW-403.9 QW-404.23 QW-404.24 QW-404.27 QW-408.2 QW-408.9 QW-408.10",
    "GTAW": "QW-404.14 QW-404.23 QW-408.2 QW-408.9 QW-408.10 QW-410.11",
    "PAW": "QW-403.9 QW-403.12 QW-404.14 QW-404.23 QW-404.27 QW-408.4 QW-408.9 QW-408.10 QW-410.11 QW-410.12",
}
SUPPLEMENTARY = {
    "all": "QW-403.5 QW-403.6 QW-406.3 QW-407.2 QW-409.1 QW-409.4 QW-410.9",
    "SMAW": "QW-404.7 QW-404.12 QW-405.2",
    "SAW": "QW-404.35 QW-410.10",
    "GMAW": "QW-404.12 QW-405.2 QW-410.10",
    "FCAW": "QW-404.12 QW-405.2 QW-410.10",
    "GTAW": "QW-404.12 QW-405.2 QW-410.10",
    "PAW": "QW-404.12 QW-405.2 QW-410.10",
}
CORED = "QW-402.4 QW-404.6 QW-405.3 QW-406.2 QW-408.1 QW-408.3 QW-408.5 QW-410.3 QW-410.7 QW-410.8 QW-410.10 QW-410.15"
NONESSENTIAL = {
    "all": "QW-402.1 QW-402.10 QW-402.11 QW-404.33 QW-405.1 QW-409.4 QW-409.8 QW-410.1 QW-410.5 QW-410.6 QW-410.9 "
    "QW-410.25 QW-410.26",
    "SMAW": "QW-402.4 QW-404.6 QW-405.3 QW-406.2",
    "SAW": "QW-402.4 QW-404.6 QW-404.29 QW-406.2 QW-410.7 QW-410.8 QW-410.10 QW-410.15",
    "GMAW": CORED,
    "FCAW": CORED,
    "GTAW": "QW-402.5 QW-404.3 QW-404.22 QW-404.50 QW-405.3 QW-408.1 QW-408.3 QW-408.5 QW-409.3 QW-409.12 QW-410.3 "
    "QW-410.7 QW-410.10 QW-410.15",
    "PAW": "QW-402.5 QW-404.3 QW-404.22 QW-405.3 QW-408.1 QW-408.5 QW-408.21 QW-409.12 QW-410.3 QW-410.7 QW-410.10 "
    "QW-410.15",
}
LISTS = {"essential": ESSENTIAL, "supplementary": SUPPLEMENTARY, "nonessential": NONESSENTIAL}
PROCESSES = ("SMAW", "SAW", "GMAW", "FCAW", "MCAW", "GTAW", "PAW")
SHARED = {"QW-402.4", "QW-402.5", "QW-404.3", "QW-404.6"}  # one rule serves both clauses of a kind


def listed(category, process):
    lists = LISTS[category]
    return f"{lists['all']} {lists['GMAW' if process == 'MCAW' else process]}".split()


CASES = [(category, process, clause) for category in LISTS for process in PROCESSES
         for clause in listed(category, process)]  # fmt: skip


def rules_of(pack, category, process):
    """The rules of a category that can concern a process."""
    for rule in pack.rules:
        named = [condition.tokens for condition in rule.when if condition.fact == "process"]
        lifted = [group[0].tokens for group in rule.unless if len(group) == 1 and group[0].fact == "process"]
        concerned = all(process in tokens for tokens in named) and not any(process in tokens for tokens in lifted)
        if rule.category == category and concerned:
            yield rule


def clauses_of(rules):
    return {part.split("(")[0] for rule in rules for part in rule.clause.split(", ")}


@pytest.mark.parametrize(("category", "process", "clause"), CASES)
def test_a_variable_has_its_rule(asme, category, process, clause):
    assert clause in clauses_of(rules_of(asme, category, process))


@pytest.mark.parametrize(("category", "process"), [(c, p) for c in LISTS for p in PROCESSES])
def test_no_variable_of_another_process_is_listed(asme, category, process):
    foreign = {clause for other in PROCESSES for clause in listed(category, other)} - set(listed(category, process))
    assert not (foreign - SHARED) & clauses_of(rules_of(asme, category, process))
