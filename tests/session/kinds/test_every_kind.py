"""Whatever joint is stated in full, everything that is asked of it answers: figures, advice, metal, pictures."""

import pytest
from hypothesis import given, settings
from hypothesis import strategies as st

from anlage.core.document import Dimension
from anlage.core.errors import InputError
from anlage.core.joint import KINDS, dimensions_of, joint_metal
from anlage.core.procedure import Joint, Wps, sketch_of, with_deposit
from anlage.formats.font import measure
from anlage.session.output.pictures import picture_file
from anlage.session.output.tables import table_file
from anlage.session.proposal.fill import filled
from anlage.session.seam.stop_plan import stop_plan, stop_sentences
from anlage.session.takes.designs import compared
from anlage.session.takes.takes import takes_sections
from anlage.session.weld.advice import advice
from anlage.session.weld.beads import bead_layout
from anlage.session.weld.figures import joint_figures
from anlage.session.weld.fill_notices import fill_notices
from tests.strategies import preparations


@st.composite
def joints(draw, kind):
    """A joint of a kind stated in full, tolerances on its angle and opening."""
    p = draw(preparations(kind))
    stated = {"kind": kind, "thickness_mm": p.thickness_mm, "od_mm": p.od_mm, "run_od_mm": p.run_od_mm}
    if p.od_mm is not None:
        stated["product"] = "pipe"
    for name in dimensions_of(kind):
        if (value := getattr(p, name)) is not None:
            plus = 1.0 if name in ("root_opening_mm", "groove_angle_deg") else 0.0
            stated[name] = Dimension.stated(nominal=value, plus=plus)
    return Joint(**stated)


@pytest.mark.parametrize("kind", KINDS)
def test_every_kind_is_answered_in_full(kind):
    @settings(deadline=None, max_examples=2)
    @given(joints(kind), st.sampled_from(("si", "us")))
    def check(joint, system):
        sketch = sketch_of(joint)
        assert not sketch.incomplete
        wps, _ = with_deposit(Wps(joint=joint), process="SMAW", filler="E7018", filler_diameter_mm=[3.2, 3.2])
        assert all(figure.text for figure in joint_figures(wps, system))
        assert all(each.text for each in advice(wps, system))
        if joint_metal(sketch.preparation).whole_area_mm2 < 1:
            return
        try:
            wps = filled(wps)
        except InputError as fault:  # told, and nothing is laid
            assert "it takes more than 400 beads" in str(fault)  # noqa: PT017
            return
        assert len(bead_layout(wps).beads) == len(wps.passes) == len(stop_plan(wps))
        assert fill_notices(wps, system)[0].text.startswith("The passes lay")
        names = [each.title for each in takes_sections(wps, {"labour_per_h": 60.0}, system)]
        assert names[0] == "Metal"
        assert "Shrinkage" in names
        assert compared(wps, {}, system)[0].name == "As stated, your passes"
        assert stop_sentences(wps, wps.passes[0].id, system)
        for name in ("section", "beads", "symbol", "stops", "designs"):
            assert picture_file(wps, name, ".svg", system, measure).startswith(b"<svg")
        assert table_file(wps, ".csv", system, {})

    check()


def test_the_metal_of_a_plug_is_told_by_the_piece():
    joint = Joint(kind="plug", thickness_mm=10.0, hole_mm=Dimension.stated(nominal=20.0))
    names = [figure.name for figure in joint_figures(Wps(joint=joint), "si")]
    assert "Weld metal per metre" not in names
    assert "Weld metal, one piece" in names
