"""Spreadsheets in and out: CSV and XLSX as rows of text, with everything refused or cleaned that could do harm."""

import csv
from collections.abc import Iterator
from io import BytesIO, StringIO
from zipfile import ZipFile

from openpyxl import Workbook, load_workbook

from pinakotheke.core.inventory.columns import MOST_COLUMNS, MOST_ROWS

from .actions.base import Invalid

MOST_BYTES = 5_000_000
MOST_UNPACKED = 60_000_000
MOST_TEXT = 500


def read_table(data: bytes, name: str) -> list[list[str]]:
    """All rows of a CSV or XLSX file as text, the header first. Refuses what is too large or no table."""
    if len(data) > MOST_BYTES:
        raise Invalid("list.too-large", most=MOST_BYTES // 1_000_000)
    if not data.strip():
        raise Invalid("list.empty")
    rows = _xlsx(data) if data[:2] == b"PK" or name.lower().endswith((".xlsx", ".xlsm")) else _csv(data)
    rows = [row for row in rows if any(row)]
    if not rows:
        raise Invalid("list.no-rows")
    if max(len(row) for row in rows) > MOST_COLUMNS:
        raise Invalid("list.too-many-columns", most=MOST_COLUMNS)
    if len(rows) > MOST_ROWS + 1:
        raise Invalid("list.too-many-rows", most=MOST_ROWS)
    return rows


def _csv(data: bytes) -> list[list[str]]:
    if b"\x00" in data and not data.startswith((b"\xff\xfe", b"\xfe\xff")):
        raise Invalid("list.no-text")
    for encoding in ("utf-8-sig", "utf-16") if data.startswith((b"\xff\xfe", b"\xfe\xff")) else ("utf-8-sig",):
        try:
            text = data.decode(encoding)
            break
        except UnicodeDecodeError:
            continue
    else:
        raise Invalid("list.not-utf8")
    head = text[:4096]
    delimiter = max(",;\t|", key=head.partition("\n")[0].count)
    try:
        return [[_cell(c) for c in row] for row in csv.reader(StringIO(text), delimiter=delimiter)]
    except csv.Error as error:
        raise Invalid("list.no-csv", error=error) from None


def _xlsx(data: bytes) -> list[list[str]]:
    try:
        with ZipFile(BytesIO(data)) as archive:
            if sum(info.file_size for info in archive.infolist()) > MOST_UNPACKED:
                raise Invalid("list.unpacks-too-large")
        book = load_workbook(BytesIO(data), read_only=True, data_only=False, keep_links=False)
    except Invalid:
        raise
    except Exception as error:  # a zip of anything: the parser has no error of its own for it
        raise Invalid("list.no-xlsx") from error
    try:
        return list(_rows_of(book))
    except Exception as error:  # whatever the parser stumbles over in a file that only looks like one
        raise Invalid("list.no-xlsx") from error
    finally:
        book.close()


def _rows_of(book: Workbook) -> Iterator[list[str]]:
    if not book.worksheets:
        raise Invalid("list.no-sheet")
    for number, row in enumerate(book.worksheets[0].iter_rows(max_col=MOST_COLUMNS + 1, values_only=True)):
        if number > MOST_ROWS + 1:
            return
        cells = [_cell("" if cell is None else str(cell)) for cell in row]
        while cells and not cells[-1]:
            cells.pop()
        yield cells


def _cell(text: str) -> str:
    """A cell as plain text. A formula is not computed: it is kept as the text it is, guarded."""
    clean = "".join(c for c in text if c.isprintable() or c == " ").strip()[:MOST_TEXT]
    return f"'{clean}" if clean.startswith("=") else clean


def write_csv(rows: list[list[str]]) -> str:
    """Rows as CSV for a spreadsheet."""
    out = StringIO()
    csv.writer(out, lineterminator="\r\n").writerows(rows)
    return out.getvalue()


def write_xlsx(rows: list[list[str]]) -> bytes:
    """Rows as XLSX; every cell is a text, so that none can run."""
    book = Workbook(write_only=True)
    sheet = book.create_sheet("things")
    for row in rows:
        sheet.append([str(cell) for cell in row])
    out = BytesIO()
    book.save(out)
    return out.getvalue()
