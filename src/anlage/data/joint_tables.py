"""Tables of the joint; apart from `tables`, so that a calculation of heat loads no geometry."""

from collections.abc import Mapping
from functools import cache

from anlage.core.joint import Detail, JointLimit, RootStyles, read_details, read_joint_limits, read_root_styles
from anlage.data.files import text_of


@cache
def joint_limits() -> Mapping[str, JointLimit]:
    """Return the shipped limits that are told at the joint, by their id."""
    return read_joint_limits(text_of("joint_limits.toml"))


@cache
def root_styles() -> RootStyles:
    """Return the shipped root styles."""
    return read_root_styles(text_of("root_styles.toml"))


@cache
def standard_details() -> Mapping[str, Detail]:
    """Return the shipped standard details by id."""
    return read_details(text_of("standard_details.toml"))
