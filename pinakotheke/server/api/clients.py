"""Brief: an organizer's clients. Where the work for them stands, links by which they look, and what they said."""

from typing import Annotated

from django.http import HttpRequest, HttpResponse
from ninja import Router, Schema
from pydantic import Field, StringConstraints

from pinakotheke.core.base import Seen
from pinakotheke.core.drawing import Drawing, walkround
from pinakotheke.core.materials import bill
from pinakotheke.core.words import agreed_in_words, figures, next_in_words, state_in_words

from .. import models, rows
from ..actions import clients as actions
from ..actions.access import RANK
from ..actions.base import own_household
from ..memo import remembered
from ..models import Role
from . import rates
from .common import MemberRequest, PathId, TypedName, Version
from .layout import sheet_of
from .layout_view import EyesView, PartView, Scene
from .session import anyone

router = Router(tags=["house"])
Said = Annotated[str, StringConstraints(strip_whitespace=True, min_length=1, max_length=1000), Seen]


class StandingView(Schema):
    """A household of one's own or of a client, where the work stands in it, and what comes next."""

    id: int
    name: str
    client: str
    role: Role
    is_demo: bool
    state: str
    next: str
    remarks: int
    """What clients said and nobody settled."""


class StandingList(Schema):
    """Households by client."""

    each: list[StandingView]


@router.get("/session/standing", response=StandingList, operation_id="session_standing")
def standing(request: MemberRequest) -> StandingList:
    """All households one may enter, with their state and next step; by client, one's own first."""
    mine = models.Membership.objects.filter(user=request.user.pk).select_related("household").order_by("household_id")
    ids = [m.household_id for m in mine]
    steps, waiting = actions.steps_of(ids), actions.waiting_in(ids)
    each = [
        StandingView(
            id=m.household_id, name=m.household.name, client=m.household.client, role=Role(m.role),
            is_demo=m.household.is_demo, state=state_in_words(steps.get(m.household_id, {})),
            next=next_in_words(steps.get(m.household_id, {}), waiting.get(m.household_id, 0)),
            remarks=waiting.get(m.household_id, 0),
        )
        for m in mine
    ]  # fmt: skip
    return StandingList(each=sorted(each, key=lambda one: one.client.casefold()))


class LinkView(Schema):
    """A link by which a client looks."""

    id: int
    note: str
    expires: str
    seen: str
    """The day they last looked; empty where they have not yet."""


class RemarkView(Schema):
    """What a client said."""

    id: int
    by: str
    on: str
    text: str
    part: str
    about: str
    settled: bool
    design: int
    design_title: str
    space: int
    space_name: str


class AgreedView(Schema):
    """A design that a client chose, or signed off."""

    design: int
    design_title: str
    space: int
    space_name: str
    says: str
    signed: bool


class ClientView(Schema):
    """Of a household: for whom the work is, who may look, what they chose and said."""

    version: int
    client: str
    may_show: bool
    links: list[LinkView]
    agreed: list[AgreedView]
    remarks: list[RemarkView]
    link: str
    """Of a link that was just made; told once."""


def _title(row: models.Design) -> str:
    return str(row.base.get("title") or row.key)


def _remark(row: models.Remark) -> RemarkView:
    space = row.design.space
    return RemarkView(id=row.pk, by=row.by, on=row.on, text=row.text, part=row.part, about=row.about,
                      settled=row.settled, design=row.design_id, design_title=_title(row.design), space=space.pk,
                      space_name=space.name)  # fmt: skip


def _view(request: MemberRequest, household: models.Household, link: str = "") -> ClientView:
    mine = models.Membership.objects.get(household=household, user=request.user.pk).role
    shows = RANK[Role(mine)] >= RANK[Role.ORGANIZER]
    chosen = models.Design.objects.filter(space__household=household).exclude(chosen=None, signed=None)
    return ClientView(
        version=household.version, client=household.client, may_show=shows, link=link,
        links=[
            LinkView(id=s.pk, note=s.note, expires=s.expires.date().isoformat(),
                     seen=s.seen.date().isoformat() if s.seen else "")
            for s in (household.showings.order_by("pk") if shows else ())
        ],
        agreed=[
            AgreedView(design=d.pk, design_title=_title(d), space=d.space_id, space_name=d.space.name,
                       says=agreed_in_words(*rows.agreed_of(d)), signed=d.signed is not None)
            for d in chosen.select_related("space").order_by("space_id", "pk")
        ],
        remarks=[_remark(r) for r in household.remark_set.select_related("design__space").order_by("settled", "-pk")],
    )  # fmt: skip


@router.get("/households/{household_id}/client", response=ClientView, operation_id="house_client")
def client(request: MemberRequest, household_id: PathId) -> ClientView:
    """For whom the work is, who may look, what they chose and said."""
    return _view(request, own_household(request.user, household_id))


class ClientChange(Schema):
    """For whom the work is done; empty for nobody but the household."""

    version: Version
    client: Annotated[str, StringConstraints(strip_whitespace=True, max_length=120), Seen]


@router.put("/households/{household_id}/client", response=ClientView, operation_id="house_change_client")
def change_client(request: MemberRequest, household_id: PathId, data: ClientChange) -> ClientView:
    """Say for whom the work is done."""
    return _view(request, actions.change_client(request.user, household_id, data.version, data.client))


class NewLink(Schema):
    """A link for a client, by name, for so many days."""

    note: TypedName
    days: Annotated[int, Field(ge=1, le=365)] = 30


@router.post(
    "/households/{household_id}/showings", response={201: ClientView}, operation_id="house_show",
    throttle=rates.households,
)  # fmt: skip
def show(request: MemberRequest, household_id: PathId, data: NewLink) -> tuple[int, ClientView]:
    """A link by which a client looks at the designs, without an account."""
    household, token = actions.show(request.user, household_id, data.note, data.days)
    return 201, _view(request, household, request.build_absolute_uri(f"/shown/{token}"))


@router.delete("/households/{household_id}/showings/{showing_id}", response=ClientView, operation_id="house_unshow")
def unshow(request: MemberRequest, household_id: PathId, showing_id: PathId) -> ClientView:
    """Take a client's link back."""
    return _view(request, actions.unshow(request.user, household_id, showing_id))


class Settled(Schema):
    """Whether a remark is settled."""

    settled: bool


@router.put("/households/{household_id}/remarks/{remark_id}", response=ClientView, operation_id="house_settle")
def settle(request: MemberRequest, household_id: PathId, remark_id: PathId, data: Settled) -> ClientView:
    """Settle what a client said, or take that back."""
    return _view(request, actions.settle(request.user, household_id, remark_id, data.settled))


@router.post("/designs/{design_id}/reopen", response=ClientView, operation_id="house_reopen")
def reopen(request: MemberRequest, design_id: PathId) -> ClientView:
    """Open a design again that was signed off, so that it may be changed."""
    return _view(request, actions.reopen(request.user, design_id).space.household)


class ShownLine(Schema):
    """A design as a client finds it in the list."""

    id: int
    title: str
    reason: str
    family: str
    holds: str
    cost: str
    chosen: bool
    signed: bool
    says: str
    elevation: Drawing


class ShownSpace(Schema):
    """A space with its designs."""

    id: int
    name: str
    designs: list[ShownLine]


class ShownView(Schema):
    """What a client's link shows."""

    household: str
    for_whom: str
    by: str
    expires: str
    currency: str
    spaces: list[ShownSpace]


class ShownDesign(Schema):
    """A design whole, as a client looks at it."""

    id: int
    version: int
    title: str
    reason: str
    family: str
    space: str
    cost: str
    currency: str
    flat: bool
    elevation: Drawing
    plan: Drawing
    parts: list[PartView]
    eyes: list[EyesView]
    unplaced: int
    chosen: bool
    signed: bool
    says: str
    remarks: list[RemarkView]


def _line(scene: Scene, row: models.Design) -> ShownLine | None:
    card = scene.card(row)
    if card is None:
        return None
    chosen, signed = rows.agreed_of(row)
    return ShownLine(
        id=row.pk, title=card.title, reason=card.reason, family=card.family, holds=card.holds, cost=card.cost,
        chosen=chosen is not None, signed=signed is not None, says=agreed_in_words(chosen, signed),
        elevation=card.elevation,
    )  # fmt: skip


def _shown(showing: models.Showing) -> ShownView:
    spaces = []
    for space in showing.household.space_set.filter(designs__isnull=False).distinct().order_by("pk"):
        scene = Scene(space)
        lines = [line for row in space.designs.order_by("pk") if (line := _line(scene, row)) is not None]
        if lines:
            spaces.append(ShownSpace(id=space.pk, name=space.name, designs=lines))
    return ShownView(
        household=showing.household.name, for_whom=showing.note, by=showing.by.get_username(),
        expires=showing.expires.date().isoformat(), currency=showing.household.currency, spaces=spaces,
    )  # fmt: skip


def _shown_design(row: models.Design) -> ShownDesign:
    scene = Scene(row.space)
    whole, cost = scene.design(row), bill(rows.history_of(row).current).total
    chosen, signed = rows.agreed_of(row)
    return ShownDesign(
        id=row.pk, version=row.version, title=whole.title, reason=whole.reason, family=whole.family,
        space=row.space.name, cost=figures(cost, scene.household.currency), currency=scene.household.currency,
        flat=whole.flat, elevation=whole.elevation, plan=whole.plan, parts=whole.parts, eyes=whole.eyes,
        unplaced=whole.ledger.unplaced, chosen=chosen is not None, signed=signed is not None,
        says=agreed_in_words(chosen, signed),
        remarks=[_remark(r) for r in row.remarks.select_related("design__space").order_by("pk")],
    )  # fmt: skip


@router.get("/shown/{token}", response=ShownView, auth=None, operation_id="house_shown", throttle=rates.links)
def shown(request: HttpRequest, token: str) -> HttpResponse:
    """All designs of a household, for a client with a link."""
    showing = actions.showing_at(token)
    return remembered(request, showing.household, lambda: _shown(showing))


@router.get(
    "/shown/{token}/designs/{design_id}", response=ShownDesign, auth=None, operation_id="house_shown_design",
    throttle=rates.links,
)  # fmt: skip
def shown_design(request: HttpRequest, token: str, design_id: PathId) -> HttpResponse:
    """A design whole, for a client with a link."""
    showing = actions.showing_at(token)
    row = actions.shown_design(showing, design_id)
    return remembered(request, showing.household, lambda: _shown_design(row))


@router.get(
    "/shown/{token}/designs/{design_id}/model.glb", auth=None, operation_id="house_shown_model", throttle=rates.links
)
def shown_model(request: HttpRequest, token: str, design_id: PathId) -> HttpResponse:
    """A design in three dimensions, for a client with a link."""
    row = actions.shown_design(actions.showing_at(token), design_id)
    scene = Scene(row.space)
    data = walkround(rows.history_of(row).current, scene.survey, scene.things)
    return HttpResponse(data, content_type="model/gltf-binary")


@router.get(
    "/shown/{token}/designs/{design_id}/sheet.pdf", auth=None, operation_id="house_shown_sheet", throttle=rates.links
)
def shown_sheet(request: HttpRequest, token: str, design_id: PathId) -> HttpResponse:
    """A design on paper at 1:20, for a client with a link."""
    return sheet_of(actions.shown_design(actions.showing_at(token), design_id), 20, "open")


class NewRemark(Schema):
    """What is said of a design; of one of its parts, where it is named."""

    text: Said
    part: Annotated[str, StringConstraints(max_length=120)] = ""


@router.post(
    "/shown/{token}/designs/{design_id}/remarks", response={201: ShownDesign}, auth=anyone,
    operation_id="house_shown_remark", throttle=rates.links,
)  # fmt: skip
def add_remark(request: HttpRequest, token: str, design_id: PathId, data: NewRemark) -> tuple[int, ShownDesign]:
    """A client says something of a design."""
    return 201, _shown_design(actions.remark(actions.showing_at(token), design_id, data.text, data.part))


class Choice(Schema):
    """Who chooses."""

    by: TypedName


@router.post(
    "/shown/{token}/designs/{design_id}/choose", response=ShownDesign, auth=anyone, operation_id="house_shown_choose",
    throttle=rates.links,
)  # fmt: skip
def choose(request: HttpRequest, token: str, design_id: PathId, data: Choice) -> ShownDesign:
    """A client chooses one of a space's designs."""
    return _shown_design(actions.choose(actions.showing_at(token), design_id, data.by))


class SignOff(Choice):
    """Who signs, and which version they saw."""

    version: Version


@router.post(
    "/shown/{token}/designs/{design_id}/sign-off", response=ShownDesign, auth=anyone, operation_id="house_shown_sign",
    throttle=rates.links,
)  # fmt: skip
def sign_off(request: HttpRequest, token: str, design_id: PathId, data: SignOff) -> ShownDesign:
    """A client signs a version of a design off."""
    return _shown_design(actions.sign_off(actions.showing_at(token), design_id, data.by, data.version))
