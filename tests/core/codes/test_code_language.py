"""What the language of packs says beside rules: stages, doubt by row, combinations, specimens, limits of each pass.

Invented for these tests; no rule of it is anybody's.
"""

from collections import Counter

import pytest

from anlage.core.codes import (
    Coupon,
    Demand,
    Stated,
    StatedDeposit,
    StatedPass,
    cover_box,
    judge,
    read_pack,
    with_checks,
)
from anlage.core.codes.facts import Facts
from anlage.core.codes.specimens import lacking
from anlage.core.errors import FormatError
from anlage.core.ranges import ANY, NONE, Interval, between, choices, numbers
from anlage.core.rulebook import Check
from anlage.data.code_packs import pack_names

HEAD = """
[pack]
code = "frame-code"
name = "Frame code"
title = "Invented rules of a steel frame"
editions = ["1"]
processes = ["SMAW", "GTAW"]
source = "invented for a test"
{more}
[[category]]
id = "binding"
word = "binding"
"""
COMMON = """
clause = "1.2"
title = "toy"
category = "binding"
confidence = "H"
"""


def pack(rules, more=""):
    return read_pack({"pack.toml": HEAD.format(more=more) + rules}, names=pack_names())


def rule(text, own="r", scope="deposit"):
    return f'[[rule]]\nid = "{own}"\nscope = "{scope}"\n{COMMON}{text}\n'


def row_doubt(text):
    return rule(f'variable = "base_metal_thickness_mm"\nkind = "table"\n{text}', scope="joint")


def box(code, **facts):
    joint = {name: value for name, value in facts.items() if name != "name"}
    return cover_box(code, Coupon(name="R", joint=joint, deposits=({"process": "SMAW"},)), Demand())


# Doubt by row and by word --------------------------------------------------------------------

TABLE = row_doubt(
    'rows = [{ to = 10, high = { times = 2 } },\n { above = 10, high = { times = 1.5 }, confidence = "L" }]'
)
MAP = rule(
    'variable = "position"\nkind = "map"\notherwise = "unknown"\nmap.1G = ["1G"]\n'
    'map.2G = { tokens = ["1G", "2G"], confidence = "L" }\nmap.3G = { tokens = ["3G"], confidence = "M" }',
    scope="joint",
)


def test_a_row_of_its_own_doubt_is_withheld_and_the_others_count():
    code = pack(TABLE)
    found = box(code, base_metal_thickness_mm=8.0).deposits[0]["base_metal_thickness_mm"]
    assert (found.sure, found.confidence) == (between(None, 16), "H")
    found = box(code, base_metal_thickness_mm=12.0).deposits[0]["base_metal_thickness_mm"]
    assert (found.sure, found.possible, found.confidence) == (NONE, ANY, "L")
    assert "hazy" in found.reason


def test_a_word_of_its_own_doubt_is_withheld_until_somebody_checked_the_rule():
    code = pack(MAP)
    assert box(code, position="2G").deposits[0]["position"].sure == NONE
    assert box(code, position="3G").deposits[0]["position"].confidence == "M"
    check = Check(rule="r", edition="1", by="A", on="2026-03-02T08:00:00Z", copy="3", said=code.rules[0].said)
    assert box(with_checks(code, (check,), "1"), position="2G").deposits[0]["position"].sure == choices("1G", "2G")


def test_a_row_that_is_sure_counts_within_a_rule_that_is_not():
    hazy = TABLE.replace('confidence = "H"', 'confidence = "L"', 1).replace(
        "times = 2 } }", 'times = 2 }, confidence = "M" }'
    )
    found = box(pack(hazy), base_metal_thickness_mm=8.0).deposits[0]["base_metal_thickness_mm"]
    assert (found.sure, found.confidence) == (between(None, 16), "M")


# Stages --------------------------------------------------------------------------------------

GAP = rule(
    'variable = "root_opening_mm"\nkind = "band"\nhigh = { is = 3 }\nroute = "always"\nstage = "fit-up"', scope="joint"
)


def test_what_is_measured_on_the_piece_is_no_rule_of_the_procedure():
    code = pack(GAP)
    assert code.rules == ()
    assert [(each.id, each.stage) for each in code.staged] == [("r", "fit-up")]
    stated = Stated({"root_opening_mm": between(5, 5)}, (StatedDeposit("SMAW", {}),))
    assert all(rung.variable != "root_opening_mm" for rung in judge(code, stated, []).rungs)


# Combinations --------------------------------------------------------------------------------

THICK = rule(
    'variable = "base_metal_thickness_mm"\nkind = "band"\nlow = { times = 0.8 }\nhigh = { times = 1.25 }', "t", "joint"
)
PLACE = rule('variable = "position"\nkind = "same"', "p", "joint")


def union(*variables):
    named = ", ".join(f'"{each}"' for each in variables)
    head = f'id = "{"-".join(variables)}"\ntitle = "t"\nclause = "9"\nconfidence = "H"'
    return f'[[combination]]\nkind = "union"\nvariables = [{named}]\n{head}\n'


def covered(code, stated, *coupons):
    boxes = [cover_box(code, each, Demand()) for each in coupons]
    return judge(code, Stated(stated, (StatedDeposit("SMAW", {}),)), boxes).verdict


def coupon(name, **joint):
    return Coupon(name=name, joint=joint, deposits=({"process": "SMAW"},))


def test_records_combine_over_each_union_that_the_code_names_and_over_no_mixture_of_them():
    plates = (
        coupon("A", base_metal_thickness_mm=10.0, position="1G"),
        coupon("B", base_metal_thickness_mm=15.0, position="1G"),
    )
    turned = coupon("C", base_metal_thickness_mm=10.0, position="2G")
    wide, both = {"base_metal_thickness_mm": between(9, 18), "position": choices("1G")}, choices("1G", "2G")
    either = pack(THICK + PLACE + union("base_metal_thickness_mm") + union("position"))
    assert covered(either, wide, *plates) == "inside"
    assert covered(either, {"base_metal_thickness_mm": between(9, 12), "position": both}, plates[0], turned) == "inside"
    assert covered(either, {**wide, "position": both}, *plates, turned) == "outside"
    assert covered(pack(THICK + PLACE + union("position")), wide, *plates) == "outside"


# Specimens -----------------------------------------------------------------------------------

SPECIMENS = """
[[specimens]]
id = "plain"
clause = "4.1"
confidence = "H"
when = { coupon_weld = ["groove"] }
any = [{ tension = 2, "side bend" = 4 }, { tension = 2, "face bend" = 2, "root bend" = 2 }]

[[specimens]]
id = "thick"
clause = "4.2"
confidence = "H"
when = { base_metal_thickness_mm = { above = 50 } }
add = { tension = 2 }

[[specimens]]
id = "fillet"
clause = "4.3"
confidence = "H"
when = { joint_type = ["fillet"] }
any = [{ macro = 3 }]
instead = ["plain"]
"""


@pytest.mark.parametrize(
    ("facts", "passed", "told"),
    [
        ({}, {"tension": 2, "side bend": 4}, ()),
        ({"base_metal_thickness_mm": 60.0}, {"tension": 2, "side bend": 4}, ("2 tensions of 4.1",)),
        ({"base_metal_thickness_mm": 60.0}, {"tension": 4, "face bend": 2, "root bend": 2}, ()),
        ({"joint_type": "fillet"}, {"macro": 3}, ()),
        ({"joint_type": "fillet"}, {"tension": 2, "side bend": 4}, ("3 macros of 4.3",)),
        ({"joint_type": "fillet", "base_metal_thickness_mm": 60.0}, {"macro": 3}, ("2 tensions of 4.3",)),
    ],
)
def test_a_list_of_specimens_is_added_to_others_or_stands_instead(facts, passed, told):
    known = {"coupon_weld": "groove", "joint_type": "single-v", "base_metal_thickness_mm": 20.0, **facts}
    found = lacking(pack(SPECIMENS).specimens, Facts(known, {}), "si", Counter(passed))
    assert tuple(each.removesuffix(" not recorded as passed") for each in found) == told


def test_what_only_adds_to_nothing_says_that_no_list_holds():
    facts = {"coupon_weld": "fillet", "joint_type": "single-v", "base_metal_thickness_mm": 60.0}
    found = lacking(pack(SPECIMENS).specimens, Facts(facts, {}), "si", Counter())
    assert found == ("the code pack does not say which specimens such a coupon needs",)


# Limits of each side -------------------------------------------------------------------------

SIDES = rule(
    'variable = "preheat_c"\nkind = "table"\nroute = "always"\non = "base_metal_thickness_mm"\n'
    "rows = [{ to = 20, low = { is = 10 } }, { above = 20, low = { is = 65 } }]",
    scope="member",
)


@pytest.mark.parametrize(
    ("sides", "verdict"),
    [
        ((10, 20), "inside"),
        ((10, 25), "outside"),  # the thicker side asks for more, whatever the joint as a whole is said to be
        ((10, None), "unproven"),
    ],
)
def test_what_a_code_asks_of_each_side_holds_for_the_one_that_asks_most(sides, verdict):
    members = tuple({"base_metal_thickness_mm": between(each, each)} if each else {} for each in sides)
    joint = {"preheat_c": between(50, 90)}
    stated = Stated(joint, (StatedDeposit("SMAW", {}),), members=members)
    (rung,) = [each for each in judge(pack(SIDES), stated, []).rungs if each.variable == "preheat_c"]
    assert rung.verdict == verdict


# Limits of each pass -------------------------------------------------------------------------


def most(amps, condition, own):
    limit = f'high = {{ is = {amps} }}\n{condition} = {{ pass_role = ["root"] }}'
    return rule(f'variable = "amps"\nkind = "band"\nroute = "always"\n{limit}', own, "pass")


AMPS = most(120, "when", "root") + most(200, "unless", "fill")


def laid(*passes, code=None):
    own = tuple(
        StatedPass(f"p{n}", {"amps": between(*amps), **({"pass_role": choices(role)} if role else {})})
        for n, (role, amps) in enumerate(passes, 1)
    )
    stated = Stated({}, (StatedDeposit("SMAW", {}, own),))
    (rung,) = [each for each in judge(code or pack(AMPS), stated, []).rungs if each.variable == "amps"]
    return rung


def test_each_pass_has_the_limits_of_its_own_role():
    assert laid(("root", (90, 110)), ("fill", (150, 190))).verdict == "inside"
    rung = laid(("root", (90, 130)), ("fill", (150, 190)))
    assert (rung.verdict, rung.worst_pass, rung.stated) == ("outside", "p1", between(90, 130))
    rung = laid(("root", (90, 110)), ("cap", (150, 210)))
    assert (rung.verdict, rung.worst_pass) == ("outside", "p2")


def test_a_pass_whose_role_nobody_says_is_open_where_the_roles_differ():
    assert laid(("", (90, 110))).verdict == "inside", "it is inside whichever it is"
    assert laid(("", (150, 190))).verdict == "unproven"


def test_a_joint_without_a_record_is_asked_pass_by_pass_too():
    detail = (
        '[[detail]]\nid = "V"\nclause = "7"\ntitle = "a V"\nconfidence = "H"\n[detail.allows]\nprocess = ["SMAW"]\n'
    )
    code = pack(AMPS.replace('"always"', '"prequalified"') + detail)
    assert laid(("root", (90, 110)), ("fill", (150, 190)), code=code).verdict == "inside"
    assert laid(("root", (90, 130)), ("fill", (150, 190)), code=code).worst_pass in {"p1"}


# What splits a deposit -----------------------------------------------------------------------

SIZES = rule('variable = "filler_diameter_mm"\nkind = "same"')


@pytest.mark.parametrize(
    ("size", "verdict"), [((3.2, 3.2), "inside"), ((2.4, 3.2), "unproven")]
)  # fmt: skip
def test_what_is_laid_with_another_size_is_another_deposit_where_the_code_says_so(size, verdict):
    code = pack(SIZES, 'deposit_by = ["filler_diameter_mm"]')
    own = {"filler_diameter_mm": numbers([Interval.single(each) for each in dict.fromkeys(size)])}
    record = Coupon(name="R", joint={}, deposits=({"process": "SMAW", "filler_diameter_mm": 3.2},))
    stated = Stated({}, (StatedDeposit("SMAW", own),))
    (rung,) = judge(code, stated, [cover_box(code, record, Demand())]).rungs
    assert rung.verdict == verdict
    if verdict != "inside":
        assert "what is laid with another filler diameter is another deposit" in rung.reason


# Joints as they are fitted up ----------------------------------------------------------------

TOLERANCE = """
[tolerance.T.root_opening_mm]
drawn = { more = { si = 2, us = 0.0625 } }
fitted = { less = { si = 2, us = 0.0625 }, more = { si = 6, us = 0.25 } }
"""
DETAIL = """
[[detail]]
id = "V"
clause = "7"
title = "a V"
confidence = "H"
tolerance = "T"
[detail.allows]
process = ["SMAW"]
[detail.drawn]
root_opening_mm = { si = 6, us = 0.25 }
"""


def drawn(nominal, low, high, text=DETAIL + TOLERANCE, units="si"):
    """The verdicts on a root opening: as it is drawn, and as it is fitted up."""
    sets = {"drawn_root_opening_mm": between(nominal, nominal), "root_opening_mm": between(low, high)}
    stated = Stated(sets, (StatedDeposit("SMAW", {}),), demand=Demand(units=units))
    rungs = {each.variable: each.verdict for each in judge(pack(text), stated, []).rungs}
    return rungs["drawn_root_opening_mm"], rungs.get("root_opening_mm")


def test_a_joint_may_be_drawn_off_its_figure_and_fitted_up_off_its_drawing():
    assert drawn(6, 6, 8) == ("inside", "inside")
    assert drawn(8, 6, 14) == ("inside", "inside")
    assert drawn(9, 9, 9) == ("outside", "inside")
    assert drawn(8, 5.9, 14) == drawn(8, 6, 14.1) == ("inside", "outside")
    free = TOLERANCE[: TOLERANCE.index("fitted")] + "free = true"
    assert drawn(6, 0, 20, DETAIL + free) == ("inside", None), "what is gouged away is fitted up as it comes"


def test_a_joint_is_held_against_the_figure_in_one_column():
    assert drawn(6.35, 6.35, 6.35, units="us") == ("inside", "inside")
    assert drawn(6.0, 6.0, 6.0, units="us") == ("outside", "inside")
    assert drawn(8.0, 8.0, 8.0, units="us") == ("outside", "inside"), "1/4 in and 1/16 in are 7.94 mm"


def test_a_joint_of_low_confidence_is_open_until_somebody_checked_it():
    code = pack(DETAIL.replace('confidence = "H"', 'confidence = "L"') + TOLERANCE)
    sets = {"drawn_root_opening_mm": between(6, 6), "root_opening_mm": between(6, 6)}
    stated = Stated(sets, (StatedDeposit("SMAW", {}),))
    assert judge(code, stated, []).verdict == "unproven"
    assert judge(pack(DETAIL + TOLERANCE), stated, []).verdict == "inside"


@pytest.mark.parametrize(
    ("text", "reason"),
    [
        (GAP.replace("fit-up", "later"), "stage: Invalid enum value 'later'"),
        (GAP.replace('route = "always"\n', ""), "a rule of stage fit-up rests on no record"),
        (TABLE.replace('"L"', '"X"'), "confidence is X"),
        (MAP.replace("tokens =", "token ="), "2G has no key token"),
        (SPECIMENS.replace("add = { tension = 2 }", ""), "thick states neither any nor add, or both"),
        (SPECIMENS.replace("add = {", "any = [{ macro = 1 }]\nadd = {"), "thick states neither any nor add, or both"),
        (SPECIMENS.replace('instead = ["plain"]', 'instead = ["plane"]'), "fillet stands instead of plane"),
        (DETAIL, "no tolerance T; state it in [tolerance]"),
        (DETAIL.replace('"T"', '"R"') + TOLERANCE, "no tolerance R"),
        (DETAIL + TOLERANCE.replace("more = { si = 2,", "more = { s = 2,"), "is no limit"),
        (DETAIL.replace("root_opening_mm", "peening") + TOLERANCE, "no variable drawn_peening"),
    ],
)
def test_a_pack_that_misuses_the_language_is_refused(text, reason):
    with pytest.raises(FormatError) as told:
        pack(text)
    assert reason in str(told.value)


@pytest.mark.parametrize(
    ("more", "reason"),
    [
        ('basis = "heat"', "basis: Invalid enum value 'heat'"),
        ('deposit_by = ["filler_size"]', "[pack] deposit_by names filler_size, which is not there"),
    ],
)
def test_a_head_that_misuses_the_language_is_refused(more, reason):
    with pytest.raises(FormatError) as told:
        pack(SIZES, more)
    assert reason in str(told.value)
