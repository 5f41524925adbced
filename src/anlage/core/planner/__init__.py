"""The fewest, or cheapest, sets that cover all elements: exactly, or with how far from it the best found is at most."""

from anlage.core.planner.cover import Cover, least_cover

__all__ = ["Cover", "least_cover"]
