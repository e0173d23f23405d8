"""What people say: a line within 5 ms, a note of 100 lines within 200 ms at the API, and how many are right at once."""

import json
import os
import tempfile
from pathlib import Path
from random import Random
from time import perf_counter

PROMISED_LINE_MS, PROMISED_NOTE_MS, PROMISED_HEAP_MIN = 5.0, 200.0, 6.0
KEYS_A_MINUTE = 200
"""A practised typist, 40 words a minute."""
LINES = Path(__file__).parents[1] / "tests" / "core" / "lines" / "said.txt"


def main() -> None:
    """Every line of the tests, and a note of a hundred of them, previewed and taken."""
    with tempfile.TemporaryDirectory() as folder:
        os.environ.update(PINAKOTHEKE_VAR=folder, DJANGO_SETTINGS_MODULE="pinakotheke.server.settings")
        import django

        django.setup()
        said = [row.partition(" = ")[0] for row in LINES.read_text("utf-8").splitlines() if row[:1] != "#"]
        _lines(said)
        _person(Random(2).sample(said, 60))
        _note(Random(1).sample(said, 100))


def _lines(said: list[str]) -> None:
    from pinakotheke.core.inventory import quick_add

    quick_add("2 shirts", (), "metric")
    times = []
    for line in said:
        start = perf_counter()
        quick_add(line, (), "metric")
        times.append((perf_counter() - start) * 1000)
    worst = max(times)
    print(
        f"line: mean {sum(times) / len(times):.2f} ms, slowest {worst:.1f} ms ({worst / PROMISED_LINE_MS:.0%} of promise)"
    )


def _person(said: list[str]) -> None:
    """Somebody who types a heap of 60 groups, a line at a time, and puts right what is marked: an arrow for a guess, a size
    for what nobody knows, a number where nobody said how many.
    """
    from pinakotheke.core.inventory import quick_add

    mends = {"": 0, "kind": 2, "owner": 4, "count": 6, "size": 16}
    keys = sum(len(line) + 1 + sum(mends[t.unsure] for t in quick_add(line, (), "metric")) for line in said)
    minutes = keys / KEYS_A_MINUTE
    print(f"person: {len(said)} groups, {keys} keys, {minutes:.1f} min at {KEYS_A_MINUTE} keys a minute"
          f" ({minutes / PROMISED_HEAP_MIN:.0%} of promise)")  # fmt: skip


def _note(said: list[str]) -> None:
    from django.core.management import call_command
    from django.test import Client

    call_command("migrate", verbosity=0)
    client = Client()
    client.get("/api/session")

    def post(path: str, data: object) -> dict[str, object]:
        token = client.cookies["csrftoken"].value
        answer = client.post(f"/api{path}", json.dumps(data), "application/json", headers={"X-CSRFToken": token})
        assert answer.status_code in (200, 201), answer.content
        return answer.json()  # type: ignore[no-any-return]

    post("/session/register", {"name": "bench", "password": "a-long-enough-one"})
    home = post("/households", {"name": "Bench"})["id"]
    space = post(f"/households/{home}/spaces", {"name": "Hall"})["id"]
    for round_ in ("first", "again"):
        start = perf_counter()
        rows = post(f"/spaces/{space}/things/note/preview", {"text": "\n".join(said)})["rows"]
        read = (perf_counter() - start) * 1000
        start = perf_counter()
        post(f"/spaces/{space}/things/note", {"things": [row["thing"] for row in rows]})  # type: ignore[index,union-attr]
        took = (perf_counter() - start) * 1000
        share = read / PROMISED_NOTE_MS
        print(f"note: 100 lines, {round_}: read in {read:.0f} ms ({share:.0%} of promise), taken in {took:.0f} ms")


if __name__ == "__main__":
    main()
