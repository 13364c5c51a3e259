"""Makes a workbook with openpyxl and prints what openpyxl reads from it with the values that are kept: lists of rows of cells, by sheet.

Usage: workbook.py make FILE SEED, workbook.py read FILE. Times are told in ISO 8601, as dates with a time, times, or null for what is empty.
"""
import datetime
import json
import random
import sys

from openpyxl import Workbook, load_workbook

NUMBERS = ["General", "0.00", "#,##0", '0 "days"', "0%", "0.00E+00", '"d"0', "[Red]0;-0", "@"]
DATES = ["yyyy-mm-dd", "d mmm yyyy", "dd/mm/yy", "mmmm", "[$-409]dddd", "yyyy\\.mm\\.dd"]
TIMES = ["hh:mm", "h:mm:ss AM/PM", "mm:ss", "hh:mm:ss.000"]
BOTH = ["yyyy-mm-dd hh:mm", "d/m/yy h:mm:ss", "[$-F400]yyyy mm dd hh:mm:ss"]


def make(path, seed):
    rnd = random.Random(seed)
    book = Workbook()
    book.remove(book.active)
    for number in range(rnd.randint(1, 3)):
        sheet = book.create_sheet(f"Sheet {number} ü&")
        if rnd.random() < 0.3 and number:
            sheet.sheet_state = "hidden"
        top, left, columns = rnd.randint(1, 4), rnd.randint(1, 3), rnd.randint(1, 6)
        for c in range(columns):
            sheet.cell(top, left + c, rnd.choice(["to", "to", "départ", 2024, True, None, "column 2", "a b"]) if c else "first")
        for r in range(top + 1, top + rnd.randint(1, 20)):
            if rnd.random() < 0.15:
                continue
            for c in range(columns + rnd.randint(-1, 2)):
                kind = rnd.randint(0, 9)
                cell = sheet.cell(r, left + c)
                day = datetime.date(2026, 1, 1) + datetime.timedelta(days=rnd.randint(-30000, 9000))
                time = datetime.time(rnd.randint(0, 23), rnd.randint(0, 59), rnd.randint(0, 59))
                if kind == 0:
                    cell.value = rnd.choice(["Tolm", " two  spaces ", "line\nbreak", "ß<&>\"'", "=", "12"])
                elif kind == 1:
                    cell.value, cell.number_format = rnd.choice([0, 12, -3, 2.5, 1e-7, 123456789.125]), rnd.choice(NUMBERS)
                elif kind == 2:
                    cell.value, cell.number_format = day, rnd.choice(DATES)
                elif kind == 3:
                    cell.value, cell.number_format = time, rnd.choice(TIMES)
                elif kind == 4:
                    cell.value, cell.number_format = datetime.datetime.combine(day, time), rnd.choice(BOTH)
                elif kind == 5:
                    cell.value = rnd.random() < 0.5
                elif kind == 6:
                    cell.value, cell.data_type = rnd.choice(["#N/A", "#DIV/0!"]), "e"
                elif kind == 7:
                    cell.value = rnd.choice([1, 7.25, 100000])
        if rnd.random() < 0.5:
            row = rnd.randint(top + 1, top + 8)
            sheet.merge_cells(start_row=row, end_row=row + rnd.randint(0, 2), start_column=left, end_column=left + rnd.randint(1, 2))
    book.save(path)


def told(cell):
    value = cell.value
    if cell.data_type == "e":
        return None
    if isinstance(value, datetime.datetime):
        return value.replace(microsecond=0).isoformat() if value.microsecond < 500000 else (value.replace(microsecond=0) + datetime.timedelta(seconds=1)).isoformat()
    if isinstance(value, (datetime.date, datetime.time)):
        return value.isoformat()
    return value


def read(path):
    book = load_workbook(open(path, "rb"), data_only=True)
    return {sheet.title: [[told(cell) for cell in row] for row in sheet.iter_rows(min_row=1, min_col=1)] for sheet in book.worksheets}


if sys.argv[1] == "make":
    make(sys.argv[2], int(sys.argv[3]))
json.dump(read(sys.argv[2]), sys.stdout)
