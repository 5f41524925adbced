"""The place that tells what was welded on the coupon, and what it buys."""
