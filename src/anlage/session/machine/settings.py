"""Settings of the person at this machine, in one TOML file: read with mercy, written whole."""

from collections.abc import Callable, Mapping
from pathlib import Path
from types import MappingProxyType
from typing import TYPE_CHECKING, Any, NamedTuple

import platformdirs
import rtoml

from anlage.core.letters import has_odd
from anlage.session.machine.whole import write_whole

if TYPE_CHECKING:  # read before the first paint: nothing heavy may be loaded for it
    from anlage.core.quantities.units import System
    from anlage.data.look import Theme

NAME = "anlage"
TEXT_PERCENTS = (100, 125, 150, 175, 200)
RECENT = 8  # files remembered
MOST_MONTHS = 120
_WORDS: dict[str, tuple[str, ...]] = {"units": ("si", "us"), "theme": ("light", "dark"), "paper": ("a4", "letter")}


class Settings(NamedTuple):  # and no struct: nothing heavy may be loaded for the first paint
    """What is remembered from one start to the next."""

    author: str = ""
    role: str = ""
    letterhead: str = ""
    text_percent: int = 100  # of text and everything with it
    paper: str = "a4"
    units: "System" = "si"
    theme: "Theme" = "light"
    recent: tuple[str, ...] = ()
    document: str = ""
    place: str = ""
    rates: Mapping[str, float] = MappingProxyType({})  # the user's own, in whatever money
    calibration_months: int = 12  # that what a meter read of a machine is taken to hold
    ferrite_lines: str = ""  # a table of lines of one's own, read off a licensed diagram
    width: int = 1280
    height: int = 800

    @property
    def signature(self) -> str:
        """Who issues a revision: name and role."""
        return ", ".join(filter(None, (self.author, self.role)))

    def with_recent(self, path: Path) -> "Settings":
        """Return the settings with a works file at the top of the recent ones."""
        own = str(path.absolute())
        return self._replace(recent=(own, *(other for other in self.recent if other != own))[:RECENT])


def last_works(settings: Settings) -> Path | None:
    """Return the works file that was open last, if it is still there."""
    return next((path for name in settings.recent[:1] if (path := Path(name)).exists()), None)


def is_months(number: int) -> bool:
    """Return whether a number of months is one that a calibration may hold for."""
    return 1 <= number <= MOST_MONTHS


def _is_size(number: int) -> bool:
    return 400 <= number <= 16000


_WHOLE: Mapping[str, Callable[[int], bool]] = {
    "text_percent": TEXT_PERCENTS.__contains__, "calibration_months": is_months, "width": _is_size, "height": _is_size,
}  # fmt: skip


def settings_file() -> Path:
    """Return where the settings lie: under XDG_CONFIG_HOME."""
    return platformdirs.user_config_path(NAME) / "settings.toml"


def state_folder() -> Path:
    """Return where logs lie: under XDG_STATE_HOME."""
    return platformdirs.user_state_path(NAME)


def data_folder() -> Path:
    """Return where works files are proposed to lie: under XDG_DATA_HOME."""
    return platformdirs.user_data_path(NAME)


def read_settings(path: Path) -> Settings:
    """Return the settings in a file; what is missing or cannot be is as if it had never been set."""
    try:
        raw = rtoml.loads(path.read_text(encoding="utf-8"))
    except (OSError, ValueError, RecursionError):
        return Settings()
    found = {name: _checked(name, raw.get(name)) for name in Settings._fields}
    return Settings(**{name: value for name, value in found.items() if value is not None})


def _checked(name: str, value: Any) -> Any:
    default = getattr(Settings(), name)
    if name in _WHOLE:
        return value if isinstance(value, int) and not isinstance(value, bool) and _WHOLE[name](value) else None
    if name in _WORDS:
        return value if value in _WORDS[name] else None
    if name == "rates":
        return {k: float(v) for k, v in value.items() if _is_rate(k, v)} if isinstance(value, dict) else None
    if isinstance(default, tuple):
        return tuple(filter(_is_text, value))[:RECENT] if isinstance(value, list) else None
    return value if _is_text(value) else None


def _is_text(value: Any) -> bool:
    return isinstance(value, str) and not has_odd(value)


RATES = ("labour_per_h", "filler_per_kg", "gas_per_m3", "power_per_kwh", "wait_min")


def _is_rate(name: str, value: Any) -> bool:
    return name in RATES and isinstance(value, int | float) and not isinstance(value, bool) and 0 <= value < 1e9


def write_settings(path: Path, settings: Settings) -> None:
    """Write the settings; a half-written file is never left behind.

    Raises
    ------
    OSError : the folder cannot be written
    """
    path.parent.mkdir(parents=True, exist_ok=True)
    import tomli_w  # when something is to be written: the first paint needs none of it

    plain = settings._asdict() | {"rates": dict(settings.rates)}
    write_whole(path, tomli_w.dumps(plain).encode(errors="replace"))
