"""The look: colours of a theme and how each role is drawn, apart from `tables`, for who draws."""

from functools import cache
from typing import Any, Literal, NamedTuple

import rtoml

from anlage.data.files import FOLDER, text_of

FONT_OVER_HEIGHT = 1.32  # font size over the height that a display list states; own choice, alike for every renderer
Theme = Literal["light", "dark"]
FONTS = (FOLDER / "fonts/SourceSans3-Regular.ttf", FOLDER / "fonts/SourceSans3-Semibold.ttf")


@cache
def _table() -> dict[str, Any]:
    return rtoml.loads(text_of("theme.toml"))


def colours(theme: Theme) -> dict[str, str]:
    """Return the colour of every token, as #RRGGBB."""
    return dict(_table()[theme])


class Style(NamedTuple):
    """How a role is drawn: colours as #RRGGBB or `none`, stroke width [mm] on paper."""

    fill: str
    stroke: str
    width_mm: float
    dashed: bool = False
    strong: bool = False


def role_styles(theme: Theme) -> dict[str, Style]:
    """Return how every role is drawn."""
    tokens = {"": "none", **colours(theme)}
    return {
        role: Style(
            tokens[row["fill"]],
            tokens[row["stroke"]],
            row["width_mm"],
            row.get("dashed", False),
            row.get("strong", False),
        )
        for role, row in _table()["roles"].items()
    }


@cache
def temper_ramp() -> tuple[str, ...]:
    """Return the heat ramp from cold to hot, as #RRGGBB."""
    return tuple(line.split(",")[1] for line in text_of("temper_ramp.csv").split()[1:])


def heat_colour(value: float, *, coldest: float, hottest: float) -> str:
    """Return the colour of a value on the heat ramp from `coldest` to `hottest`; beyond the ends it keeps theirs."""
    ramp = temper_ramp()
    share = (value - coldest) / (hottest - coldest) if hottest > coldest else 0.5
    return ramp[round(min(1.0, max(0.0, share)) * (len(ramp) - 1))]
