"""Requests that schemathesis makes of the contract, for every operation: whatever is sent, nothing breaks."""

import json
import re
from pathlib import Path
from typing import Any

import schemathesis
from hypothesis import HealthCheck, Phase, given, seed, settings
from hypothesis.strategies import just

from pinakotheke.server import models

from .base import ServerTestCase

DOCUMENT = json.loads((Path(__file__).parents[2] / "docs" / "openapi.json").read_text("utf-8"))
EXAMPLES = 4
"""Of each operation here; `bench.trust.schemas` sends ten thousand over the network."""
BOUNDED = settings(
    max_examples=EXAMPLES, deadline=None, database=None, phases=[Phase.generate],
    suppress_health_check=list(HealthCheck),
)  # fmt: skip
LEFT = re.compile(r"/session(/end|/password|/email)?$|/end$|/session/demo$")
"""What would end the session or the household under the test's feet."""


class SchemaTests(ServerTestCase):
    def setUp(self) -> None:
        super().setUp()
        space = self.closet("width 1846; height 2412; depth 612; door none", "9 shirts; 5 jumpers")
        self.ada.post(f"/spaces/{space}/solves")
        self.ids = {
            "household_id": models.Household.objects.get().pk, "space_id": space,
            "design_id": models.Design.objects.latest("pk").pk, "thing_id": models.Thing.objects.latest("pk").pk,
            "solve_id": models.Solve.objects.latest("pk").pk,
        }  # fmt: skip

    def send(self, case: Any) -> int:
        """The status of a case that schemathesis made, with the ids of what is there."""
        path = re.sub(r"{(\w+)}", lambda m: str(self.ids.get(m[1], case.path_parameters.get(m[1], 1))), case.path)
        caller = self.ada.client
        headers = {"X-CSRFToken": caller.cookies["csrftoken"].value}
        body = case.body if isinstance(case.body, dict | list | str | int | float | bool) else {}
        query = {str(k): v for k, v in (case.query or {}).items()}
        if "multipart" in str(case.media_type or ""):
            body = json.dumps(body, default=str)
            answer = caller.generic(case.method, path, body, "multipart/form-data; boundary=x", headers=headers,
                                    query_params=query)  # fmt: skip
        else:
            answer = caller.generic(case.method, path, json.dumps(body, default=str), "application/json", headers=headers,
                                    query_params=query)  # fmt: skip
        return int(answer.status_code)

    def test_nothing_breaks(self) -> None:
        sent = 0
        for found in schemathesis.openapi.from_dict(DOCUMENT).get_all_operations():
            operation: Any = found.ok()
            if LEFT.search(operation.path):
                continue
            codes: list[int] = []

            def each(case: Any, codes: list[int]) -> None:
                codes.append(self.send(case))

            with self.subTest(f"{operation.method} {operation.path}"):
                seed(19)(BOUNDED(given(operation.as_strategy(), just(codes))(each)))()
                self.assertLess(max(codes), 500, codes)
            sent += len(codes)
        self.assertGreater(sent, 500)
