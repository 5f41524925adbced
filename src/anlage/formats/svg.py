"""Display lists as SVG: true millimetres of paper, roles as pens, nothing that another program would have to run."""

from collections.abc import Callable, Iterable, Mapping
from html import escape

from anlage.core.drawing import DisplayList, Item, Marker, Path, Point, Text, arrow_head
from anlage.data.look import FONT_OVER_HEIGHT, Style

Heat = Callable[[float], str]  # kJ/mm to #RRGGBB
Paper = Callable[[Point], Point]  # work millimetres to paper millimetres, y down

MARGIN_MM = 3.0
FAMILY = "Source Sans 3, Noto Sans, sans-serif"


def svg(picture: DisplayList, styles: Mapping[str, Style], *, ground: str = "none", heat: Heat | None = None) -> str:
    """Return a display list as an SVG text in millimetres of paper.

    Parameters
    ----------
    picture : the display list
    styles : how each role is drawn
    ground : colour behind the picture
    heat : gives the colour of a heat number [kJ/mm]; without it areas with heat are filled as their role is

    Raises
    ------
    KeyError : a role has no style
    """
    (left, low), (right, high) = picture.low, picture.high
    scale = picture.scale
    width, height = ((b - a) * scale + 2 * MARGIN_MM for a, b in ((left, right), (low, high)))

    def paper(point: Point) -> Point:
        return ((point[0] - left) * scale + MARGIN_MM, (high - point[1]) * scale + MARGIN_MM)

    size = f'width="{width:.3f}mm" height="{height:.3f}mm" viewBox="0 0 {width:.3f} {height:.3f}"'
    lines = [f'<svg xmlns="http://www.w3.org/2000/svg" {size}>']
    if ground != "none":
        lines.append(f'<rect width="{width:.3f}" height="{height:.3f}" fill="{ground}"/>')
    lines += [_element(item, warmed(item, styles[item.role], heat), paper) for item in picture.items]
    return "\n".join([*lines, "</svg>", ""])


def _element(item: Item, style: Style, paper: Paper) -> str:
    target = f' data-target="{escape(item.target)}"' if item.target else ""
    match item:
        case Path(points=points, closed=closed):
            return f'<path d="{_outline(map(paper, points), closed=closed)}" {_pen(style, closed=closed)}{target}/>'
        case Marker():
            return f"{_marker(item, style, paper(item.at))}{target}/>"
        case Text(text=text, height_mm=height, anchor=anchor, offset_mm=(dx, dy)):
            x, y = paper(item.at)
            place = (
                f'x="{x + dx:.3f}" y="{y - dy:.3f}" font-size="{height * FONT_OVER_HEIGHT:g}" text-anchor="{anchor}"'
            )
            return f'<text {place} font-family="{FAMILY}" fill="{style.fill}"{target}>{escape(text)}</text>'


def warmed(item: Item, style: Style, heat: Heat | None) -> Style:
    """Return the style of an item; an area that carries a heat number is filled with its colour."""
    if heat is None or not isinstance(item, Path) or item.heat is None or not item.closed:
        return style
    return style._replace(fill=heat(item.heat))


def _outline(points: Iterable[Point], *, closed: bool) -> str:
    corners = " L".join(f"{x:.3f},{y:.3f}" for x, y in points)
    return f"M{corners}{' Z' if closed else ''}"


def _pen(style: Style, *, closed: bool) -> str:
    fill = style.fill if closed else "none"
    dashes = ' stroke-dasharray="1.6 1.2"' if style.dashed else ""
    return f'fill="{fill}" stroke="{style.stroke}" stroke-width="{style.width_mm:g}" stroke-linejoin="round"{dashes}'


def _marker(marker: Marker, style: Style, at: Point) -> str:
    x, y = at
    size = marker.size_mm
    if marker.kind == "handle":
        return f'<circle cx="{x:.3f}" cy="{y:.3f}" r="{size / 2:g}" {_pen(style, closed=True)}'
    corners = [(x + u, y - v) for u, v in arrow_head(marker)]
    return f'<path d="{_outline(corners, closed=True)}" fill="{style.stroke}"'
