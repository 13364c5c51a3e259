"""Reads an iCalendar file with python's icalendar and expands its events with dateutil and the zone that stands in the file.

Prints JSON: by UID the UTC instants of the starts and ends in [from, to).
"""
import json
import sys
from datetime import datetime, timedelta, timezone

from dateutil import rrule, tz
from icalendar import Calendar

begin, end = (datetime.fromisoformat(a.replace("Z", "+00:00")) for a in sys.argv[2:4])
calendar = Calendar.from_ical(open(sys.argv[1], "rb").read())
# The zone as the file itself writes it, not as this machine knows it.
zone = tz.tzical(open(sys.argv[1])).get() if b"VTIMEZONE" in open(sys.argv[1], "rb").read() else tz.UTC


def instant(local):
    aware = local.replace(tzinfo=zone, fold=0)
    if not tz.datetime_exists(aware):  # read with the offset before the gap (RFC 5545, 3.3.5)
        aware = local.replace(tzinfo=timezone(zone.utcoffset(local - timedelta(hours=3))))
    return aware.astimezone(timezone.utc)


def listed(event, name):
    found = event.get(name, [])
    found = found if isinstance(found, list) else [found]
    return [entry.dt.replace(tzinfo=None) for group in found for entry in group.dts]


answer = {}
for event in calendar.walk("VEVENT"):
    start = event["DTSTART"].dt.replace(tzinfo=None)
    length = event["DTEND"].dt.replace(tzinfo=None) - start
    locals_ = {start}
    if "RRULE" in event:
        parts = event["RRULE"].to_ical().decode().split(";")
        until = [p for p in parts if p.startswith("UNTIL=")]
        rule = ";".join(p for p in parts if not p.startswith("UNTIL="))
        for local in rrule.rrulestr(rule, dtstart=start):
            if local > end.replace(tzinfo=None) + timedelta(days=2):
                break
            if until and instant(local) > datetime.strptime(until[0][6:], "%Y%m%dT%H%M%SZ").replace(tzinfo=timezone.utc):
                break
            if tz.datetime_exists(local.replace(tzinfo=zone)):
                locals_.add(local)
    locals_ |= set(listed(event, "RDATE"))
    locals_ -= set(listed(event, "EXDATE"))
    spans = sorted((instant(local), instant(local + length)) for local in locals_)
    answer[str(event["UID"])] = [[a.strftime("%Y-%m-%dT%H:%M:%SZ"), b.strftime("%Y-%m-%dT%H:%M:%SZ")] for a, b in spans if begin <= a < end]
json.dump(answer, sys.stdout)
