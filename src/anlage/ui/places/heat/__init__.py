"""The Heat place: temperatures before, between and after each pass."""
