"""The families that ship: each module with subclasses of `Family` that have an id is found by itself."""

from importlib import import_module
from pkgutil import iter_modules

from ..family import Family


def shipped() -> dict[str, Family]:
    """One of each family, by id, in a fixed order."""
    for module in iter_modules(__path__):
        import_module(f"{__name__}.{module.name}")
    found: list[type[Family]] = []
    waiting = list(Family.__subclasses__())
    while waiting:
        kind = waiting.pop(0)
        waiting += kind.__subclasses__()
        if isinstance(getattr(kind, "id", None), str) and kind.__module__.startswith(__name__):
            found.append(kind)
    return {kind.id: kind() for kind in sorted(found, key=lambda k: k.id)}
