"""What the server's tests share: a signed-in client that speaks JSON, and households to speak of."""

import json
from importlib.resources import files
from typing import Any

from django.contrib.auth import get_user_model
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client, TransactionTestCase

from pinakotheke.core.housefile import load_house
from pinakotheke.server import models
from pinakotheke.server.actions.house import import_house


class Caller:
    """A browser's session: keeps the CSRF token, sends and reads JSON."""

    def __init__(self) -> None:
        self.client = Client(enforce_csrf_checks=True)
        self.client.get("/api/session")

    def send(self, method: str, path: str, data: Any = None, *, token: bool = True, raw: bytes | None = None) -> Any:
        """The response; its `body` is the JSON it carries."""
        headers = {"X-CSRFToken": self.client.cookies["csrftoken"].value} if token else {}
        body = raw if raw is not None else json.dumps(data) if data is not None else ""
        response: Any = self.client.generic(method, f"/api{path}", body, "application/json", headers=headers)
        kind = response.headers.get("Content-Type", "")
        response.body = json.loads(response.content) if "json" in kind and response.content else None
        return response

    def get(self, path: str) -> Any:
        return self.send("GET", path)

    def post(self, path: str, data: Any = None) -> Any:
        return self.send("POST", path, data)

    def put(self, path: str, data: Any) -> Any:
        return self.send("PUT", path, data)

    def patch(self, path: str, data: Any) -> Any:
        return self.send("PATCH", path, data)

    def delete(self, path: str) -> Any:
        return self.send("DELETE", path)

    def register(self, name: str = "ada", password: str = "a-long-enough-one") -> "Caller":
        answer = self.post("/session/register", {"name": name, "password": password})
        assert answer.status_code == 200, answer.content
        return self


class ServerTestCase(TransactionTestCase):
    """Actions commit, so that tasks asked for on commit run; a member and a stranger are there."""

    def setUp(self) -> None:
        self.ada = Caller().register("ada")
        self.eve = Caller().register("eve")

    def household(self, units: str = "metric") -> int:
        """A new household of ada's."""
        answer = self.ada.post("/households", {"name": "Attic", "units": units})
        self.assertEqual(answer.status_code, 201)
        return int(answer.body["id"])

    def closet(self, line: str = "", things: str = "", units: str = "metric") -> int:
        """A closet of a new household, measured and filled by lines."""
        space = self.ada.post(f"/households/{self.household(units)}/spaces", {"name": "Closet"}).body
        if line:
            heard = self.ada.post(f"/spaces/{space['id']}/call-out", {"line": line, "version": space["version"]})
            self.assertEqual(heard.body["heard"]["misheard"], [])
        if things:
            self.assertEqual(self.ada.post(f"/spaces/{space['id']}/things", {"line": things}).status_code, 201)
        return int(space["id"])

    def bring(self, content: bytes, who: Caller | None = None) -> Any:
        """What became of a house file that was brought, once the worker has read it."""
        client = (who or self.ada).client
        headers = {"X-CSRFToken": client.cookies["csrftoken"].value}
        file = SimpleUploadedFile("x.house.json", content)
        sent = client.post("/api/house-file", {"file": file}, headers=headers)
        self.assertEqual(sent.status_code, 202, sent.content[:300])
        return client.get(f"/api/house-file/{sent.json()['id']}").json()

    def let_in(self, home: int, name: str = "eve", role: str = "member") -> None:
        """A registered user comes into a household of ada's."""
        asked = self.ada.post(f"/households/{home}/invitations", {"name": name, "role": role})
        self.assertEqual(asked.status_code, 201, asked.content[:200])
        who = getattr(self, name)
        waiting = who.get("/session/invitations").body["each"]
        self.assertEqual(who.post(f"/session/invitations/{waiting[-1]['id']}").body["id"], home)

    def demo(self) -> models.Household:
        """The demo household, ada's."""
        text = files("pinakotheke.demo").joinpath("halt.house.json").read_bytes()
        return import_house(get_user_model().objects.get(username="ada"), load_house(text))

    def assertProblem(self, response: Any, status: int, part: str = "") -> None:  # noqa: N802
        """A problem document with a title, and no stack trace."""
        self.assertEqual(response.status_code, status, response.content[:300])
        self.assertEqual(response.headers["Content-Type"], "application/problem+json")
        self.assertEqual(response.body["status"], status)
        self.assertTrue(response.body["title"])
        self.assertNotIn("Traceback", str(response.body))
        self.assertIn(part, str(response.body))
