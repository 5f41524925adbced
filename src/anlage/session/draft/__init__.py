"""A draft as it is proposed: filled, within what its code allows one procedure, with its temperatures."""
