"""The look: colours of a theme and how each role is drawn, apart from `tables`, for who draws."""

import tomllib
from functools import cache
from typing import Any, Literal

from anlage.data.tables import text_of

Theme = Literal["light", "dark"]


@cache
def _table() -> dict[str, Any]:
    return tomllib.loads(text_of("theme.toml"))


def colours(theme: Theme) -> dict[str, str]:
    """Return the colour of every token, as #RRGGBB."""
    return dict(_table()[theme])


def role_styles(theme: Theme) -> dict[str, tuple[str, str, float]]:
    """Return fill, stroke (#RRGGBB or `none`) and stroke width [mm] of every role."""
    tokens = {"": "none", **colours(theme)}
    return {
        role: (tokens[row["fill"]], tokens[row["stroke"]], row["width_mm"]) for role, row in _table()["roles"].items()
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
