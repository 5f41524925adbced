"""The kinds of document, a file each: what the layers above need to know of one."""

from anlage.session.kinds.all_kinds import KINDS, kind_named, kind_of, kind_of_format
from anlage.session.kinds.kind import Kind
from anlage.session.kinds.machine import SOURCE
from anlage.session.kinds.pqr import RECORD
from anlage.session.kinds.wps import PROCEDURE

__all__ = ["KINDS", "PROCEDURE", "RECORD", "SOURCE", "Kind", "kind_named", "kind_of", "kind_of_format"]
