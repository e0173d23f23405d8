"""One person in the demo household: the gallery, the house file, the homes; and 5,000 things changed at once."""

import time
from statistics import median

from .server import Person, server


def _timed(act) -> tuple[float, float]:  # type: ignore[no-untyped-def]
    times = []
    for _ in range(10):
        began = time.perf_counter()
        assert act().status_code == 200
        times.append((time.perf_counter() - began) * 1000)
    return times[0], median(times[1:])


def main() -> None:
    """Prints the medians beside what is promised."""
    with server(demo=True) as one:
        visitor = Person(one.url)
        began = time.perf_counter()
        home = visitor.post("/session/demo").json()["households"][0]["id"]
        one.kill(one.worker)  # one user, and nothing else
        print(f"speeds: a copy of the demo household in {time.perf_counter() - began:.2f} s")
        space = visitor.get(f"/households/{home}").json()["spaces"][0]["id"]
        asked = (("gallery", f"/spaces/{space}/designs", 60), ("homes", f"/households/{home}/homes", 100),
                 ("house file", f"/households/{home}/house-file", 200))  # fmt: skip
        for name, path, promised in asked:
            first, again = _timed(lambda p=path: visitor.get(p))
            print(f"speeds: {name} {again:.0f} ms (promised {promised}); first after a change {first:.0f} ms")
        ada = Person(one.url, "ada")
        ids = ada.closet()
        for _ in range(10):
            ada.post(f"/spaces/{ids['space_id']}/things", {"line": "; ".join(["2 shirts"] * 399)})
        things = ada.get(f"/spaces/{ids['space_id']}/things").json()["things"]
        began = time.perf_counter()
        changed = {"ids": [t["id"] for t in things], "decision": "sell"}
        done = ada.post(f"/households/{ids['household_id']}/things/change", changed).json()["changed"]
        print(f"speeds: {done} things changed at once in {time.perf_counter() - began:.2f} s (promised 1)")


if __name__ == "__main__":
    main()
