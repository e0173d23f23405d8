"""Every endpoint of the contract, asked by a stranger with another household's ids: how many reach anything."""

import json
import re

from .server import ROOT, Person, server


def main() -> None:
    """Prints how many of all endpoints × ids were reached; 0 is promised."""
    contract = json.loads((ROOT / "docs" / "openapi.json").read_text("utf-8"))["paths"]
    with server() as one:
        ada, eve = Person(one.url, "ada"), Person(one.url, "eve")
        ids = ada.closet()
        space = ids["space_id"]
        solve = ada.post(f"/spaces/{space}/solves").json()["id"]
        while ada.get(f"/solves/{solve}").json()["status"] in ("queued", "running"):
            pass
        design = ada.get(f"/spaces/{space}/designs").json()["designs"][0]["id"]
        place = ada.post(f"/spaces/{space}/places", {"name": "Shelf"}).json()["places"][0]["id"]
        ids |= {"solve_id": solve, "design_id": design, "place_id": place, "other_id": design,
                "thing_id": ada.get(f"/spaces/{space}/things").json()["things"][0]["id"]}  # fmt: skip
        member = ada.get(f"/households/{ids['household_id']}/members").json()["members"][0]["id"]
        ids |= {"member_id": member, "invitation_id": 1, "photo_id": 1, "import_id": 1}
        before = ada.get(f"/households/{ids['household_id']}/house-file").text
        tried, reached, broken = 0, [], []
        for path, methods in contract.items():
            named = re.findall(r"{(\w+)}", path)
            if not set(named) & set(ids):
                continue
            address = re.sub(r"{(\w+)}", lambda m: str(ids.get(m[1], 1)), path).removeprefix("/api")
            for method in methods:
                for data in ({}, {"version": 1, "name": "mine"}):
                    for query in ("", f"?designs={design}&version=1"):
                        tried += 1
                        answer = eve.send(method.upper(), address + query, None if method == "get" else data)
                        if answer.status_code < 400:
                            reached.append(f"{method} {path}")
                        if answer.status_code >= 500:
                            broken.append(f"{method} {path}")
        same = ada.get(f"/households/{ids['household_id']}/house-file").text == before
        print(f"reach: {len(reached)} of {tried} reached (promised 0), {len(broken)} broke (0), "
              f"the household is {'as it was' if same else 'CHANGED'} {reached[:3]} {broken[:3]}")  # fmt: skip


if __name__ == "__main__":
    main()
