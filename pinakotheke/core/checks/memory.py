"""What was found before in sections that an edit left alone: only what it touched is judged again."""

from ..layout import Design
from .check import Case, Check
from .findings import Finding

Seen = tuple[object, ...]


class Memory:
    """The findings of each section by what they rest on: the very parts, bays and things that were judged.

    Edits leave what they do not touch as it is, the same objects, so *the same* is asked by identity, which costs nothing.
    """

    def __init__(self) -> None:
        self._kept: dict[tuple[int, str], tuple[Seen, tuple[Finding, ...]]] = {}
        self._of: tuple[Case, dict[str, Seen]] | None = None
        self._cases: dict[str, tuple[Seen, Case]] = {}

    def findings(self, case: Case, check: Check) -> tuple[Finding, ...]:
        """Those of a check: of a section as long as nothing in it changed, of a survey as long as it is the same."""
        if check.of == "design":
            return tuple(check.run(case))
        if check.of == "survey":
            return self._found(check, "", (case.survey, case.envelopes), case)
        found: list[Finding] = []
        for section, seen in self._sections(case).items():
            found += self._found(check, section, seen, self._alone(case, section, seen))
        return tuple(found)

    def _found(self, check: Check, section: str, seen: Seen, case: Case) -> tuple[Finding, ...]:
        kept = self._kept.get((id(check), section))
        if kept is None or not _is_same(kept[0], seen):
            self._kept[id(check), section] = kept = (seen, tuple(check.run(case)))
        return kept[1]

    def _sections(self, case: Case) -> dict[str, Seen]:
        """What each section of a case rests on, once for all checks."""
        if self._of is None or self._of[0] is not case:
            self._of = case, {section: _rests_on(case, section) for section in case.made.sections}
        return self._of[1]

    def _alone(self, case: Case, section: str, seen: Seen) -> Case:
        """The case of one section, one for all checks that ask for it."""
        kept = self._cases.get(section)
        if kept is None or not _is_same(kept[0], seen):
            self._cases[section] = kept = (seen, case.only(section))
        return kept[1]


def _rests_on(case: Case, section: str) -> Seen:
    design: Design = case.made
    ids = {p.id for p in design.parts if p.section == section}
    return (
        case.survey, case.things, case.people, case.limits, case.house, design.rules, design.finish, design.ranges,
        *(p for p in design.parts if p.section == section),
        *(b for b in design.bays if b.section == section),
        *(a for a in design.assignments if a.part in ids),
    )  # fmt: skip


def _is_same(one: Seen, other: Seen) -> bool:
    return len(one) == len(other) and all(a is b for a, b in zip(one, other, strict=True))
