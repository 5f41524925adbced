"""Whatever the rules of a code: a wider statement is never better off, a coupon covers itself, more records cover more.

The packs are drawn: rules of every kind that a record is asked by, on words and numbers, of every scope, with
conditions.
"""

import json

from hypothesis import given
from hypothesis import strategies as st

from anlage.core.codes import (
    Coupon,
    Demand,
    Stated,
    StatedDeposit,
    StatedPass,
    cover_box,
    judge,
    read_pack,
)
from anlage.core.ranges import Interval, Numbers, between, choices, numbers
from anlage.data.code_packs import pack_names

HEAD = """[pack]
code = "drawn"
name = "Drawn"
title = "Drawn by a dice"
editions = ["1"]
processes = ["SMAW", "GTAW"]
source = "invented for a test"

[[category]]
id = "binding"
word = "binding"
"""
NUMBERS = {"joint": ("base_metal_thickness_mm", "preheat_c"), "deposit": ("deposit_thickness_mm", "filler_diameter_mm"),
           "pass": ("heat_input_kj_mm", "pass_thickness_mm")}  # fmt: skip
WORDS = {"joint": ("progression", "runs"), "deposit": ("current_type", "product_form")}
TOKENS = {"progression": ("uphill", "downhill", "none"), "runs": ("single", "multi"),
          "current_type": ("DCEP", "DCEN", "AC"), "product_form": ("bare", "flux-cored", "metal-cored")}  # fmt: skip
ORDER = ("outside", "unproven", "inside")
values = st.integers(1, 40).map(float)
shares = st.tuples(st.sampled_from((0.2, 0.5, 0.9, 1.0)), st.sampled_from((1.0, 1.1, 2.0, 5.0)))


def written(value):
    """A value of TOML: what JSON writes, but tables."""
    if isinstance(value, dict):
        return "{ " + ", ".join(f"{key} = {written(each)}" for key, each in value.items()) + " }"
    return f"[{', '.join(map(written, value))}]" if isinstance(value, list) else json.dumps(value)


@st.composite
def conditions(draw):
    """What a rule may hang on: nothing, a word, or a number."""
    what = draw(st.sampled_from(("", "word", "number")))
    if what == "word":
        name = draw(st.sampled_from(WORDS["joint"]))
        return {name: draw(st.lists(st.sampled_from(TOKENS[name]), min_size=1, unique=True))}
    return {"base_metal_thickness_mm": {draw(st.sampled_from(("above", "to"))): draw(values)}} if what else {}


@st.composite
def of_numbers(draw):
    """A rule on a number: a band round what was recorded, or a table of them."""
    scope = draw(st.sampled_from(tuple(NUMBERS)))
    name = draw(st.sampled_from(NUMBERS[scope]))
    bands = [{"low": {"times": low, "take": "least"}, "high": {"times": high, "take": "most"}}
             for low, high in draw(st.lists(shares, min_size=3, max_size=3))]  # fmt: skip
    if draw(st.booleans()):
        return {"variable": name, "scope": scope, "kind": "band", **bands[0]}
    one, two = sorted(draw(st.lists(values, min_size=2, max_size=2, unique=True)))
    rows = [{"to": one}, {"above": one, "to": two}, {"above": two}]
    on = draw(st.sampled_from(("base_metal_thickness_mm", name)))
    if on != name:
        bands = [{"low": {**band["low"], "of": name}, "high": {**band["high"], "of": name}} for band in bands]
    return {"variable": name, "scope": scope, "kind": "table", "on": on,
            "rows": [row | band for row, band in zip(rows, bands, strict=True)]}  # fmt: skip


@st.composite
def of_words(draw):
    """A rule on a word: the same, a group, or a map that leaves each word to itself."""
    scope = draw(st.sampled_from(tuple(WORDS)))
    name = draw(st.sampled_from(WORDS[scope]))
    kind = draw(st.sampled_from(("same", "group", "map")))
    some = st.lists(st.sampled_from(TOKENS[name]), min_size=1, unique=True)
    more = {"group": {"groups": [draw(some)]}, "same": {}}.get(kind)
    if more is None:
        more = {"map": {own: sorted({own, *draw(some)}) for own in draw(some)}, "otherwise": "same"}
    return {"variable": name, "scope": scope, "kind": kind, **more}


@st.composite
def packs(draw):
    """A code of a few drawn rules."""
    text = HEAD
    for number, rule in enumerate(draw(st.lists(st.one_of(of_numbers(), of_words()), min_size=1, max_size=6))):
        common = {"id": f"r{number}", "clause": f"{number}", "title": "drawn", "category": "binding", "confidence": "H"}
        told = {**common, **rule, draw(st.sampled_from(("when", "unless"))): draw(conditions())}
        text += "\n[[rule]]\n" + "".join(f"{key} = {written(value)}\n" for key, value in told.items() if value != {})
    return read_pack({"pack.toml": text}, names=pack_names())


@st.composite
def coupons(draw):
    """A whole record: every word and number that a drawn rule may ask for."""

    def of(scope):
        return {name: draw(values) for name in NUMBERS.get(scope, ())} | {
            name: draw(st.sampled_from(TOKENS[name])) for name in WORDS.get(scope, ())
        }

    own = {"process": draw(st.sampled_from(("SMAW", "GTAW"))), **of("deposit"), **of("pass")}
    own["deposit_thickness_mm"] = joint_thickness = draw(values)
    return Coupon(name="R", joint=of("joint") | {"base_metal_thickness_mm": joint_thickness}, deposits=(own,))


def as_sets(facts, names):
    return {
        name: numbers([Interval.single(facts[name])]) if isinstance(facts[name], float) else choices(facts[name])
        for name in names
    }


def stated(coupon):
    """What a procedure states that is its coupon to the letter."""
    own = coupon.deposits[0]
    each = StatedPass("p1", as_sets(own, NUMBERS["pass"]))
    deposit = StatedDeposit(own["process"], as_sets(own, (*NUMBERS["deposit"], *WORDS["deposit"])), (each,))
    return Stated(as_sets(coupon.joint, (*NUMBERS["joint"], *WORDS["joint"])), (deposit,))


def widened(what, down, up, words):
    """The same with every number stated over more, and more words."""

    def wider(sets):
        return {
            name: between(each.parts[0].low - down, each.parts[-1].high + up)
            if isinstance(each, Numbers) else each | choices(*[w for w in words if w in TOKENS[name]], *each.tokens)
            for name, each in sets.items()
        }  # fmt: skip

    (own,) = what.deposits
    passes = tuple(StatedPass(each.id, wider(each.sets)) for each in own.passes)
    return Stated(wider(what.joint), (StatedDeposit(own.process, wider(own.sets), passes),))


def verdicts(pack, what, *records):
    judgement = judge(pack, what, [cover_box(pack, each, Demand()) for each in records])
    return judgement.verdict, {rung.id: rung.verdict for rung in judgement.rungs}


@given(packs(), coupons())
def test_a_coupon_covers_a_procedure_that_is_the_same_to_the_letter(pack, coupon):
    whole, each = verdicts(pack, stated(coupon), coupon)
    assert set(each.values()) <= {"inside"}
    assert whole == ("inside" if each else "unproven"), "no variable at all proves nothing"


@given(packs(), coupons(), coupons(), st.floats(0, 0.5), st.floats(0, 20),
       st.lists(st.sampled_from(sorted({word for each in TOKENS.values() for word in each}))))  # fmt: skip
def test_who_states_more_is_never_better_off(pack, record, other, down, up, words):
    narrow = stated(other)
    before, after = (verdicts(pack, what, record)[1] for what in (narrow, widened(narrow, down, up, words)))
    assert before.keys() == after.keys()
    worse = {own for own in before if ORDER.index(after[own]) > ORDER.index(before[own])}
    assert not worse


@given(packs(), coupons(), st.lists(coupons(), min_size=1, max_size=3))
def test_one_more_record_never_takes_cover_away(pack, other, records):
    what = stated(other)
    named = [Coupon(name=f"R{n}", joint=each.joint, deposits=each.deposits) for n, each in enumerate(records)]
    covered = [verdicts(pack, what, *named[:count])[0] == "inside" for count in range(1, len(named) + 1)]
    assert covered == sorted(covered)
