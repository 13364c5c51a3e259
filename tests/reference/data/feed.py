"""Reads feeds with feedparser: a JSON list of feeds, as texts, on standard input, what it makes of them on standard output."""
import calendar
import json
import sys
from datetime import datetime, timezone

import feedparser


def instant(parsed):
    return datetime.fromtimestamp(calendar.timegm(parsed), timezone.utc).strftime("%Y-%m-%dT%H:%M:%SZ") if parsed else None


def entry(one):
    enclosures = [link.get("href") for link in one.get("links", []) if link.get("rel") == "enclosure" and link.get("type", "").startswith("image/")]
    return {
        "id": one.get("id"),
        "title": one.get("title"),
        "link": one.get("link"),
        "published": instant(one.get("published_parsed") or one.get("updated_parsed")),
        "summary": one.get("summary"),
        "picture": enclosures[0] if enclosures else None,
    }


answers = []
for text in json.load(sys.stdin):
    feed = feedparser.parse(text.encode())
    answers.append({"title": feed.feed.get("title"), "link": feed.feed.get("link"), "items": [entry(one) for one in feed.entries]})
json.dump(answers, sys.stdout)
