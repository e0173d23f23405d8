"""Lists of things from spreadsheets, with a step that says which column is what; and back out as CSV or XLSX."""

from collections.abc import Mapping, Sequence
from typing import Annotated

from django.http import HttpResponse
from ninja import File, Form, Router, Schema, UploadedFile
from pydantic import Field, StringConstraints

from pinakotheke.core.inventory import Thing
from pinakotheke.core.inventory.columns import COLUMNS, Column, guess_columns, read_rows, write_rows
from pinakotheke.core.units import Units

from .. import models, rows
from ..actions import inventory as actions
from ..actions.base import Invalid, own_space
from ..sheets import MOST_BYTES, read_table, write_csv, write_xlsx
from . import rates
from .access import looking
from .common import MemberRequest, PathId
from .inventory import KindLine, ThingsView, others_of, size_of
from .inventory import get as things_of

router = Router(tags=["inventory"])
SHOWN = 6


class ColumnView(Schema):
    """A column of the file: its header, what it is taken for, some of its cells."""

    number: int
    header: str
    guess: str | None
    cells: list[str]


class ListPreview(Schema):
    """A file before it is taken in."""

    columns: list[ColumnView]
    rows: int
    meanings: list[str]


class PastedText(Schema):
    """Rows that were pasted, tabs or commas between."""

    text: Annotated[str, StringConstraints(max_length=2_000_000)] = ""


class Matching(PastedText):
    """Which column is what: meanings by column number, empty for a column that is left out."""

    columns: Annotated[str, StringConstraints(max_length=2000)]


class FaultView(Schema):
    """A row that was not taken in."""

    row: int
    problem: str
    mend: str


class Taken(Schema):
    """What was taken in, and what was not."""

    added: int
    faults: Annotated[list[FaultView], Field(max_length=5000)]
    things: ThingsView


def sent_table(file: UploadedFile | None, text: str) -> list[list[str]]:
    """The rows that were sent, as a file or pasted; the header first."""
    if file is not None:
        if (file.size or 0) > MOST_BYTES:
            raise Invalid("list.too-large", most=MOST_BYTES // 1_000_000)
        return read_table(file.read(), file.name or "")
    return read_table(text.encode(), "pasted.csv")


@router.post(
    "/spaces/{space_id}/things/preview",
    response=ListPreview,
    operation_id="inventory_preview_list",
    throttle=rates.uploads,
    auth=looking,
)
def preview(request: MemberRequest, space_id: PathId, data: Form[PastedText],
            file: File[UploadedFile | None] = None) -> ListPreview:  # fmt: skip
    """What a file's columns seem to be; nothing is kept."""
    own_space(request.user, space_id)
    table = sent_table(file, data.text)
    return previewed(table, guess_columns(table[0]), COLUMNS)


def previewed(table: list[list[str]], guesses: Mapping[int, str], meanings: Sequence[str]) -> ListPreview:
    """The columns of a table with what they seem to be."""
    header, body = table[0], table[1:]
    return ListPreview(
        columns=[
            ColumnView(number=n, header=text, guess=guesses.get(n),
                       cells=[row[n] for row in body[:SHOWN] if n < len(row)])
            for n, text in enumerate(header)
        ],
        rows=len(body), meanings=list(meanings),
    )  # fmt: skip


@router.post(
    "/spaces/{space_id}/things/list", response={201: Taken}, operation_id="inventory_take_list", throttle=rates.uploads
)
def take(request: MemberRequest, space_id: PathId, data: Form[Matching],
         file: File[UploadedFile | None] = None) -> tuple[int, Taken]:  # fmt: skip
    """Take a file in by the columns that were chosen; rows that cannot be read are named and left out."""
    space = own_space(request.user, space_id)
    household: models.Household = space.household
    units: Units = household.units  # type: ignore[assignment]
    chosen = dict(enumerate(data.columns.split(",")))
    columns: dict[int, Column] = {n: c for n, c in chosen.items() if c in COLUMNS}
    if not {"name", "kind"} & set(columns.values()):
        raise Invalid("list.no-names")
    known = frozenset(household.thing_set.values_list("key", flat=True))
    table = sent_table(file, data.text)
    read = read_rows(table[1:], columns, rows.people_of(household), units, space.key, known, table[0],
                     rows.words_of(household))  # fmt: skip
    added = actions.add_rows(request.user, space_id, read.things)
    faults = [FaultView(row=f.row, problem=f.problem, mend=f.mend) for f in read.faults]
    return 201, Taken(added=added, faults=faults, things=things_of(request, space_id))


class NoteText(Schema):
    """A note as it was pasted or dictated."""

    text: Annotated[str, StringConstraints(min_length=1, max_length=40_000)]


class NoteRowView(Schema):
    """A thing that was read, the words it was read from, and what else it may be."""

    said: str
    thing: Thing
    kind_name: str
    size: str
    others: list[KindLine]


class NoteView(Schema):
    """What a note says."""

    rows: list[NoteRowView]


class NoteThings(Schema):
    """The things of a note as somebody put them right."""

    things: Annotated[list[Thing], Field(min_length=1, max_length=1000)]


@router.post(
    "/spaces/{space_id}/things/note/preview", response=NoteView, operation_id="inventory_preview_note", auth=looking
)
def preview_note(request: MemberRequest, space_id: PathId, data: NoteText) -> NoteView:
    """What a pasted note says; nothing is kept."""
    space, read = actions.note_read(request.user, space_id, data.text)
    units: Units = space.household.units  # type: ignore[assignment]
    return NoteView(rows=[
        NoteRowView(said=r.said, thing=r.thing, kind_name=r.thing.row.many, others=others_of(r.thing),
                    size=size_of(r.thing, units))
        for r in read
    ])  # fmt: skip


@router.post("/spaces/{space_id}/things/note", response={201: ThingsView}, operation_id="inventory_take_note")
def take_note(request: MemberRequest, space_id: PathId, data: NoteThings) -> tuple[int, ThingsView]:
    """Take the things of a note in, all of them or none."""
    actions.add_note(request.user, space_id, tuple(data.things))
    return 201, things_of(request, space_id)


def _rows(request: MemberRequest, space_id: int) -> tuple[models.Space, list[list[str]]]:
    space = own_space(request.user, space_id)
    units: Units = space.household.units  # type: ignore[assignment]
    return space, write_rows(rows.things_of(space), rows.people_of(space.household), units)


@router.get("/spaces/{space_id}/things.csv", operation_id="inventory_csv")
def csv_file(request: MemberRequest, space_id: PathId) -> HttpResponse:
    """The things of a space as CSV."""
    space, table = _rows(request, space_id)
    response = HttpResponse(write_csv(table), content_type="text/csv; charset=utf-8")
    response["Content-Disposition"] = f'attachment; filename="{space.key}-things.csv"'
    return response


@router.get("/spaces/{space_id}/things.xlsx", operation_id="inventory_xlsx")
def xlsx_file(request: MemberRequest, space_id: PathId) -> HttpResponse:
    """The things of a space as XLSX."""
    space, table = _rows(request, space_id)
    kind = "application/vnd.openxmlformats-officedocument.spreadsheetml.sheet"
    response = HttpResponse(write_xlsx(table), content_type=kind)
    response["Content-Disposition"] = f'attachment; filename="{space.key}-things.xlsx"'
    return response
