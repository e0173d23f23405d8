"""Rows. Every row belongs to one household; geometry is JSON, validated by the core models in `rows`."""

from uuid import uuid4

from django.conf import settings
from django.db import models


class Versioned(models.Model):
    """A row that is saved only on top of the version it was read at."""

    version = models.PositiveIntegerField(default=1)

    class Meta:
        abstract = True


class Household(Versioned):
    """A household: its members see all of it, others none of it."""

    name = models.CharField(max_length=120)
    units = models.CharField(max_length=8, default="metric")
    currency = models.CharField(max_length=3, default="EUR")
    rules = models.JSONField(default=dict)
    is_demo = models.BooleanField(default=False)
    """The demo household that nobody enters, or a visitor's copy of it."""
    expires = models.DateTimeField(null=True)
    """Of a visitor's copy of the demo: when it is cleared away."""
    client = models.CharField(max_length=120, blank=True, default="")
    """Of an organizer's household: for whom the work is done."""
    sawing = models.JSONField(default=list)
    """What was sawn: the core's `Sawn`, in the order of the work."""
    price_lists = models.JSONField(default=list)
    """Suppliers' lists that were brought: the core's `PriceList`."""
    created = models.DateTimeField(auto_now_add=True)
    members = models.ManyToManyField(settings.AUTH_USER_MODEL, through="Membership", related_name="households")


class Role(models.TextChoices):
    """What a member of a household may do; each may do what the one before may."""

    GUEST = "guest"
    """Looks."""
    MEMBER = "member"
    """Works in it."""
    ORGANIZER = "organizer"
    """Lets others in and out, and shows it to clients."""
    OWNER = "owner"
    """Hands it over, and deletes it."""


class Membership(models.Model):
    """A user of a household, in a role."""

    household = models.ForeignKey(Household, on_delete=models.CASCADE)
    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE)
    role = models.CharField(max_length=10, choices=Role, default=Role.MEMBER)
    since = models.DateTimeField(auto_now_add=True, null=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["household", "user"], name="member_once")]


class Invitation(models.Model):
    """Into a household: for a registered user, or for whoever holds its link; only the link's digest is kept."""

    household = models.ForeignKey(Household, on_delete=models.CASCADE, related_name="invitations")
    role = models.CharField(max_length=10, choices=Role)
    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, null=True, related_name="invitations")
    note = models.CharField(max_length=120, blank=True, default="")
    """For whom, where it is a link."""
    digest = models.CharField(max_length=64, unique=True)
    hands_over = models.BooleanField(default=False)
    """Who accepts it becomes the owner; who made it steps back to organizer."""
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="+")
    at = models.DateTimeField(auto_now_add=True)
    expires = models.DateTimeField()


class Showing(models.Model):
    """A link by which a client looks at a household's designs without an account; only its digest is kept."""

    household = models.ForeignKey(Household, on_delete=models.CASCADE, related_name="showings")
    note = models.CharField(max_length=120)
    """For whom it is: what they say and sign stands under this name."""
    digest = models.CharField(max_length=64, unique=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE, related_name="+")
    at = models.DateTimeField(auto_now_add=True)
    seen = models.DateTimeField(null=True)
    expires = models.DateTimeField()


class Answered(models.Model):
    """What a creating request was answered, by the key its sender gave it: sent again, it is answered the same."""

    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE)
    key = models.CharField(max_length=64)
    asked = models.CharField(max_length=64)
    """A digest of the method, the address and the body."""
    status = models.PositiveSmallIntegerField(default=0)
    body = models.BinaryField(default=b"")
    """Of the answer, packed."""
    at = models.DateTimeField(auto_now_add=True, db_index=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["user", "key"], name="answered_once")]


class Worker(models.Model):
    """A worker that carries out searches, and when it was last heard of."""

    name = models.CharField(max_length=120, unique=True)
    heard = models.DateTimeField()


class Owned(models.Model):
    """A row of a household, named by a key that is unique in it and stands in the house file."""

    household = models.ForeignKey(Household, on_delete=models.CASCADE)
    key = models.CharField(max_length=64)

    class Meta:
        abstract = True


class Person(Owned):
    """Someone who lives there."""

    name = models.CharField(max_length=120)
    stature = models.FloatField()
    posture = models.CharField(max_length=10)
    age = models.CharField(max_length=10)
    hand = models.CharField(max_length=6, default="right")
    pronoun = models.CharField(max_length=6, blank=True, default="")
    kept_from = models.JSONField(null=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["household", "key"], name="person_key")]


class Space(Owned, Versioned):
    """A space; `facts` is its survey without the readings."""

    name = models.CharField(max_length=120)
    facts = models.JSONField(default=dict)
    use = models.JSONField(default=dict)
    practice = models.JSONField(null=True)
    """Of a practice room: its seed, its difficulty, and whether the truth has been shown."""
    install = models.JSONField(null=True)
    """How it is installed; null where nobody said."""

    class Meta:
        constraints = [models.UniqueConstraint(fields=["household", "key"], name="space_key")]


class Range(Owned, Versioned):
    """A range of parts of the household's own; `data` is the core's, without its key."""

    data = models.JSONField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["household", "key"], name="range_key")]


class Container(Owned):
    """A container the household can buy; `data` is the core's, without its key."""

    data = models.JSONField()

    class Meta:
        constraints = [models.UniqueConstraint(fields=["household", "key"], name="container_key")]


class Reading(models.Model):
    """One number called out at one place."""

    space = models.ForeignKey(Space, on_delete=models.CASCADE, related_name="readings")
    key = models.CharField(max_length=64)
    section = models.CharField(max_length=64, default="A")
    what = models.CharField(max_length=24)
    level = models.CharField(max_length=8, null=True)
    face = models.CharField(max_length=8, null=True)
    side = models.CharField(max_length=8, null=True)
    at = models.FloatField(null=True)
    out = models.FloatField(null=True)
    value = models.FloatField()
    called = models.CharField(max_length=200, blank=True)
    instrument = models.CharField(max_length=12)
    hand = models.CharField(max_length=200, blank=True)
    taken = models.CharField(max_length=40, blank=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["space", "key"], name="reading_key")]


class Arrival(models.Model):
    """A message of a device that was offline, by the key the device gave it: it is carried out once, however often
    it comes.
    """

    space = models.ForeignKey(Space, on_delete=models.CASCADE, related_name="arrivals")
    device_key = models.CharField(max_length=64)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["space", "device_key"], name="arrival_once")]


def photo_path(photo: "Photo", _: str) -> str:
    """Where a photo's file lies: by household, under a name nobody can guess."""
    return f"photos/{photo.space.household_id}/{uuid4().hex}.jpg"


class Photo(models.Model):
    """A photograph of a space, a file of its household."""

    space = models.ForeignKey(Space, on_delete=models.CASCADE, related_name="photos")
    file = models.FileField(upload_to=photo_path)
    note = models.CharField(max_length=200, blank=True)
    moment = models.CharField(max_length=8, default="survey")
    """When: `before` the work, `after` it, or while measuring; of a group: `thing`; of a step of the work: `step`."""
    design = models.ForeignKey("Design", on_delete=models.SET_NULL, null=True, related_name="photos")
    step = models.CharField(max_length=120, blank=True, default="")
    """Of a photo of the work: which step of which design."""
    device_key = models.CharField(max_length=64, blank=True, default="")
    """Given by the device that sent it: sent again, it is kept once."""
    thing = models.ForeignKey("Thing", on_delete=models.CASCADE, null=True, related_name="photos")
    taken = models.DateTimeField(auto_now_add=True)


class Thing(Owned, Versioned):
    """A group of like things."""

    space = models.ForeignKey(Space, on_delete=models.SET_NULL, null=True, related_name="things")
    name = models.CharField(max_length=240)
    kind = models.CharField(max_length=40)
    count = models.PositiveIntegerField()
    owner = models.CharField(max_length=64, blank=True)
    frequency = models.CharField(max_length=12)
    decision = models.CharField(max_length=12)
    way = models.CharField(max_length=8, null=True)
    size = models.JSONField(null=True)
    mass = models.FloatField(null=True)
    note = models.CharField(max_length=500, blank=True)
    label = models.CharField(max_length=80, blank=True, default="")
    together = models.CharField(max_length=40, blank=True, default="")
    pin_space = models.CharField(max_length=64, blank=True, default="")
    pin_band = models.CharField(max_length=6, null=True)
    container = models.CharField(max_length=64, blank=True, default="")
    unsure = models.CharField(max_length=6, blank=True, default="")

    class Meta:
        constraints = [models.UniqueConstraint(fields=["household", "key"], name="thing_key")]


class Word(models.Model):
    """What a household calls a kind of thing, learned when somebody said what a name means."""

    household = models.ForeignKey(Household, on_delete=models.CASCADE)
    word = models.CharField(max_length=240)
    kind = models.CharField(max_length=40)
    size = models.JSONField(null=True)
    mass = models.FloatField(null=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["household", "word"], name="house_word")]


class Stock(Owned):
    """Containers and furniture the household has already."""

    name = models.CharField(max_length=120)
    kind = models.CharField(max_length=10)
    count = models.PositiveIntegerField()
    size = models.JSONField()
    lid = models.CharField(max_length=6)
    grade = models.CharField(max_length=20, default="particleboard")
    space = models.CharField(max_length=64, blank=True)
    note = models.CharField(max_length=200, blank=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["household", "key"], name="owned_key")]


class MoneyEntry(Owned):
    """Money ordered, received or returned for one space."""

    space = models.CharField(max_length=64)
    kind = models.CharField(max_length=10)
    amount = models.DecimalField(max_digits=10, decimal_places=2)
    what = models.CharField(max_length=200, blank=True, default="")
    on = models.CharField(max_length=10, blank=True, default="")

    class Meta:
        constraints = [models.UniqueConstraint(fields=["household", "key"], name="money_key")]


class Tick(Owned):
    """A step done at the wall, or found not to be as drawn; its key is made by the device that ticked it, so that sent
    twice it is kept once.
    """

    space = models.ForeignKey(Space, on_delete=models.CASCADE, related_name="ticks")
    design = models.CharField(max_length=64)
    step = models.CharField(max_length=120)
    minutes = models.FloatField(null=True)
    estimate = models.FloatField(default=0)
    note = models.CharField(max_length=500, blank=True, default="")
    amiss = models.BooleanField(default=False)
    on = models.CharField(max_length=40, blank=True, default="")
    by = models.CharField(max_length=150, blank=True, default="")

    class Meta:
        constraints = [models.UniqueConstraint(fields=["household", "key"], name="tick_key")]


class Place(Owned):
    """A place that things are put back into: one of a design that was put up, or one that somebody named."""

    space = models.ForeignKey(Space, on_delete=models.CASCADE, related_name="places")
    name = models.CharField(max_length=120)
    design = models.CharField(max_length=64, blank=True, default="")
    part = models.CharField(max_length=120, blank=True, default="")
    box = models.CharField(max_length=120, blank=True, default="")
    height = models.FloatField(null=True)
    printed = models.CharField(max_length=1000, blank=True, default="")
    printed_on = models.CharField(max_length=10, blank=True, default="")
    filled_on = models.CharField(max_length=10, blank=True, default="")

    class Meta:
        constraints = [models.UniqueConstraint(fields=["household", "key"], name="place_key")]


class Stay(Owned):
    """So many of a thing in a place; `lent_to` whom they are with instead."""

    place = models.ForeignKey(Place, on_delete=models.CASCADE, related_name="stays")
    thing = models.ForeignKey(Thing, on_delete=models.CASCADE, related_name="stays")
    count = models.PositiveIntegerField()
    lent_to = models.CharField(max_length=120, blank=True, default="")
    lent_on = models.CharField(max_length=10, blank=True, default="")

    class Meta:
        constraints = [
            models.UniqueConstraint(fields=["household", "key"], name="stay_key"),
            models.UniqueConstraint(fields=["place", "thing"], name="stay_once"),
        ]


class Supply(Owned):
    """A thing that is used up and bought again: how much of it is kept, and where it is bought."""

    thing = models.OneToOneField(Thing, on_delete=models.CASCADE, related_name="supply")
    lasting = models.BooleanField(default=True)
    spare = models.PositiveIntegerField(default=1)
    days = models.PositiveIntegerField(null=True)
    shop = models.CharField(max_length=80, blank=True, default="")
    pack = models.PositiveIntegerField(default=1)
    keeps = models.PositiveIntegerField(null=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["household", "key"], name="supply_key")]


class Movement(Owned):
    """What was bought, opened, finished, thrown away or counted of a supply; its key is made by the device that ticked it,
    so that sent twice it is kept once.
    """

    supply = models.ForeignKey(Supply, on_delete=models.CASCADE, related_name="movements")
    did = models.CharField(max_length=10)
    count = models.PositiveIntegerField(default=1)
    on = models.CharField(max_length=10)
    best_before = models.CharField(max_length=10, blank=True, default="")

    class Meta:
        constraints = [models.UniqueConstraint(fields=["household", "key"], name="movement_key")]


class Swap(Owned):
    """Things that take turns in their places by the season; `rows` are the core's."""

    name = models.CharField(max_length=240)
    begins = models.CharField(max_length=5)
    ends = models.CharField(max_length=5)
    rows = models.JSONField(default=list)
    now = models.CharField(max_length=6, default="after")

    class Meta:
        constraints = [models.UniqueConstraint(fields=["household", "key"], name="swap_key")]


class Review(Owned):
    """A space was looked at on a day: what was seen, and when it is looked at again."""

    space = models.ForeignKey(Space, on_delete=models.CASCADE, related_name="reviews")
    on = models.CharField(max_length=10)
    next_on = models.CharField(max_length=10, blank=True, default="")
    answers = models.JSONField(default=list)
    was = models.JSONField(default=list)
    """What the things were that it changed, so that it can be taken back."""

    class Meta:
        constraints = [models.UniqueConstraint(fields=["household", "key"], name="review_key")]


class Leaving(Owned):
    """Where a thing that leaves goes, and by when, where somebody said so."""

    thing = models.OneToOneField(Thing, on_delete=models.CASCADE, related_name="leaving")
    to = models.CharField(max_length=200, blank=True, default="")
    by = models.CharField(max_length=10, blank=True, default="")

    class Meta:
        constraints = [models.UniqueConstraint(fields=["household", "key"], name="leaving_key")]


class Hunt(Owned):
    """A game of finding things against time, before or after the work."""

    space = models.ForeignKey(Space, on_delete=models.CASCADE, related_name="hunts")
    moment = models.CharField(max_length=6)
    on = models.CharField(max_length=10)
    finds = models.JSONField(default=list)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["household", "key"], name="hunt_key")]


class Before(Owned):
    """What somebody noted of a space before the work."""

    space = models.OneToOneField(Space, on_delete=models.CASCADE, related_name="before")
    pieces = models.PositiveIntegerField(null=True)
    floor = models.FloatField(null=True)
    rail = models.FloatField(null=True)
    shelf = models.FloatField(null=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["household", "key"], name="before_key")]


class WorkSession(Owned):
    """A session of work in one space: a goal and a time box."""

    space = models.ForeignKey(Space, on_delete=models.CASCADE, related_name="work")
    goal = models.CharField(max_length=200)
    minutes = models.PositiveIntegerField()
    done = models.BooleanField(default=False)
    spent = models.PositiveIntegerField(null=True)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["household", "key"], name="session_key")]


class Solve(models.Model):
    """A search for alternatives: asked for here, carried out by a worker."""

    class Status(models.TextChoices):
        QUEUED = "queued"
        RUNNING = "running"
        DONE = "done"
        CANCELLED = "cancelled"
        FAILED = "failed"

    space = models.ForeignKey(Space, on_delete=models.CASCADE, related_name="solves")
    status = models.CharField(max_length=10, choices=Status, default=Status.QUEUED)
    progress = models.FloatField(default=0)
    message = models.CharField(max_length=200, blank=True)
    cancel_requested = models.BooleanField(default=False)
    ask = models.JSONField(default=dict)
    """What was asked for: weights, finish, budget, families, and the design whose locked parts stay."""
    blocked = models.JSONField(null=True)
    frontier = models.JSONField(default=list)
    """The core's points, each with its design."""
    sensitivities = models.JSONField(default=list)
    problem = models.TextField(blank=True)
    asked = models.DateTimeField(auto_now_add=True)
    heard = models.DateTimeField(auto_now=True)

    @property
    def is_over(self) -> bool:
        """Whether nothing more will come of it."""
        return self.status in (self.Status.DONE, self.Status.CANCELLED, self.Status.FAILED)


class Design(Versioned):
    """An alternative and the edits since; `base`, `done` and `undone` are the core's History."""

    space = models.ForeignKey(Space, on_delete=models.CASCADE, related_name="designs")
    key = models.CharField(max_length=64)
    base = models.JSONField()
    done = models.JSONField(default=list)
    undone = models.JSONField(default=list)
    kept = models.BooleanField(default=False)
    """A version someone named, or that a client spoke of: a new search leaves it."""
    chosen = models.JSONField(null=True)
    """By a client: the core's `Agreed`."""
    signed = models.JSONField(null=True)
    """Signed off by a client: it stays as it is."""
    solve = models.ForeignKey(Solve, on_delete=models.SET_NULL, null=True, related_name="designs")

    class Meta:
        constraints = [models.UniqueConstraint(fields=["space", "key"], name="design_key")]


class Remark(Owned):
    """What a client said of a design, or of one of its parts."""

    design = models.ForeignKey(Design, on_delete=models.CASCADE, related_name="remarks")
    by = models.CharField(max_length=240)
    on = models.CharField(max_length=10)
    text = models.CharField(max_length=1000)
    part = models.CharField(max_length=120, blank=True, default="")
    about = models.CharField(max_length=160, blank=True, default="")
    """The part as it was called then."""
    settled = models.BooleanField(default=False)

    class Meta:
        constraints = [models.UniqueConstraint(fields=["household", "key"], name="remark_key")]


def import_path(row: "HouseImport", _: str) -> str:
    """Where a house file waits to be read, under a name nobody can guess."""
    return f"imports/{uuid4().hex}.json"


class HouseImport(models.Model):
    """A house file that someone brought: read by a worker, and then gone."""

    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.CASCADE)
    file = models.FileField(upload_to=import_path)
    status = models.CharField(max_length=8, default="waiting")
    """waiting, done or refused."""
    household = models.ForeignKey(Household, on_delete=models.SET_NULL, null=True)
    problem = models.TextField(blank=True)
    faults = models.JSONField(default=list)
    at = models.DateTimeField(auto_now_add=True)


class LogEntry(models.Model):
    """What was done, by whom, when."""

    household = models.ForeignKey(Household, on_delete=models.CASCADE, related_name="log")
    at = models.DateTimeField(auto_now_add=True)
    user = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.SET_NULL, null=True)
    action = models.CharField(max_length=40)
    detail = models.JSONField(default=dict)
