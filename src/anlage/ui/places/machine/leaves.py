"""The leaves that have their field at Machine, as patterns."""

HEAD = ("header/number", "header/title", "place")
METERS = ("current_tolerance", "voltage_tolerance", "speed_tolerance")
READING = (
    ("tap", 82), ("lead_m", 50), ("dial", 54), ("current_a", 60), ("voltage_v", 54), ("meter", 86), ("day", 92),
)  # fmt: skip
LEAVES = (*HEAD, *METERS, *(f"readings/*/{name}" for name, _ in READING))
