"""Photographs of a space: re-encoded, so that nothing but the picture is kept."""

from io import BytesIO
from threading import Lock

from django.core.files.base import ContentFile
from django.db import transaction
from PIL import Image, ImageOps, UnidentifiedImageError

from .. import models
from .base import Invalid, NotFound, User, log, own_space

MOST_BYTES = 12_000_000
LONGEST_SIDE = 1600
MOST_PHOTOS = 120
MOST_PIXELS = 24_500_000
"""24 million, and the odd rows a camera adds."""
_ONE_AT_A_TIME = Lock()
"""A decoded photo takes 100 MB: of many that arrive at once, one is in memory at a time."""


def own_photo(user: User, photo_id: int) -> models.Photo:
    """A photo of one of this member's households."""
    found = models.Photo.objects.select_related("space__household").filter(space__household__members=user.pk)
    photo = found.filter(pk=photo_id).first()
    if photo is None:
        raise NotFound("photo")
    return photo


@transaction.atomic
def add_photo(user: User, space_id: int, data: bytes, note: str, moment: str = "survey", thing: int | None = None, *,
              design: int | None = None, step: str = "", key: str = "") -> models.Photo:  # fmt: skip
    """Keep a photo with a space: turned upright, shrunk, without what the camera wrote beside it. Sent again by the same
    key it is the one that was kept.
    """
    row = own_space(user, space_id)
    there = row.photos.filter(device_key=key).first() if key else None
    if there is not None:
        return there
    if row.photos.count() >= MOST_PHOTOS:
        raise Invalid("photo.too-many", most=MOST_PHOTOS)
    group = row.things.filter(pk=thing).first() if thing is not None else None
    if thing is not None and group is None:
        raise NotFound("thing")
    shown = row.designs.filter(pk=design).first() if design is not None else None
    if design is not None and shown is None:
        raise NotFound("design")
    with _ONE_AT_A_TIME:
        picture = _upright_jpeg(data)
    photo = models.Photo(space=row, note=note, moment="thing" if group else moment, thing=group, design=shown, step=step,
                         device_key=key)  # fmt: skip
    photo.file.save("photo.jpg", ContentFile(picture), save=False)
    photo.save()
    log(row.household, user, "photo.add", key=row.key)
    return photo


@transaction.atomic
def remove_photo(user: User, photo_id: int) -> models.Space:
    """Take a photo away, its file too."""
    photo = own_photo(user, photo_id)
    space = photo.space
    storage, path = photo.file.storage, photo.file.name
    photo.delete()
    transaction.on_commit(lambda: storage.delete(path or ""))
    log(space.household, user, "photo.remove", key=space.key)
    return space


def _upright_jpeg(data: bytes) -> bytes:
    if len(data) > MOST_BYTES:
        raise Invalid("photo.too-large")
    try:
        with Image.open(BytesIO(data), formats=("JPEG", "PNG", "WEBP")) as opened:
            if opened.width * opened.height > MOST_PIXELS:
                raise Invalid("photo.too-many-pixels")
            # A JPEG is decoded at the half or quarter that is enough.
            opened.draft("RGB", (LONGEST_SIDE, LONGEST_SIDE))
            picture = ImageOps.exif_transpose(opened).convert("RGB")
    except (UnidentifiedImageError, OSError, ValueError, Image.DecompressionBombError):
        raise Invalid("photo.none") from None
    picture.thumbnail((LONGEST_SIDE, LONGEST_SIDE))
    out = BytesIO()
    picture.save(out, "JPEG", quality=82)
    return out.getvalue()
