"""A structural steel of 17 points of carbon: what checks of it expect was worked out by hand from the formula named."""

STEEL = {
    "C": 0.17,
    "Si": 0.35,
    "Mn": 1.42,
    "Cr": 0.12,
    "Mo": 0.03,
    "V": 0.04,
    "Ni": 0.15,
    "Cu": 0.18,
    "Nb": 0.02,
    "B": 0,
}
