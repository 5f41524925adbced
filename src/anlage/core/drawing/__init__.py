"""Pictures as values: display lists of the section, the bead map and the operating window, for every renderer."""

from anlage.core.drawing.bead_map import Amiss, Marked, bead_map, hatch, outlined_map
from anlage.core.drawing.cap_limit import CapLimit, cap_lines
from anlage.core.drawing.clock import Around, Ring, RingRow, Seam, TackMark, clock, strip
from anlage.core.drawing.curves import Curve, Frame, captions_mm, curves
from anlage.core.drawing.dial_curves import DialCurve, DialPlane, DialPoint, dial_curves
from anlage.core.drawing.display import (
    DisplayList,
    Item,
    Marker,
    Measure,
    Path,
    Point,
    Text,
    arrow_head,
    bounds,
    fitted,
)
from anlage.core.drawing.operating_window import Axes, HeatLimit, PassBox, Plane, operating_window
from anlage.core.drawing.page import PAPERS, Column, Flow, on_page
from anlage.core.drawing.qualified_map import Area, Spot, Ticks, coupon_map, qualified_map, thickness_at
from anlage.core.drawing.rung import rung
from anlage.core.drawing.section import Show, grip, profile, section
from anlage.core.drawing.token_rung import Token, token_rung, tokens_of_rung
from anlage.core.drawing.tube_node import Drawn, cope_patterns, tube_node
from anlage.core.drawing.weld_symbol import SymbolTexts, enlarged, weld_symbol

__all__ = [
    "PAPERS",
    "Amiss",
    "Area",
    "Around",
    "Axes",
    "CapLimit",
    "Column",
    "Curve",
    "DialCurve",
    "DialPlane",
    "DialPoint",
    "DisplayList",
    "Drawn",
    "Flow",
    "Frame",
    "HeatLimit",
    "Item",
    "Marked",
    "Marker",
    "Measure",
    "PassBox",
    "Path",
    "Plane",
    "Point",
    "Ring",
    "RingRow",
    "Seam",
    "Show",
    "Spot",
    "SymbolTexts",
    "TackMark",
    "Text",
    "Ticks",
    "Token",
    "arrow_head",
    "bead_map",
    "bounds",
    "cap_lines",
    "captions_mm",
    "clock",
    "cope_patterns",
    "coupon_map",
    "curves",
    "dial_curves",
    "enlarged",
    "fitted",
    "grip",
    "hatch",
    "on_page",
    "operating_window",
    "outlined_map",
    "profile",
    "qualified_map",
    "rung",
    "section",
    "strip",
    "thickness_at",
    "token_rung",
    "tokens_of_rung",
    "tube_node",
    "weld_symbol",
]
