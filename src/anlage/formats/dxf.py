"""Pictures as DXF: real millimetres of the work, a layer for each kind of line, for any CAD program."""

import io
from typing import Final

import ezdxf
from ezdxf.document import Drawing
from ezdxf.enums import TextEntityAlignment
from ezdxf.layouts.layout import Modelspace

from anlage.core.drawing import DisplayList, Marker, Path, Text, arrow_head

# Layer and colour index of each role; what is not named here goes to "OTHER".
LAYERS: Final = {
    "edge": ("MEMBERS", 7), "metal": ("MEMBERS", 7), "break": ("BREAKS", 8), "backing": ("BACKING", 7),
    "groove": ("GROOVE", 8), "cap": ("CAP", 8), "face": ("CAP", 8), "ghost": ("TOLERANCE", 9), "layer": ("BEADS", 5),
    "outline": ("BEADS", 5), "sketched": ("BEADS", 5), "chosen": ("BEADS", 5), "hatch": ("HATCH", 9),
    "hatch_on_pale": ("HATCH", 9), "hatch_on_hot": ("HATCH", 9),
    "dimension": ("DIMENSIONS", 3), "extension": ("DIMENSIONS", 3), "value": ("TEXT", 7), "unstated": ("TEXT", 7),
    "weld_line": ("WELDS", 1), "gap": ("EMPTY", 1),
    "limit": ("LIMITS", 1), "limit_bar": ("LIMITS", 1), "limit_other": ("LIMITS", 1),
    "clock_run": ("BEADS", 5), "clock_stop": ("STOPS", 1), "clock_tack": ("TACKS", 6), "clock_bridge": ("TACKS", 6),
    "clock_barred": ("BARRED", 1), "axis": ("AXES", 8), "grid": ("AXES", 9), "possible": ("AXES", 9),
    "curve": ("CURVES", 5), "curve_own": ("CURVES", 5), "tick": ("TEXT", 7),
    "symbol": ("SYMBOL", 7), "symbol_dashed": ("SYMBOL", 7), "symbol_circle": ("SYMBOL", 7),
    "symbol_full": ("SYMBOL", 7),
}  # fmt: skip
DOUBLED: Final = frozenset({"metal", "plate", "layer", "halo"})  # areas whose lines other items draw
ALIGN: Final = {
    "start": TextEntityAlignment.LEFT, "middle": TextEntityAlignment.CENTER, "end": TextEntityAlignment.RIGHT,
}  # fmt: skip


def dxf(picture: DisplayList) -> bytes:
    """Return a picture as DXF text, one drawing unit a millimetre of the work; texts keep their size on the sheet.

    Parameters
    ----------
    picture : the display list; its handles are left out
    """
    drawing = ezdxf.new("R2010", units=ezdxf.units.MM)
    space = drawing.modelspace()
    for item in picture.items:
        layer = _layer(drawing, item.role)
        match item:
            case Path():
                if item.role not in DOUBLED:
                    space.add_lwpolyline(item.points, close=item.closed, dxfattribs={"layer": layer})
            case Text():
                _text(space, item, picture.scale, layer)
            case Marker(kind="arrow"):
                corners = [
                    (item.at[0] + u / picture.scale, item.at[1] + v / picture.scale) for u, v in arrow_head(item)
                ]
                space.add_solid([*corners, corners[-1]], dxfattribs={"layer": layer})
            case Marker():
                pass  # a handle is for the screen
    target = io.StringIO()
    drawing.write(target)
    return target.getvalue().encode("utf-8")


def _layer(drawing: Drawing, role: str) -> str:
    name, colour = LAYERS.get(role, ("OTHER", 8))
    if name not in drawing.layers:
        drawing.layers.add(name, color=colour)
    return name


def _text(space: Modelspace, item: Text, scale: float, layer: str) -> None:
    at = (item.at[0] + item.offset_mm[0] / scale, item.at[1] + item.offset_mm[1] / scale)
    entity = space.add_text(item.text, height=item.height_mm / scale, dxfattribs={"layer": layer})
    entity.set_placement(at, align=ALIGN[item.anchor])
