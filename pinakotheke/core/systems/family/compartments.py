"""What a family can hold: the parts inside its bays, how much goes in, and what they take of the bay."""

from ...tables import value
from ..parts import Bay, OnPart, Part, Surface
from ..roles import FRONTS, HANGING, PULL_OUTS, Role
from ..standing import rail_distance
from .basis import Basis


class Compartments(Basis):
    """What stands inside the bays of a family."""

    def capacity(self, role: Role, bay: Bay) -> float:
        """mm of rail or shelf, or mm² of drawer floor. Of what hangs on hooks the last one asks for no room beside it."""
        kind, width = self.spec(role).capacity, self.clear_width(role, bay)
        return {
            "width": width + (value("fold.between") if role == "hooks" else 0),
            "area": width * self.clear_depth(role, bay),
            "depth": float(bay.depth),
        }[kind]

    def rating(self, part: Part, bay: Bay) -> float:
        """Kilograms everything in a compartment may weigh together."""
        spec = self.spec(part.role)
        return spec.rating_per_m * part.w / 1000 if spec.rating_per_m else spec.rating

    def clear_width(self, role: Role, bay: Bay) -> float:
        """Width in mm that things have inside a compartment of this role."""
        trim = bay.trim if role in PULL_OUTS else 0
        return float(
            bay.w - trim - self.spec(role).sides - sum(min(c[1], bay.x + bay.w) - max(c[0], bay.x) for c in bay.cuts)
        )

    def clear_depth(self, role: Role, bay: Bay) -> float:
        """Depth in mm that things have in a compartment of this role."""
        return float((bay.hang_depth if role in HANGING else bay.depth) - self.spec(role).back)

    def board_depths(self, bay: Bay) -> tuple[int, ...]:
        """Depths to which a shelf of a bay may be cut, the least first; none where shelves come in one depth."""
        return ()

    def placed(self, bay: Bay, part_id: str, role: Role, z: int, height: int = 0) -> Part:
        """A holding part (or a cover) standing in a bay, its foot at z."""
        like: Role = "shelf" if role == "cover" and "shelf" in self.specs else role
        y, d, h = bay.y, bay.depth, height or self.height(like, bay)
        if role in ("rail", "tie rack"):
            # The tube alone: its centre stands at the hanging distance from the wall.
            y, d = bay.y + rail_distance(bay) - h // 2, h
        kind = self._article("shelf" if role == "cover" else role, bay)
        return Part(id=part_id, item=f"{self.id}.{kind.replace(' ', '-')}", role=role, section=bay.section,
                    bay=bay.index, x=bay.x, y=y, z=z, w=bay.w, d=d, h=h, fixed_to=self.carrier(bay),
                    cuts=bay.cuts if role in ("shelf", "base", "cover", "floor", "hooks") else (),
                    make=bay.shelves if self.is_cut(like, bay) and not bay.shelves.is_usual else None)  # fmt: skip

    def _article(self, kind: str, bay: Bay) -> str:
        """The article a part is bought as: with another front, or open instead of a board, where there is one."""
        own = {"drawer": f"{bay.fronts}-drawer", "shelf": "wire-shelf" if bay.open_boards else "",
               "shoe shelf": "sloped-shoe-shelf" if bay.sloped else ""}.get(kind, "")  # fmt: skip
        return own if own in self.table.price else kind

    def carrier(self, bay: Bay) -> Surface | OnPart:
        """What carries what is in a bay."""
        return OnPart(part=f"frame-{bay.index + 1}")

    def meets_sides(self, part: Part, bay: Bay) -> bool:
        """Whether a part reaches from side to side of its bay, or is carried otherwise."""
        return part.x == bay.x and part.x + part.w == bay.x + bay.w

    def foot(self, bay: Bay) -> int:
        """From where a bay's compartments may begin along its axis: with its base, if it has one."""
        return bay.z0 - (self.spec("base").height if bay.has_base else 0)

    def peg(self, part: Part) -> float:
        """Height of the pegs of a hook board: things hang down from there."""
        return float(part.z + self.spec(part.role).peg)

    def takes(self, part: Part, clear: float) -> tuple[float, float]:
        """From and to along the bay's axis that a holding part and its contents take; `clear` is the height of the
        tallest thing in it with the room to get it out.
        """
        above = self.spec(part.role).above
        if part.role == "hooks":
            # What hangs on a peg is lifted off it: the room for that is above the peg, not below the thing.
            lift = value("fold.over_box")
            return min(self.peg(part) - max(clear - lift, 0), float(part.z)), float(part.z + part.h + above)
        if part.role in HANGING:
            return part.z - max(clear - above, 0), float(part.z + part.h + above)
        if part.role in FRONTS:
            return float(part.z), float(part.z + part.h)
        return float(part.z), part.z + part.h + max(clear, 0)
