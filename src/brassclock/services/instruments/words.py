"""Sentences about an instrument that is not believed."""

from __future__ import annotations

import datetime as dt

from brassclock.services.times import short_moment
from brassclock.store.tables import Channel

INSTEAD = {
    "air": "Plans go by the usual hours instead.",
    "dough": "The dough is reckoned from the air instead.",
    "surface": "The surface counts as hot as it was set.",
    "scale": "Go by the scale itself.",
}
WHAT = {
    "lost": "has been silent since {at}",
    "stuck": "has stood still since {at}, as no real air does",
    "absurd": "tells what cannot be since {at}",
    "jumped": "jumped at {at} as no dough does: it may have come out of it",
}


def doubt_words(channel: Channel, now: dt.datetime) -> str | None:
    """The reason why a channel is not believed, and what is used instead; None where it is believed, or unused."""
    if channel.doubt is None or channel.use is None or channel.doubt_since is None:
        return None
    at = short_moment(channel.doubt_since.astimezone(now.tzinfo), now)
    return f"“{channel.name}” {WHAT[channel.doubt].format(at=at)}. {INSTEAD[channel.use]} Look at the instrument."
