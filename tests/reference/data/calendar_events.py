"""Expands the events of iCalendar files with python's icalendar and dateutil, with exceptions, exact and nominal lengths.

Usage: calendar_events.py FILE FROM TO ZONE. Prints [start, end, summary, all_day, cancelled] of each occurrence that begins in [from, to).
"""
import json
import sys
from datetime import date, datetime, time, timedelta, timezone

from dateutil import rrule, tz
from icalendar import Calendar

text = open(sys.argv[1], "rb").read()
begin, end = (datetime.fromisoformat(a.replace("Z", "+00:00")) for a in sys.argv[2:4])
own = tz.gettz(sys.argv[4])
# A zone that only the file knows, as dateutil reads it.
inner = tz.tzical(open(sys.argv[1])) if b"VTIMEZONE" in text else None


def zone_of(prop):
    name = prop.params.get("TZID")
    if name is None:
        return tz.UTC if getattr(prop.dt, "tzinfo", None) is not None else own
    return tz.gettz(name) or inner.get(name)


def instant(local, zone):
    aware = local.replace(tzinfo=zone, fold=0)
    if not tz.datetime_exists(aware):
        aware = local.replace(tzinfo=timezone(zone.utcoffset(local - timedelta(hours=3))))
    return aware.astimezone(timezone.utc)


def naive(value):
    return value.replace(tzinfo=None) if isinstance(value, datetime) else datetime.combine(value, time())


def told(moment):
    return moment.strftime("%Y-%m-%dT%H:%M:%SZ")


def days_of(event, start):
    if "DTEND" in event:
        return event["DTEND"].dt - start
    return event["DURATION"].dt if "DURATION" in event else timedelta(days=1)


calendar = Calendar.from_ical(text)
events = calendar.walk("VEVENT")
replaced = {}
for event in events:
    if "RECURRENCE-ID" in event:
        which = event["RECURRENCE-ID"]
        replaced.setdefault(str(event["UID"]), set()).add(instant(naive(which.dt), zone_of(which)))
found = []
for place, event in enumerate(events):
    prop = event["DTSTART"]
    start = prop.dt
    is_day = not isinstance(start, datetime)
    zone = own if is_day else zone_of(prop)
    # A start that its own rule does not give is none (RFC 5545, 3.8.5.3, leaves it undefined; dateutil has it so).
    locals_ = set() if "RRULE" in event else {naive(start)}
    if "RRULE" in event:
        for local in rrule.rrulestr(event["RRULE"].to_ical().decode(), dtstart=naive(start)):
            if local > end.replace(tzinfo=None) + timedelta(days=2):
                break
            if is_day or tz.datetime_exists(local.replace(tzinfo=zone)):
                locals_.add(local)
    groups = event.get("EXDATE", [])
    for group in groups if isinstance(groups, list) else [groups]:
        locals_ -= {naive(one.dt) for one in group.dts}
    for local in sorted(locals_):
        at = instant(local, zone)
        if not begin <= at < end or ("RECURRENCE-ID" not in event and at in replaced.get(str(event["UID"]), set())):
            continue
        if is_day:
            first, last = local.date().isoformat(), (local.date() + days_of(event, start)).isoformat()
        elif "DTEND" in event:
            first, last = told(at), told(at + (instant(naive(event["DTEND"].dt), zone_of(event["DTEND"])) - instant(naive(start), zone)))
        elif "DURATION" in event:
            length = event["DURATION"].dt
            later = instant(local + timedelta(days=length.days), zone) if length.days else at
            first, last = told(at), told(later + timedelta(seconds=length.seconds))
        else:
            first, last = told(at), told(at)
        found.append((at, place, [first, last, str(event["SUMMARY"]), is_day, str(event.get("STATUS", "")) == "CANCELLED"]))
json.dump([one[2] for one in sorted(found, key=lambda one: one[:2])], sys.stdout)
