"""Codes: packs of rules, the boxes that records buy by them, and the verdict on what a WPS states."""

from anlage.core.codes.box import Allowance, CoverBox, cover_box
from anlage.core.codes.candidates import Boxes, Candidate
from anlage.core.codes.facts import Coupon, Demand, Measured, deposit_labels, pair_token
from anlage.core.codes.judge import Judgement, judge
from anlage.core.codes.loader import faults_of_pack, read_pack, written_rules
from anlage.core.codes.marked import marked, overlaid, with_checks
from anlage.core.codes.names import Names
from anlage.core.codes.pack import Pack, Rule
from anlage.core.codes.rungs import Rung
from anlage.core.codes.stated import Stated, StatedDeposit, StatedPass
from anlage.core.codes.verdict import Verdict, verdict_of, worst

__all__ = [
    "Allowance",
    "Boxes",
    "Candidate",
    "Coupon",
    "CoverBox",
    "Demand",
    "Judgement",
    "Measured",
    "Names",
    "Pack",
    "Rule",
    "Rung",
    "Stated",
    "StatedDeposit",
    "StatedPass",
    "Verdict",
    "cover_box",
    "deposit_labels",
    "faults_of_pack",
    "judge",
    "marked",
    "overlaid",
    "pair_token",
    "read_pack",
    "verdict_of",
    "with_checks",
    "worst",
    "written_rules",
]
