"""Calendars in and out: published recurrences, `dateutil` beside ours, moved and cancelled occurrences, zones, whole
days."""

from __future__ import annotations

import datetime as dt
from typing import Any
from zoneinfo import ZoneInfo

import icalendar
import pytest
from dateutil import rrule

from brassclock.formats import calendars
from helpers import worked

NEW_YORK = ZoneInfo("America/New_York")
SPAN = (dt.datetime(1997, 8, 1, tzinfo=dt.UTC), dt.datetime(2001, 1, 1, tzinfo=dt.UTC))


def event(*lines: str, uid: str = "one") -> str:
    return "\r\n".join(["BEGIN:VEVENT", f"UID:{uid}", "DTSTAMP:19970101T000000Z", *lines, "END:VEVENT"])


def calendar(*events: str) -> str:
    return "\r\n".join(["BEGIN:VCALENDAR", "VERSION:2.0", "PRODID:-//T//T//EN", *events, "END:VCALENDAR", ""])


def hours(
    text: str, zone: str = "America/New_York", span: tuple[dt.datetime, dt.datetime] = SPAN
) -> list[calendars.Hours]:
    return list(calendars.read(text, *span, zone).hours)


@pytest.mark.parametrize("case", worked("calendars")["published"], ids=lambda c: c["name"])
def test_published_recurrences(case: dict[str, Any]) -> None:
    start = f"DTSTART;TZID=America/New_York:{case['start']}"
    found = hours(calendar(event(start, "DURATION:PT45M", *case["rules"])))
    assert [f"{h.start:%Y-%m-%d}" for h in found] == case["dates"]
    assert {h.start.astimezone(NEW_YORK).hour for h in found} == {9}
    rule = next(r for r in case["rules"] if r.startswith("RRULE"))
    begin = dt.datetime.strptime(case["start"], "%Y%m%dT%H%M%S").replace(tzinfo=NEW_YORK)
    theirs = rrule.rrulestr(rule, dtstart=begin).between(*SPAN, inc=True)
    assert [h.start for h in found] == [
        x for x in theirs if x != begin or not any(r.startswith("EXDATE") for r in case["rules"])
    ]


def test_one_moved_and_one_cancelled() -> None:
    series = event("DTSTART:19970902T090000Z", "DTEND:19970902T100000Z", "RRULE:FREQ=DAILY;COUNT=4", "SUMMARY:watch")
    moved = event(
        "RECURRENCE-ID:19970903T090000Z", "DTSTART:19970903T150000Z", "DTEND:19970903T160000Z", "SUMMARY:watch"
    )
    gone = event(
        "RECURRENCE-ID:19970904T090000Z", "DTSTART:19970904T090000Z", "DTEND:19970904T100000Z", "STATUS:CANCELLED"
    )
    found = hours(calendar(series, moved, gone))
    assert [f"{h.start:%d %H}" for h in found] == ["02 09", "03 15", "05 09"]


def test_zones_floating_times_whole_days_and_free_time() -> None:
    text = calendar(
        event("DTSTART;TZID=Asia/Tokyo:19970902T090000", "DTEND;TZID=Asia/Tokyo:19970902T100000", uid="a"),
        event("DTSTART:19970902T090000", "DTEND:19970902T100000", uid="b"),
        event("DTSTART;VALUE=DATE:19970903", "DTEND;VALUE=DATE:19970905", uid="c"),
        event("DTSTART:19970906T090000Z", "DTEND:19970906T100000Z", "TRANSP:TRANSPARENT", uid="d"),
    )
    found = hours(text, "Europe/Zurich")
    assert [h.start.astimezone(dt.UTC).isoformat()[:16] for h in found] == [
        "1997-09-02T00:00",
        "1997-09-02T07:00",
        "1997-09-02T22:00",
    ]
    assert [h.all_day for h in found] == [False, False, True]
    assert found[2].end - found[2].start == dt.timedelta(days=2)


def test_a_shift_through_the_changed_night_is_an_hour_longer() -> None:
    text = calendar(event("DTSTART;TZID=Europe/Zurich:20261024T220000", "DTEND;TZID=Europe/Zurich:20261025T060000"))
    [night] = hours(
        text, "Europe/Zurich", (dt.datetime(2026, 10, 1, tzinfo=dt.UTC), dt.datetime(2026, 11, 1, tzinfo=dt.UTC))
    )
    assert night.end.astimezone(dt.UTC) - night.start.astimezone(dt.UTC) == dt.timedelta(hours=9)


def test_ten_thousand_events_are_read_whole() -> None:
    events = [
        event(f"DTSTART:2026{1 + i % 12:02d}{1 + i % 28:02d}T{i % 24:02d}0000Z", "DURATION:PT1H", uid=str(i))
        for i in range(10_000)
    ]
    span = (dt.datetime(2026, 1, 1, tzinfo=dt.UTC), dt.datetime(2027, 1, 1, tzinfo=dt.UTC))
    found = calendars.read(calendar(*events), *span, "UTC")
    assert (found.events, len(found.hours)) == (10_000, 10_000)


@pytest.mark.parametrize("text", ["", "hello", "BEGIN:VCALENDAR\nBEGIN:VEVENT\nUID", "BEGIN:VCALENDAR\nBEGIN:VEVENT"])
def test_what_is_no_calendar_says_so(text: str) -> None:
    with pytest.raises(calendars.NotACalendar, match="iCalendar"):
        calendars.read(text, *SPAN, "UTC")


def test_an_event_that_cannot_be_read_does_not_take_the_others_with_it() -> None:
    good = event("DTSTART:19970902T090000Z", "DURATION:PT1H", uid="good")
    assert len(hours(calendar(event("DTSTART:yesterday", uid="bad"), good))) == 1


def test_a_written_plan_reads_back_and_replaces_itself() -> None:
    now = dt.datetime(2026, 11, 24, 12, tzinfo=dt.UTC)
    move = calendars.Move(
        "1-2-ball@brassclock.invalid", "Ball: pitas", now + dt.timedelta(hours=3), 10.0, "the bench; ripe", 10
    )
    later_move = calendars.Move(move.uid, move.name, move.start + dt.timedelta(minutes=40), 10.0, move.note, 10)
    first, second = (
        calendars.write([move], "plan", now),
        calendars.write([later_move], "plan", now + dt.timedelta(minutes=5)),
    )
    old, new = (icalendar.Calendar.from_ical(x).walk("VEVENT")[0] for x in (first, second))
    assert old["UID"] == new["UID"] and new["SEQUENCE"] > old["SEQUENCE"]
    assert new.start - old.start == dt.timedelta(minutes=40)
    [alarm] = new.walk("VALARM")
    assert alarm["TRIGGER"].dt == dt.timedelta(minutes=-10)
    span = (now, now + dt.timedelta(days=1))
    assert [h.name for h in calendars.read(first, *span, "UTC").hours] == ["Ball: pitas"]
