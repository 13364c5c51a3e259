"""Tells messages and sorts texts with ICU (python3-icu): JSON cases on standard input, JSON answers on standard output."""
import json
import sys

from icu import Collator, Formattable, Locale, MessageFormat, TimeZone, UnicodeString

answers = {"icu": [], "sorted": []}
cases = json.load(sys.stdin)
for case in cases["messages"]:
    TimeZone.setDefault(TimeZone.createTimeZone(case["tz"]))
    try:
        # An argument that tells itself is told as a number, or as ICU tells a date and a time.
        message = MessageFormat(case["pattern"], Locale(case["language"]))
        names, values = [], []
        for name, value in case["row"].items():
            names.append(UnicodeString(name))
            values.append(Formattable(value["ms"] / 1000, Formattable.kIsDate) if isinstance(value, dict) else Formattable(value))
        answers["icu"].append(str(message.format(names, values)))
    except Exception as error:  # noqa: BLE001
        answers["icu"].append({"error": str(error)})
for case in cases["sorted"]:
    collator = Collator.createInstance(Locale(case["language"]))
    answers["sorted"].append(sorted(case["texts"], key=collator.getSortKey))
json.dump(answers, sys.stdout)
