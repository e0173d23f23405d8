"""Fifty people at once, with searches running, on one box as `deploy/` sets it up: how long reads and writes take."""

import random
import threading
import time

import requests

from .server import Person, server

PEOPLE, SECONDS = 50, 60
THINKING_S = (1.0, 5.0)
"""A person reads or types for a while before the next request. *Common practice* of load tests, from memory."""


def main() -> None:
    """Prints the 95th percentile of reads and of writes, errors and resets."""
    with server() as one:
        people = [Person(one.url, f"p{n}") for n in range(PEOPLE)]
        closets = [who.closet() for who in people]
        times: dict[str, list[float]] = {"read": [], "write": []}
        wrong: list[str] = []
        over = threading.Event()

        def live(n: int) -> None:
            who, ids, chance = people[n], closets[n], random.Random(n)
            space, home = ids["space_id"], ids["household_id"]
            reads = (f"/spaces/{space}", f"/spaces/{space}/things", f"/spaces/{space}/ledger", f"/households/{home}",
                     f"/spaces/{space}/designs")  # fmt: skip
            if n < 6:
                who.post(f"/spaces/{space}/solves")
            while not over.is_set():
                time.sleep(chance.uniform(*THINKING_S))
                writes = chance.random() < 0.3
                began = time.perf_counter()
                try:
                    answer = (who.post(f"/spaces/{space}/things", {"line": "2 shirts"}) if writes
                              else who.get(chance.choice(reads)))  # fmt: skip
                    if answer.status_code >= 400:
                        wrong.append(f"{answer.status_code} {answer.text[:80]}")
                except requests.RequestException as error:
                    wrong.append(repr(error)[:80])
                times["write" if writes else "read"].append(time.perf_counter() - began)

        threads = [threading.Thread(target=live, args=(n,)) for n in range(PEOPLE)]
        for thread in threads:
            thread.start()
        time.sleep(SECONDS)
        over.set()
        for thread in threads:
            thread.join()
        for kind, promised in (("read", 300), ("write", 400)):
            each = sorted(times[kind])
            at95 = each[int(0.95 * len(each))] * 1000
            print(f"crowd: {PEOPLE} people, {len(each)} {kind}s: median {each[len(each) // 2] * 1000:.0f} ms, "
                  f"95th {at95:.0f} ms (promised {promised}), slowest {each[-1] * 1000:.0f} ms")  # fmt: skip
        print(f"crowd: {len(wrong)} errors and resets (promised 0) {wrong[:3]}")


if __name__ == "__main__":
    main()
