"""The web processes and the worker are killed again and again while people write and search: what was acknowledged is
there once, the database is sound, every search comes to its end.
"""

import random
import sqlite3
import sys
import threading
import time
from contextlib import closing
from uuid import uuid4

import requests

from .server import Person, Server, server

KILLS, WRITERS = 200, 6
LETTERS = str.maketrans("0123456789", "ghijklmnop")


def main(kills: int = KILLS) -> None:
    """Prints what was lost or doubled; nothing is promised to be."""
    with server() as one:
        people = [Person(one.url, f"p{n}") for n in range(WRITERS)]
        closets = [who.closet() for who in people]
        acknowledged: list[tuple[int, str]] = []
        over = threading.Event()

        def write(who: Person, space: int) -> None:
            """Lines of things, each under a key, sent until it is answered."""
            while not over.is_set():
                # Letters alone: a line's figures are read as counts and sizes.
                name, key = uuid4().hex[:12].translate(LETTERS), uuid4().hex
                while not over.is_set():
                    try:
                        answer = who.post(f"/spaces/{space}/things", {"line": f"1 {name}"}, key=key, timeout=10)
                    except requests.RequestException:
                        time.sleep(0.1)
                        continue
                    if answer.status_code == 201:
                        acknowledged.append((space, name))
                        break
                    if answer.status_code == 422:  # a household is full
                        return
                    time.sleep(0.1)
                time.sleep(0.3)

        writers = [
            threading.Thread(target=write, args=(w, c["space_id"])) for w, c in zip(people, closets, strict=True)
        ]
        searches = [(who, who.post(f"/spaces/{c['space_id']}/solves").json()["id"])
                    for who, c in zip(people, closets, strict=True)]  # fmt: skip
        for writer in writers:
            writer.start()
        chance = random.Random(7)
        for n in range(kills):
            time.sleep(chance.uniform(0.2, 1.2))
            if n % 2:
                one.kill(one.web)
                one.start_web()
                one.wait()
            else:
                one.kill(one.worker)
                one.start_worker()
        one.wait()
        over.set()
        for writer in writers:
            writer.join()
        _verdict(one, acknowledged, searches, kills)


def _verdict(one: Server, acknowledged: list[tuple[int, str]], searches: list[tuple[Person, int]], kills: int) -> None:
    with closing(sqlite3.connect(one.data / "pinakotheke.sqlite3")) as rows:
        there = [(space, name) for space, name in rows.execute("SELECT space_id, name FROM server_thing")]
        sound = rows.execute("PRAGMA integrity_check").fetchone()[0]
    counted: dict[tuple[int, str], int] = {}
    for row in there:
        counted[row] = counted.get(row, 0) + 1
    lost = sum(1 for row in acknowledged if row not in counted)
    doubled = sum(1 for row, many in counted.items() if many > 1)
    began = time.monotonic()
    ends = []
    for who, solve in searches:
        while (status := who.get(f"/solves/{solve}").json()["status"]) in ("queued", "running"):
            if time.monotonic() - began > 600:
                break
            time.sleep(1)
        ends.append(status)
    print(f"kills: {kills} of server and worker, {len(acknowledged)} writes acknowledged: {lost} lost (promised 0), "
          f"{doubled} doubled (0), integrity {sound}, searches {sorted(set(ends))}")  # fmt: skip


if __name__ == "__main__":
    main(int(sys.argv[1]) if len(sys.argv) > 1 else KILLS)
