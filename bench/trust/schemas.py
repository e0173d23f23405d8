"""Ten thousand requests that schemathesis makes of the contract, over the network, half of them with ids of one's own."""

import json
import random
import re
import sys
from collections import Counter
from typing import Any

import schemathesis
from hypothesis import HealthCheck, Phase, given, seed, settings

from .server import ROOT, Person, server

REQUESTS = 10_000
LEFT = re.compile(r"/session(/end|/password|/email)?$|/end$|/session/demo$")


def main(requests: int = REQUESTS) -> None:
    """Prints how many broke the server; none is promised to."""
    schema = schemathesis.openapi.from_dict(json.loads((ROOT / "docs" / "openapi.json").read_text("utf-8")))
    operations = [o for o in (found.ok() for found in schema.get_all_operations()) if not LEFT.search(o.path)]
    chance, codes, broken = random.Random(19), Counter[int](), []
    with server() as one:
        ada = Person(one.url, "ada")
        ids = ada.closet()
        solve = ada.post(f"/spaces/{ids['space_id']}/solves").json()["id"]
        while ada.get(f"/solves/{solve}").json()["status"] in ("queued", "running"):
            pass
        ids["solve_id"] = solve
        ids["design_id"] = ada.get(f"/spaces/{ids['space_id']}/designs").json()["designs"][0]["id"]
        ids["thing_id"] = ada.get(f"/spaces/{ids['space_id']}/things").json()["things"][0]["id"]

        def send(case: Any) -> None:
            own = ids if chance.random() < 0.5 else {}
            path = re.sub(r"{(\w+)}", lambda m: str(own.get(m[1], case.path_parameters.get(m[1], 1))), case.path)
            body = case.body if isinstance(case.body, dict | list | str | int | float | bool) else None
            query = "&".join(f"{k}={v}" for k, v in (case.query or {}).items())
            answer = ada.send(case.method, f"{path.removeprefix('/api')}?{query}", body)
            codes[answer.status_code] += 1
            if answer.status_code >= 500:
                broken.append(f"{case.method} {case.path}")

        for operation in operations:
            bounded = settings(max_examples=max(1, requests // len(operations)), deadline=None, database=None,
                               phases=[Phase.generate], suppress_health_check=list(HealthCheck))  # fmt: skip
            seed(19)(bounded(given(operation.as_strategy())(send)))()
    print(f"schemas: {codes.total()} requests to {len(operations)} operations: {len(broken)} broke (promised 0), "
          f"answers {dict(sorted(codes.items()))} {broken[:3]}")  # fmt: skip


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else REQUESTS)
