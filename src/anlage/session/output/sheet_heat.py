"""The part of a sheet that tells of temperatures: why so hot, where that is read, how long to wait, how to purge."""

from anlage.core.drawing.page import MARGIN_MM, NOTE_MM, Flow
from anlage.core.procedure import Wps
from anlage.session.heat.measured import heat_sentences, purge_rows
from anlage.session.heat.purging import CAUTIONS
from anlage.session.heat.reading_picture import reading_picture
from anlage.session.heat.sequence import Waits, asked_of
from anlage.session.heat.sequence_words import stated_sentences, wait_sentences
from anlage.session.weld.picture_sheet import Sheet

PLACES_MM = (110.0, 34.0)


def set_heat(flow: Flow, wps: Wps, waits: Waits | str | None) -> None:
    """Set why it is so hot, how that is read, and how the root is purged."""
    if wps.preheat.reason:
        flow.text(f"Why this preheat: {wps.preheat.reason}.", height_mm=NOTE_MM)
    if (places := reading_picture(wps, Sheet(*PLACES_MM, wps.header.units, flow.measure))) is not None:
        height = (places.high[1] - places.low[1]) * places.scale
        flow.room(height + 8.0)
        flow.skip(4.0)
        flow.picture(places, x_mm=MARGIN_MM)
        flow.skip(height + 3.0)
    for sentence in heat_sentences(wps, wps.header.units):
        flow.text(sentence)
    if isinstance(waits, Waits):
        for sentence in wait_sentences(waits):
            flow.text(sentence)
        for sentence in stated_sentences(waits, wps.header.units):
            flow.text(sentence, height_mm=NOTE_MM)
    elif waits is not None or not asked_of(wps).missing:
        flow.text(f"Waits between passes: {waits or 'not worked out for this sheet.'}", height_mm=NOTE_MM)
    if rows := purge_rows(wps):
        flow.heading("Purge")
        flow.pairs(list(rows), columns=1)
        flow.skip(1.5)
        for caution in CAUTIONS:
            flow.text(caution, height_mm=NOTE_MM)
