"""How the passes of an open procedure cool and harden, and the heat in which both hold."""

import pytest

from anlage.core.document import read_strict, with_at
from anlage.core.procedure import WPS
from anlage.data.files import FOLDER
from anlage.session.heat.cooling import cooling_view, hardest, joint_of
from anlage.session.heat.cooling_picture import band_sentence, cooling_limits, cooling_picture, pass_rows
from anlage.session.leaves.text import with_text
from anlage.session.weld.picture_sheet import Sheet

SHEET = Sheet(160.0, 90.0, "si", lambda text, height: 0.5 * height * len(text))


@pytest.fixture(scope="module")
def shell():
    """The longitudinal seam of the penstock: A516-70 by its certificate, 18 mm."""
    return read_strict((FOLDER / "demo" / "OST-W-01.json").read_text(), WPS, where="demo")


def test_each_pass_has_its_shortest_and_its_longest_time(shell):
    view = cooling_view(shell)
    assert len(view.passes) == len(shell.passes)
    for each in view.passes:
        assert each.t85_s.low < each.t85_s.high
        assert 200 < hardest(each) < 450
    hotter = cooling_view(with_at(shell, "preheat/minimum_c", 200.0))
    assert all(a.t85_s.low > b.t85_s.low for a, b in zip(hotter.passes, view.passes, strict=True))
    assert all(hardest(a) <= hardest(b) for a, b in zip(hotter.passes, view.passes, strict=True))


def test_the_verdict_names_the_hardest_pass(shell):
    verdict, sentence = cooling_view(shell).verdict
    assert verdict == "unproven"
    assert sentence.startswith("Pass 1 may leave 441 HV10 beside it, over 380")
    near = with_text(shell, "metals/one/certificate", "C 0.13 Mn 1 Si 0.2 Cr 0.02 Mo 0.01 V 0.003 Ni 0.1 Cu 0.1", "si")
    verdict, sentence = cooling_view(near).verdict
    assert (verdict, sentence.endswith("± 30: 380 is within its scatter.")) == ("unproven", True)


@pytest.fixture(scope="module")
def mild(shell):
    """A mild steel of which everything is analysed: no pass is hard."""
    certificate = "C 0.08 Mn 0.9 Si 0.2 Cr 0.02 Mo 0.01 V 0.003 Ni 0.1 Cu 0.1"
    wps = with_text(shell, "metals/one/certificate", certificate, "si")
    assert (cooling_view(wps).verdict[0], cooling_view(wps).doubts) == ("inside", ())
    return wps


@pytest.mark.parametrize(
    ("path", "text", "words"),
    [
        ("passes/{first}/current_a", "", "Nothing is known of pass 1"),
        ("metals/other/certificate", "Mn 1.1", "Nothing is known of A516-70"),
        (
            "metals/one/certificate",
            "C 0.10 Mn 0.9 Si 0.2",
            "only if the steel holds no Cr/Mo/V/Ni/Cu (not analysed)",
        ),
    ],
)
def test_what_a_careless_hand_leaves_out_is_not_inside(mild, path, text, words):
    verdict, sentence = cooling_view(with_text(mild, path.replace("{first}", mild.passes[0].id), text, "si")).verdict
    assert verdict == "unproven"
    assert words in sentence


def test_the_band_is_where_both_hold(shell):
    band = cooling_view(shell).band
    assert band.least < band.most
    assert band_sentence(cooling_view(shell), "si").endswith("keep 380 HV10 and t8/5 30 s.")
    slower = with_at(shell, "passes", tuple(each for each in shell.passes if each.role != "root"))
    assert cooling_view(slower).band == band  # the band is of steel, thickness and preheat alone
    warmer = cooling_view(with_at(shell, "preheat/minimum_c", 150.0)).band
    assert warmer.least < band.least


def test_the_band_of_the_chosen_pass_is_arc_energy_for_the_window(shell):
    first, last = shell.passes[0].id, shell.passes[-1].id
    band = cooling_view(shell).band
    limits = {limit.is_least: limit for limit in cooling_limits(shell, last, "si")}
    assert limits[True].arc_energy_kj_mm == pytest.approx(band.least / 0.8)  # SMAW
    assert limits[False].arc_energy_kj_mm == pytest.approx(band.most / 0.8)
    assert cooling_limits(shell, first, "si")[0].arc_energy_kj_mm == pytest.approx(band.least / 0.6)  # GTAW
    assert "for 380 HV10" in limits[True].label
    assert cooling_limits(shell, "", "si") == ()
    hard = with_text(shell, "metals/one/certificate", "C 0.30 Mn 1.6 Cr 0.5", "si")
    assert cooling_limits(hard, last, "si") == ()  # no heat keeps both
    assert "preheat decides" in band_sentence(cooling_view(hard), "si")


def test_sour_service_and_heat_treatment_have_their_own_limit(shell):
    assert cooling_view(with_at(shell, "header/sour_service", True)).limit_hv == 250  # noqa: FBT003
    assert cooling_view(with_at(shell, "pwht/kind", "below-ltt")).limit_hv == 320
    assert cooling_view(shell).limit_hv == 380


@pytest.mark.parametrize(
    ("path", "text", "words"),
    [("metals/one/name", "", "Name the base metal"), ("metals/one/name", "A240-316L", "does not harden"),
     ("joint/thickness_mm", "", "State the thickness"), ("metals/one/name", "B209-5083-O", "does not harden")],
)  # fmt: skip
def test_what_is_missing_is_said(shell, path, text, words):
    bare = with_text(shell, "metals/one/certificate", "", "si")
    view = cooling_view(with_text(bare, path, text, "si"))
    assert words in view.verdict[1]
    assert view.verdict[0] == ("" if "does not harden" in words else "unproven")
    assert cooling_picture(with_text(bare, path, text, "si"), SHEET) is None


def test_the_thicker_member_cools_faster_and_counts(shell):
    thin = cooling_view(with_at(shell, "joint/thickness_mm", 9.0))
    both = cooling_view(with_at(with_at(shell, "joint/thickness_mm", 9.0), "joint/other_thickness_mm", 18.0))
    assert [each.t85_s for each in both.passes] == [each.t85_s for each in cooling_view(shell).passes]
    assert hardest(both.passes[4]) > hardest(thin.passes[4])


def test_without_settings_no_time(shell):
    assert "State current" in cooling_view(with_at(shell, "passes", ())).verdict[1]


def test_a_fillet_takes_the_factors_of_its_joint(shell):
    assert joint_of(shell).id == "butt"
    assert joint_of(with_at(shell, "joint/kind", "fillet")).id == "tee"
    assert joint_of(with_at(shell, "joint/kind", None)).id == "butt"


def test_the_picture_and_the_rows(shell):
    assert cooling_picture(shell, SHEET).items
    assert pass_rows(cooling_view(shell), "si")[0] == ("1", "0.43 to 0.83", "2.4 to 8.9", "388 / 441")
    inches = pass_rows(cooling_view(shell), "us")[0][1].split(" to ")
    assert [float(each) / 25.4 for each in inches] == pytest.approx([0.43, 0.83], abs=0.01)
