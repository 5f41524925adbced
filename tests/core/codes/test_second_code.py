"""A second code, written as TOML alone: rules asked of the procedure, a joint without a record, an open demand.

Invented for these tests; no rule of it is anybody's.
"""

import pytest
from hypothesis import given
from hypothesis import strategies as st
from msgspec.structs import replace

from anlage.core.codes import Coupon, Demand, Stated, StatedDeposit, StatedPass, cover_box, judge, read_pack
from anlage.core.errors import FormatError
from anlage.core.ranges import ANY, Interval, between, choices, numbers
from anlage.data.code_packs import pack_names

CODE = """
[pack]
code = "frame-code"
name = "Frame code"
title = "Invented rules of a steel frame"
editions = ["1", "2"]
processes = ["SMAW", "GMAW"]
source = "invented for a test"

[[category]]
id = "binding"
word = "binding"

[[demand]]
id = "impact"
word = "impact tests"
choices = ["yes", "no"]
default = "no"

[[rule]]
id = "preheat"
variable = "preheat_c"
clause = "3.1"
title = "Least preheat by thickness"
category = "binding"
scope = "joint"
kind = "table"
confidence = "H"
route = "always"
on = "base_metal_thickness_mm"
rows = [{ to = 20, low = { is = 0 } }, { above = 20, to = 40, low = { is = 65 } }, { above = 40, low = { is = 110 } }]

[[rule]]
id = "amps"
variable = "amps"
clause = "4.2"
title = "Current of a coupon, a tenth up and down"
category = "binding"
scope = "pass"
kind = "band"
confidence = "H"
low = { times = 0.9 }
high = { times = 1.1 }

[[rule]]
id = "size"
variable = "filler_diameter_mm"
clause = "5.3"
title = "Largest electrode of a joint without a record"
category = "binding"
scope = "deposit"
kind = "table"
confidence = "H"
route = "prequalified"
on = "base_metal_thickness_mm"
rows = [{ to = 10, high = { is = 3.2 } }, { above = 10, high = { is = 5 } }]
when = { process = ["SMAW"] }

[[detail]]
id = "V-1"
clause = "Figure 7"
title = "single V from both sides"
confidence = "H"
when = { impact = ["no"] }
[detail.allows]
process = ["SMAW"]
joint_type = ["single-v"]
base_metal_thickness_mm = { to = 60 }
root_opening_mm = { from = 0, to = 3 }
position = ["1G", "2G"]
"""


def pack(text=CODE):
    return read_pack({"pack.toml": text}, names=pack_names())


def stated(thickness=(8, 16), preheat=20, impact="no", **changed):
    joint = {
        "base_metal_thickness_mm": between(*thickness), "preheat_c": between(preheat, None),
        "joint_type": choices("single-v"), "root_opening_mm": between(2, 2), "position": choices("1G"),
    }  # fmt: skip
    own = {"filler_diameter_mm": numbers([Interval.single(3.2)])}
    for name, value in changed.items():
        (own if name in own else joint)[name] = value
    each = StatedPass("p1", {"amps": between(100, 120)})
    demand = Demand(impact=impact, unsaid=["impact"] if impact is None else [])
    kept = {name: value for name, value in joint.items() if value is not None}
    return Stated(kept, (StatedDeposit("SMAW", own, (each,)),), demand=demand)


def record(**facts):
    return Coupon(name="R-1", joint={"base_metal_thickness_mm": 12.0}, deposits=({"process": "SMAW", **facts},))


def judged(what, *records, code=None):
    made = code or pack()
    return judge(made, what, [cover_box(made, each, what.demand) for each in records])


def rungs(judgement):
    return {rung.variable: rung.verdict for rung in judgement.rungs}


def test_without_a_record_a_deposit_rests_on_the_joint_that_the_code_lets_be_welded():
    judgement = judged(stated())
    assert (judgement.verdict, judgement.supports) == ("inside", (("V-1",),))
    assert rungs(judgement).keys() == {"process", "joint_type", "base_metal_thickness_mm", "root_opening_mm",
                                       "position", "filler_diameter_mm", "preheat_c"}  # fmt: skip


def test_a_record_goes_before_a_joint_without_one():
    judgement = judged(stated(), record(amps=110.0))
    assert judgement.supports == (("R-1",),)
    assert rungs(judgement) == {"preheat_c": "inside", "amps": "inside"}


def test_where_neither_covers_it_the_nearer_is_told_with_what_fails():
    judgement = judged(stated(position=choices("4G")), record(amps=50.0))
    assert judgement.verdict == "outside"
    assert rungs(judgement)["amps"] == "outside", "both fail by one: the record goes first"
    alone = judged(stated(position=choices("4G")))
    assert {name for name, verdict in rungs(alone).items() if verdict != "inside"} == {"position"}
    assert alone.supports == ((),)


@pytest.mark.parametrize(
    ("thickness", "preheat", "verdict"),
    [((8, 16), 0, "inside"), ((8, 20), 0, "inside"), ((8, 20.1), 0, "outside"), ((8, 40), 65, "inside"),
     ((8, 40.5), 65, "outside"), ((8, 40.5), 110, "inside"), ((30, 35), 64, "outside")],
)  # fmt: skip
def test_a_rule_asked_of_the_procedure_holds_for_all_that_it_states(thickness, preheat, verdict):
    assert rungs(judged(stated(thickness, preheat)))["preheat_c"] == verdict


def test_what_the_procedure_does_not_state_leaves_the_rule_open():
    judgement = judged(stated(base_metal_thickness_mm=None))
    (rung,) = [rung for rung in judgement.rungs if rung.variable == "preheat_c"]
    assert rung.verdict == "unproven"
    assert "hangs on base metal thickness, which is not stated" in rung.reason


def test_a_rule_asked_of_the_procedure_binds_what_rests_on_a_record_too():
    judgement = judged(stated((8, 24)), record(amps=110.0))
    (rung,) = [rung for rung in judgement.rungs if rung.verdict != "inside"]
    assert (rung.variable, rung.clause, rung.records) == ("preheat_c", "3.1", ())
    assert judgement.supports == (("R-1",),), "the record carries the deposit, the code asks more"


@pytest.mark.parametrize(("impact", "verdict"), [("no", "inside"), ("yes", "outside"), (None, "unproven")])
def test_a_demand_that_is_made_or_open_takes_the_joint_away(impact, verdict):
    what = stated(impact=impact)
    judgement = judged(what)
    if verdict == "inside":
        assert judgement.verdict == "inside"
    else:
        assert judgement.verdict in ("unproven", "outside")
        assert judgement.supports == ((),)


def test_the_rules_of_the_route_bind_the_joint_alone():
    thick = stated((8, 16), filler_diameter_mm=numbers([Interval.single(4.0)]))
    assert rungs(judged(thick))["filler_diameter_mm"] == "outside", "at 8 mm the largest is 3.2"
    assert "filler_diameter_mm" not in rungs(judged(thick, record(amps=110.0)))
    assert rungs(judged(stated((11, 16), filler_diameter_mm=between(4, 5))))["filler_diameter_mm"] == "inside"


DOUBTED = CODE.replace('[[rule]]\nid = "amps"', '[[rule]]\ndoubt = true\nnote = "read in two ways"\nid = "amps"')
ONLY = (
    CODE
    + """
[[rule]]
id = "position"
variable = "position"
clause = "6"
title = "Positions"
category = "binding"
scope = "joint"
kind = "only"
confidence = "H"
route = "always"
tokens = ["1G", "2G"]
also = ["3G"]
note = "3G by one reading"
"""
)


def test_what_is_doubted_is_possible_alone():
    judgement = judged(stated(), record(amps=110.0), code=pack(DOUBTED.replace("[[detail]]", "[[detail]] #", 1)))
    assert judgement.supports == (("V-1",),), "a joint that covers goes before a record that proves nothing"
    bare = DOUBTED[: DOUBTED.index("[[detail]]")]
    judgement = judged(stated(), record(amps=110.0), code=pack(bare))
    (rung,) = [rung for rung in judgement.rungs if rung.verdict != "inside"]
    assert (rung.variable, rung.verdict, rung.reason) == ("amps", "unproven", "read in two ways")
    assert rungs(judged(stated(), record(amps=50.0), code=pack(bare)))["amps"] == "outside"


@pytest.mark.parametrize(
    ("position", "verdict"), [(("1G",), "inside"), (("1G", "3G"), "unproven"), (("4G",), "outside")]
)
def test_a_constant_set_has_a_second_reading_of_words(position, verdict):
    judgement = judged(stated(position=choices(*position)), record(amps=110.0), code=pack(ONLY))
    assert rungs(judgement)["position"] == verdict


def test_a_rule_of_one_edition_holds_in_that_alone():
    made = pack(CODE.replace('id = "amps"\n', 'id = "amps"\neditions = ["2"]\n'))
    assert "amps" in made.of_edition("2").variables
    assert "amps" not in made.of_edition("1").variables
    assert made.of_edition("1") is made.of_edition("1")
    assert pack().of_edition("1").edition == ""


@pytest.mark.parametrize(
    ("old", "new", "reason"),
    [
        ('route = "always"\n', 'route = "always"\nbasis = "record"\n', "a rule by route always has no record"),
        ('route = "always"\n', 'route = "sometimes"\n', "route: Invalid enum value 'sometimes'"),
        ('editions = ["1", "2"]', 'editions = ["1"]', None),
        ('id = "amps"\n', 'id = "amps"\neditions = ["3"]\n', "the pack has no edition 3"),
        ('id = "amps"\n', 'id = "amps"\ndoubt = true\n', "the rule has no note"),
        ('id = "amps"\n', 'id = "amps"\nalso = ["x"]\n', "also is ['x']"),
        ('position = ["1G", "2G"]', 'position = ["1G", "2H"]', "2H is no position"),
        ("root_opening_mm = { from = 0, to = 3 }", 'root_opening_mm = ["3"]', "root_opening_mm is ['3']"),
        ("root_opening_mm = { from = 0, to = 3 }", "root_opening_mm = { from = 0, upto = 3 }",
         "root_opening_mm has no key upto"),
        ("root_opening_mm = { from = 0, to = 3 }", "root_opening = { from = 0 }", "no variable root_opening"),
        ('clause = "Figure 7"\n', "", "[[detail]]: Object missing required field `clause`"),
        ('kind = "band"\nconfidence = "H"\nlow = { times = 0.9 }\nhigh = { times = 1.1 }',
         'kind = "only"\nconfidence = "H"\ntokens = ["1G"]', "amps is a number, and tokens are words"),
        ("low = { times = 0.9 }", "low = { times = 0.9, plus = { si = 1 } }", "{'si': 1} is no limit"),
    ],
)  # fmt: skip
def test_a_pack_that_misuses_the_language_is_refused_with_file_line_and_reason(old, new, reason):
    assert old in CODE
    text = CODE.replace(old, new, 1)
    if reason is None:
        assert pack(text)
        return
    with pytest.raises(FormatError, match=r"pack\.toml line \d+") as told:
        pack(text)
    assert reason in str(told.value)


# Whatever the rule ---------------------------------------------------------------------------

ROWS = st.lists(st.tuples(st.floats(1, 60), st.floats(0, 200)), min_size=1, max_size=4, unique_by=lambda row: row[0])
SPAN = st.tuples(st.floats(0.5, 80), st.floats(0, 40))


def made_of(rows):
    """The code with another table of preheat: ends of thickness, with what each row asks."""
    rows = sorted(rows)
    written, before = [], None
    for end, least in rows:
        start = f"above = {before:.6f}, " if before is not None else ""
        written.append(f"{{ {start}to = {end:.6f}, low = {{ is = {least:.3f} }} }}")
        before = end
    written.append(f"{{ above = {before:.6f}, low = {{ is = 20 }} }}")
    i, j = CODE.index("rows = ["), CODE.index('\n\n[[rule]]\nid = "amps"')
    return pack(CODE[:i] + f"rows = [{', '.join(written)}]" + CODE[j:])


@given(ROWS, SPAN, SPAN, st.floats(0, 220))
def test_a_wider_statement_is_never_better_off(rows, span, more, preheat):
    code = made_of(rows)
    low, high = span[0], span[0] + span[1]
    wide = stated((max(low - more[1], 0.1), high + more[0]), preheat)
    order = ("inside", "unproven", "outside")
    narrow = rungs(judged(stated((low, high), preheat), code=code))["preheat_c"]
    assert order.index(rungs(judged(wide, code=code))["preheat_c"]) >= order.index(narrow)


@given(ROWS, SPAN, st.floats(0, 220))
def test_what_holds_for_a_range_holds_at_every_place_of_it(rows, span, preheat):
    code = made_of(rows)
    low, high = span[0], span[0] + span[1]
    whole = rungs(judged(stated((low, high), preheat), code=code))["preheat_c"]
    each = [rungs(judged(stated((at, at), preheat), code=code))["preheat_c"]
            for at in [low, high, *(low + (high - low) * n / 7 for n in range(1, 7))]]  # fmt: skip
    assert whole != "inside" or set(each) == {"inside"}
    assert "outside" not in each or whole == "outside"


@given(st.lists(st.floats(40, 200), min_size=1, max_size=5), st.floats(60, 180))
def test_one_more_record_never_takes_cover_away(amps, mean):
    code = pack(CODE[: CODE.index("[[detail]]")])
    what = replace(stated(), deposits=(replace(
        stated().deposits[0], passes=(StatedPass("p1", {"amps": between(mean * 0.97, mean * 1.03)}),)
    ),))  # fmt: skip
    records = [replace(record(amps=each), name=f"R-{n}") for n, each in enumerate(amps)]
    covered = [bool(judged(what, *records[:n], code=code).supports[0]) for n in range(len(records) + 1)]
    assert covered == sorted(covered)


def test_anything_is_not_stated_to_a_rule_that_asks_for_it():
    judgement = judged(stated(base_metal_thickness_mm=ANY))
    assert rungs(judgement)["preheat_c"] == "unproven"
