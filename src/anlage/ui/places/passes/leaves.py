"""The leaves that have their field at Passes, as patterns."""

PASS = (
    "role", "deposit", "current_a", "voltage_v", "travel_speed_mm_min", "thickness_mm", "bead_area_mm2", "layer",
    "wire_speed_mm_min", "side", "note", "reach", "marks",
)  # fmt: skip
DEPOSIT = (
    "process", "filler", "filler_diameter_mm", "current_type", "shielding_gas", "gas_flow_l_min", "backing_gas",
    "backing_flow_l_min", "machine", "flux", "flux_type", "electrodes", "recrushed_slag", "transfer_mode",
    "contact_tube_mm", "orifice_gas", "keyhole",
)  # fmt: skip
# Leaves of a pass or a deposit whose field is beside a view, not in the table or on the card.
OF_VIEW = {"reach": "tacks", "marks": "stops", "machine": "sectors"}
VIEW_OF = {"seam": "stops", "tacks": "tacks", "stations": "fit-up", "sectors": "sectors", "readings": "sectors"}
LEAVES = (
    *(f"passes/*/{name}" for name in PASS),
    *(f"deposits/*/{name}" for name in DEPOSIT),
    *(f"{head}/*" for head in VIEW_OF),
)
