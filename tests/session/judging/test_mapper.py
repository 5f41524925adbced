"""The table of variables: what it names exists, and every document says through it what it states."""

import pytest

from anlage.core.document import at, with_at
from anlage.core.errors import AnlageError
from anlage.core.procedure import Deposit, Pass, with_deposit, with_element, with_pass
from anlage.core.ranges import choices
from anlage.core.record import RecordedDeposit
from anlage.data.code_packs import pack_names
from anlage.data.tables import variables
from anlage.session.judging.derivations import DERIVATIONS
from anlage.session.judging.mapper import facts_of, pass_sets, sets_of
from anlage.session.kinds import PROCEDURE, RECORD
from anlage.session.leaves.set_text import kind_of
from anlage.session.leaves.table import field_of

DOCUMENTS = {
    "wps": PROCEDURE.core.model(deposits=(Deposit(id="d1"),), passes=(Pass(id="p1", deposit="d1"),), ids=1),
    "pqr": RECORD.core.model(deposits=(RecordedDeposit(id="d1"),), ids=1),
}
STATED = [
    (row.id, kind, where)
    for row in variables().values()
    for kind, where in (("wps", row.wps), ("pqr", row.pqr))
    if where is not None
]


@pytest.mark.parametrize(("kind", "where"), [each[1:] for each in STATED], ids=[f"{e[0]}-{e[1]}" for e in STATED])
def test_every_variable_names_a_leaf_that_documents_have_and_a_derivation_that_is_there(kind, where):
    document = DOCUMENTS[kind]
    at(document, where.leaf.replace("deposits/*", "deposits/d1").replace("passes/*", "passes/p1"))
    assert not where.derive or (kind, where.derive) in DERIVATIONS
    assert where.of in ("", "metals", "filler", "heat treatment", "details", "classes")


def test_a_leaf_that_is_not_there_is_not_found():
    with pytest.raises(AnlageError, match="no_such"):
        at(DOCUMENTS["wps"], "header/no_such")


def test_every_derivation_is_used():
    assert set(DERIVATIONS) == {(kind, where.derive) for _, kind, where in STATED if where.derive}


@pytest.mark.parametrize("row", [row for row in variables().values() if row.asked], ids=lambda row: row.id)
def test_what_is_asked_of_any_record_is_a_leaf_of_every_procedure(row):
    empty = PROCEDURE.core.model()
    assert at(empty, row.asked) in (None, "groove")
    assert field_of(row.asked)


@pytest.mark.parametrize("row", list(variables().values()), ids=lambda row: row.id)
def test_the_words_and_measures_of_a_variable_are_known(row):
    names = pack_names()
    assert row.kind == "" or row.kind in names.units
    assert not row.tokens or names.tokens(row.id)
    assert not (row.kind and row.tokens)


@pytest.mark.parametrize("kind", [PROCEDURE, RECORD], ids=lambda kind: kind.id)
def test_an_empty_document_states_nothing_but_what_cannot_be_open(kind):
    assert set(sets_of(kind.core.model(), "joint")) <= {"weld", "coupon_weld", "penetration"}


def test_a_recorded_word_is_a_fact_and_a_stated_one_a_set():
    empty = RECORD.core.model()
    recorded = RECORD.core.model(technique=type(empty.technique)(progression="uphill"))
    stated = PROCEDURE.core.model(technique=type(empty.technique)(progression="uphill"))
    assert facts_of(recorded, "joint")["progression"] == "uphill"
    assert sets_of(stated, "joint")["progression"] == choices("uphill")


@pytest.mark.parametrize("row", [row for row in variables().values() if row.kind], ids=lambda row: row.id)
def test_the_ending_of_a_variable_says_what_the_table_says(row):
    assert kind_of(row.id) == row.kind


def _laid_with(changes):
    """Return the sets of the only pass of a procedure in which something was changed, and of the pass read anew."""
    wps = PROCEDURE.core.model(
        deposits=(Deposit(id="d1"),),
        passes=(Pass(id="p1", deposit="d1", current_a=(100, 120), voltage_v=(22, 24), travel_speed_mm_min=(100, 120),
                     heat_input_kj_mm=(0.5, 0.6)),),
        ids=1,
    )  # fmt: skip
    names = set(variables())
    before = dict(pass_sets(wps, wps.deposits[0], names))["p1"]
    for path, value in changes.items():
        wps = with_at(wps, path, value)
    kept_sets = dict(pass_sets(wps, wps.deposits[0], names))["p1"]
    return before, kept_sets, sets_of(wps, "pass", wps.passes[0], names)


@pytest.mark.parametrize("changes", [
    {}, {"deposits/d1/waveform": "yes"}, {"passes/p1/current_a": (130, 140)}, {"passes/p1/role": "cap"},
])  # fmt: skip
def test_what_is_kept_of_a_pass_is_what_it_states_now(changes):
    before, found, anew = _laid_with(changes)
    assert dict(found) == anew
    assert (dict(before) == anew) is (not changes)


def test_a_sector_is_seen_in_what_is_kept_of_its_pass():
    wps, _ = with_pass(*with_deposit(PROCEDURE.core.model()), current_a=(100, 120))
    names = set(variables())
    before = dict(pass_sets(wps, wps.deposits[0], names))
    wps, _ = with_element(wps, "sectors", of=wps.passes[0].id, reach="12-6", current_a=(140, 150))
    found = dict(pass_sets(wps, wps.deposits[0], names))
    assert found != before
    assert dict(found[wps.passes[0].id]) == sets_of(wps, "pass", wps.passes[0], names)
