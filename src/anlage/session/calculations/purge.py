"""`calc purge`: how long to purge until the oxygen is low enough, and what the rule of thumb leaves."""

from typing import Any

from anlage.core.errors import InputError
from anlage.core.purge import AIR_PPM, Oxygen, oxygen_left, purge_time, purged_volume, thumb_time
from anlage.core.ranges import Interval
from anlage.core.ranges.corners import over_corners
from anlage.core.results import Notice, Source
from anlage.session.keyed.answer import Answer, number, number_or_interval, shown
from anlage.session.keyed.arguments import Arguments
from anlage.session.keyed.words import minutes_text

KEYS = ("bore", "length", "volume", "flow", "target", "start", "gas_oxygen", "mixing")
NAMES = ("volume_l", "mixing_min", "volume_changes", "plug_min", "rule_of_thumb_min")


def answer(arguments: Arguments) -> Answer:
    """Answer `calc purge`."""
    arguments.need("flow", "target")
    space = _space(arguments)
    target = arguments.single("target", "oxygen", bare="ppm")
    start = arguments.single("start", "oxygen", bare="ppm") if "start" in arguments else AIR_PPM
    gas = arguments.single("gas_oxygen", "oxygen", zero=True, bare="ppm") if "gas_oxygen" in arguments else 0.0
    mixing = arguments.single("mixing", "ratio") if "mixing" in arguments else 1.0

    def formula(flow_l_min: float, **sizes: float) -> dict[str, float | None]:
        volume = sizes["volume_l"] if "volume_l" in sizes else purged_volume(sizes["bore_mm"], sizes["length_mm"])
        found = purge_time(volume, flow_l_min=flow_l_min, oxygen=Oxygen(target, start, gas), mixing=mixing)
        thumb = None if "volume_l" in sizes else thumb_time(**sizes, flow_l_min=flow_l_min)
        changes = None if thumb is None else thumb * flow_l_min / volume
        left = None if changes is None else oxygen_left(changes, start_ppm=start, gas_ppm=gas, mixing=mixing)
        values: dict[str, float | None] = {
            "volume_l": found.volume_l, "mixing_min": found.mixing_min, "volume_changes": found.volume_changes,
            "plug_min": found.plug_min, "rule_of_thumb_min": thumb, "rule_of_thumb_leaves_ppm": left,
        }  # fmt: skip
        return values

    found = over_corners(formula, {**space, "flow_l_min": arguments.interval("flow", "flow")})
    values: dict[str, Any] = {name: number_or_interval(value) for name, value in found.items()}
    values |= {
        "target_ppm": number(target),
        "start_ppm": number(start),
        "gas_oxygen_ppm": number(gas),
        "mixing": mixing,
    }
    lines = [
        ("volume", _litres(found["volume_l"])),
        ("time to the target", minutes_text(found["mixing_min"])),
        ("volume changes", shown("", found["volume_changes"])),
        ("at the very least", minutes_text(found["plug_min"])),
    ]
    notices = [
        Notice("purge.meter", "target", "an oxygen meter at the vent decides; a leak may never let it fall so low")
    ]
    if found["rule_of_thumb_min"] is not None:
        lines.append(("rule of thumb", minutes_text(found["rule_of_thumb_min"])))
        lines.append(("which leaves", f"{shown('_ppm', found['rule_of_thumb_leaves_ppm'])} of oxygen"))
    sources = [
        Source("time", "well-mixed vessel", "H"),
        Source("rule of thumb", "common practice, no source: 4 × diameter × length / flow in inch, feet, ft³/h", "M"),
    ]
    return Answer(values, lines, sources, notices)


def _space(arguments: Arguments) -> dict[str, Interval]:
    """Return what is purged: a bore between dams, or a volume."""
    if "volume" in arguments:
        if "bore" in arguments or "length" in arguments:
            raise InputError("does not go with bore and length", where="volume", mend="state one or the other")
        return {"volume_l": arguments.interval("volume", "volume")}
    if "bore" not in arguments and "length" not in arguments:
        raise InputError("is missing", where="bore", mend="state bore and length, or volume")
    arguments.need("bore", "length")
    return {f"{key}_mm": arguments.interval(key, "length") for key in ("bore", "length")}


def _litres(value: Interval | None) -> str:
    return "unknown" if value is None else f"{'..'.join(dict.fromkeys(f'{e:.3g}' for e in (value.low, value.high)))} l"
