"""Expands rules with python-dateutil: JSON cases on standard input, JSON lists of UTC instants on standard output.

The rule is expanded on the wall clock without its COUNT; what does not exist there is dropped, then COUNT counts.
"""
import json
import re
import signal
import sys
from datetime import datetime, timedelta, timezone

from dateutil import tz
from dateutil.rrule import rrulestr


class TooLong(Exception):
    pass


def too_long(*_):
    raise TooLong


def expand(case):
    zone = tz.gettz(case["zone"])
    start = datetime.fromisoformat(case["start"])
    rule = re.sub(r";?COUNT=\d+", "", case["rule"])
    count = re.search(r"COUNT=(\d+)", case["rule"])
    until = re.search(r"UNTIL=(\d{8}T\d{6})Z", case["rule"])
    rule = re.sub(r";?UNTIL=\w+", "", rule)
    begin, end = (datetime.fromisoformat(case[key]).replace(tzinfo=timezone.utc) for key in ("from", "to"))
    last = end.replace(tzinfo=None) + timedelta(days=1)
    rule += ";UNTIL=" + last.strftime("%Y%m%dT%H%M%S")
    instants, counted = [], 0
    if "locals" in case:  # expanded by another tool already
        if case["locals"] is None:
            return None
        locals_ = [datetime.fromisoformat(text) for text in case["locals"]]
    else:
        locals_ = rrulestr(rule, dtstart=start)
    for local in locals_:
        aware = local.replace(tzinfo=zone, fold=0)
        if not tz.datetime_exists(aware):
            if local != start:
                continue
            aware = local.replace(tzinfo=timezone(zone.utcoffset(local - timedelta(hours=3))))
        utc = aware.astimezone(timezone.utc)
        counted += 1
        if count and counted > int(count[1]):
            break
        if until and utc > datetime.strptime(until[1], "%Y%m%dT%H%M%S").replace(tzinfo=timezone.utc):
            break
        if utc >= end:
            break
        if utc >= begin:
            instants.append(utc.strftime("%Y-%m-%dT%H:%M:%SZ"))
    return instants


signal.signal(signal.SIGALRM, too_long)
answers = []
for case in json.load(sys.stdin):
    signal.alarm(1)
    try:
        answers.append(expand(case))
    except TooLong:
        answers.append(None)
    except ValueError:  # dateutil refuses what can never happen, such as every second hour on odd hours only
        answers.append([])
    signal.alarm(0)
json.dump(answers, sys.stdout)
