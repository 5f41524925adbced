"""How hot before, between and after: preheat by schools and codes, cooling, waits, purging, for an open procedure."""
