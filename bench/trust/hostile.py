"""Uploads and requests meant to harm: how long each keeps the server, how much memory it takes, and whether others still
get an answer.
"""

import json
import socket
import time
from contextlib import ExitStack
from io import BytesIO

import requests
from PIL import Image

from .server import Person, Server, server

PROMISED_S, PROMISED_MB = 1.0, 200


def _bring(who: Person, content: bytes) -> str:
    """What becomes of a house file; waited for, since a worker reads it."""
    headers = {"X-CSRFToken": who.http.cookies.get("csrftoken") or ""}
    sent = who.http.post(
        f"{who.url}/api/house-file", files={"file": ("x.house.json", content)}, headers=headers, timeout=70
    )
    if sent.status_code != 202:
        return str(sent.status_code)
    while (told := who.get(f"/house-file/{sent.json()['id']}").json())["status"] == "waiting":
        time.sleep(0.05)
    return f"{told['status']}, {len(told['faults'])} faults"


def _photo(side: tuple[int, int]) -> bytes:
    out = BytesIO()
    Image.new("RGB", side).save(out, "PNG")
    return out.getvalue()


def main() -> None:
    """Prints a line for each; every one is to be refused in under a second and 200 MB."""
    with server() as one:
        ada = Person(one.url, "ada")
        ids = ada.closet()
        space = ids["space_id"]
        empties = b'{"name": "x", "spaces": [' + b",".join([b"{}"] * 1_000_000) + b"]}"
        things = json.dumps({"name": "x", "things": [{"id": "!"}] * 20_000}).encode()
        survey = {"version": 1, "survey": {"sections": [{}] * 300_000}}
        no_xlsx, huge = b"PK\x03\x04" + b"x" * 100_000, _photo((18_000, 10_000))
        acts = {
            "3 MB of empty spaces": lambda: _bring(ada, empties),
            "20,000 faulty things": lambda: _bring(ada, things),
            "19 MB of brackets": lambda: _bring(ada, b"[" * 19_000_000),
            "25 MB": lambda: _bring(ada, b" " * 25_000_000),
            "900 kB survey": lambda: str(ada.send("PUT", f"/spaces/{space}/survey", survey).status_code),
            "5 MB of JSON": lambda: str(ada.post("/households", {"name": "x" * 5_000_000}).status_code),
            "a picture of 180 Mpx": lambda: str(_send(ada, f"/spaces/{space}/photos", huge)),
            "a zip that is no XLSX": lambda: str(_send(ada, f"/spaces/{space}/things/preview", no_xlsx)),
        }  # fmt: skip
        for name, act in acts.items():
            _measured(one, name, act)
        _idlers(one, ada)


def _send(who: Person, path: str, content: bytes) -> int:
    headers = {"X-CSRFToken": who.http.cookies.get("csrftoken") or ""}
    return who.http.post(
        f"{who.url}/api{path}", files={"file": ("x.xlsx", content)}, headers=headers, timeout=70
    ).status_code


def _measured(one: Server, name: str, act) -> None:  # type: ignore[no-untyped-def]
    memory, began = one.memory_mb(), time.perf_counter()
    said = act()
    took, more = time.perf_counter() - began, one.memory_mb() - memory
    verdict = "ok" if took < PROMISED_S and more < PROMISED_MB and not said.startswith(("2", "5")) else "NOT HELD"
    print(f"hostile: {name}: {said}, {took:.2f} s, {more:+.0f} MB: {verdict}")


def _idlers(one: Server, ada: Person) -> None:
    """400 requests half sent, and left so: others are answered as before."""
    with ExitStack() as open_ones:
        for _ in range(400):
            idle = open_ones.enter_context(socket.create_connection(("127.0.0.1", one.port)))
            idle.sendall(b"POST /api/session HTTP/1.1\r\nHost: localhost\r\nContent-Length: 1000\r\n\r\n{")
        times = []
        for _ in range(20):
            began = time.perf_counter()
            assert requests.get(f"{one.url}/health", timeout=30).status_code == 200
            times.append(time.perf_counter() - began)
    print(f"hostile: 400 half-sent requests: others answered in at most {max(times) * 1000:.0f} ms")


if __name__ == "__main__":
    main()
