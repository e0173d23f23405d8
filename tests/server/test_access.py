"""Roles: who may look, work, let others in, hand over and delete; invitations; accounts and their end."""

import re
from datetime import timedelta
from pathlib import Path
from typing import Any

from django.conf import settings
from django.core import mail
from django.utils import timezone

from pinakotheke.server import models
from pinakotheke.server.api import api
from pinakotheke.server.api.access import looking

from .base import Caller, ServerTestCase

PASSWORD = "a-long-enough-one"


class InvitationTests(ServerTestCase):
    def setUp(self) -> None:
        super().setUp()
        self.home = self.household()
        self.at = f"/households/{self.home}"

    def link(self, **data: Any) -> str:
        """The token of a new link."""
        made = self.ada.post(f"{self.at}/invitations", data)
        self.assertEqual(made.status_code, 201, made.content[:200])
        return str(made.body["link"]).rsplit("/", 1)[1]

    def member(self, name: str) -> int:
        rows = self.ada.get(f"{self.at}/members").body["members"]
        return next(int(m["id"]) for m in rows if m["name"] == name)

    def test_nobody_is_in_before_they_accept(self) -> None:
        self.ada.post(f"{self.at}/invitations", {"name": "eve", "role": "guest"})
        self.assertProblem(self.eve.get(self.at), 404)
        self.assertEqual(self.eve.get("/session").body["invitations"], 1)
        waiting = self.eve.get("/session/invitations").body["each"]
        self.assertEqual([(w["household"], w["by"], w["role"]) for w in waiting], [("Attic", "ada", "guest")])
        self.assertEqual(self.eve.delete(f"/session/invitations/{waiting[0]['id']}").status_code, 204)
        self.assertProblem(self.eve.get(self.at), 404)
        self.assertEqual(self.ada.get(f"{self.at}/members").body["invitations"], [])

    def test_a_link_lets_one_in_once(self) -> None:
        token = self.link(role="member", note="the neighbour")
        self.assertNotIn(token, str(list(models.Invitation.objects.values())))
        seen = Caller().get(f"/invited/{token}").body
        self.assertEqual((seen["household"], seen["role"]), ("Attic", "member"))
        self.assertEqual(self.eve.post(f"/invited/{token}").body["id"], self.home)
        self.assertEqual(self.eve.get(self.at).status_code, 200)
        self.assertProblem(Caller().register("bo").post(f"/invited/{token}"), 404)

    def test_a_link_that_is_old_or_taken_back_lets_nobody_in(self) -> None:
        old = self.link(role="member")
        models.Invitation.objects.update(expires=timezone.now() - timedelta(seconds=1))
        self.assertProblem(self.eve.post(f"/invited/{old}"), 404)
        new = self.link(role="member")
        made = models.Invitation.objects.latest("pk")
        self.assertEqual(self.ada.delete(f"{self.at}/invitations/{made.pk}").status_code, 200)
        self.assertProblem(self.eve.post(f"/invited/{new}"), 404)

    def test_an_invitation_by_name_is_for_that_one(self) -> None:
        Caller().register("bo")
        self.ada.post(f"{self.at}/invitations", {"name": "bo"})
        self.assertProblem(self.eve.post(f"/session/invitations/{models.Invitation.objects.get().pk}"), 404)

    def test_a_guest_changes_nothing_at_any_address_of_the_household(self) -> None:
        space = self.ada.post(f"{self.at}/spaces", {"name": "Closet"}).body["id"]
        self.ada.post(
            f"/spaces/{space}/call-out", {"line": "width 1846; height 2412; depth 612; door none", "version": 1}
        )
        self.ada.post(f"/spaces/{space}/things", {"line": "9 shirts; 5 jumpers"})
        solve = self.ada.post(f"/spaces/{space}/solves").body["id"]
        design = models.Design.objects.filter(space_id=space)[0].pk
        thing = models.Thing.objects.filter(space_id=space)[0].pk
        place = models.Place.objects.create(household_id=self.home, space_id=space, key="p1", name="Shelf").pk
        photo = models.Photo.objects.create(space_id=space).pk
        self.let_in(self.home, role="guest")
        self.assertEqual(self.eve.get(f"/spaces/{space}").status_code, 200)
        ids = {"household_id": self.home, "space_id": space, "thing_id": thing, "design_id": design, "solve_id": solve,
               "place_id": place, "photo_id": photo}  # fmt: skip
        before = self.rows()
        tried = 0
        for _, router in api._routers:
            for path, view in router.path_operations.items():
                named = re.findall(r"{(\w+)}", path)
                if not set(named) & set(ids) or "token" in named:  # by a link one is whom it was made for
                    continue
                address = re.sub(r"{(\w+)}", lambda m: str(ids.get(m[1], 1)), path)
                for method in {m for one in view.operations if looking not in one.auth_callbacks for m in one.methods}:
                    if method in ("POST", "PUT", "PATCH", "DELETE"):
                        tried += 1
                        with self.subTest(f"{method} {path}"):
                            self.assertProblem(self.eve.send(method, address, {}), 403, "guest")
        self.assertGreater(tried, 80)
        self.assertEqual(self.rows(), before)
        self.assertEqual(self.eve.post(f"/spaces/{space}/call-out/hear", {"line": "width 1846"}).status_code, 200)

    def rows(self) -> list[int]:
        return [m.objects.count() for m in (models.Space, models.Thing, models.Design, models.Person, models.LogEntry)]

    def test_each_role_may_what_it_may(self) -> None:
        self.let_in(self.home, role="member")
        for attempt in (
            self.eve.post(f"{self.at}/invitations", {"role": "guest"}),
            self.eve.put(f"{self.at}/members/{self.member('ada')}", {"role": "guest"}),
            self.eve.delete(f"{self.at}/members/{self.member('ada')}"),
            self.eve.post(f"{self.at}/end", {"name": "Attic"}),
        ):
            self.assertProblem(attempt, 403, "This is for the")
        eve = self.member("eve")
        self.assertEqual(self.ada.put(f"{self.at}/members/{eve}", {"role": "organizer"}).status_code, 200)
        self.assertEqual(self.eve.post(f"{self.at}/invitations", {"role": "guest"}).status_code, 201)
        self.assertProblem(self.eve.post(f"{self.at}/invitations", {"role": "owner"}), 403, "owner")
        self.assertProblem(self.eve.put(f"{self.at}/members/{eve}", {"role": "owner"}), 403, "owner")

    def test_access_given_is_taken_back(self) -> None:
        self.let_in(self.home, role="organizer")
        links = [self.eve.post(f"{self.at}/invitations", {"role": "member"}).body["link"] for _ in range(2)]
        self.assertEqual(self.ada.delete(f"{self.at}/members/{self.member('eve')}").status_code, 204)
        self.assertProblem(self.eve.get(self.at), 404)
        for link in links:  # nor by a link of their own
            self.assertProblem(self.eve.post(f"/invited/{link.rsplit('/', 1)[1]}"), 404)

    def test_who_steps_down_takes_back_what_they_gave(self) -> None:
        self.let_in(self.home, role="owner")
        link = self.eve.post(f"{self.at}/invitations", {"role": "owner"}).body["link"]
        self.ada.put(f"{self.at}/members/{self.member('eve')}", {"role": "member"})
        self.assertProblem(self.eve.post(f"/invited/{link.rsplit('/', 1)[1]}"), 404)

    def test_who_came_in_may_leave_and_the_last_owner_may_not(self) -> None:
        self.let_in(self.home, role="guest")
        self.assertEqual(self.eve.delete(f"{self.at}/members/{self.member('eve')}").status_code, 204)
        self.assertProblem(self.ada.delete(f"{self.at}/members/{self.member('ada')}"), 422, "at least one owner")
        self.assertProblem(self.ada.put(f"{self.at}/members/{self.member('ada')}", {"role": "guest"}), 422, "one owner")

    def test_a_household_is_handed_over(self) -> None:
        token = self.link(hands_over=True)
        self.eve.post(f"/invited/{token}")
        roles = {m["name"]: m["role"] for m in self.eve.get(f"{self.at}/members").body["members"]}
        self.assertEqual(roles, {"ada": "organizer", "eve": "owner"})
        acts = set(models.LogEntry.objects.filter(household=self.home).values_list("action", flat=True))
        self.assertIn("member.hand-over", acts)

    def test_a_household_is_deleted_by_its_name_with_its_photos(self) -> None:
        space = self.ada.post(f"{self.at}/spaces", {"name": "Closet"}).body["id"]
        photo = models.Photo(space_id=space)
        from django.core.files.base import ContentFile

        photo.file.save("x.jpg", ContentFile(b"x"))
        self.assertProblem(self.ada.post(f"{self.at}/end", {"name": "Cellar"}), 422, "Attic")
        self.assertEqual(self.ada.post(f"{self.at}/end", {"name": "Attic"}).status_code, 204)
        self.assertFalse(models.Household.objects.exists())
        self.assertFalse(Path(photo.file.path).exists())


class AccountTests(ServerTestCase):
    def test_another_password_ends_other_sessions_and_not_this_one(self) -> None:
        elsewhere = Caller()
        elsewhere.post("/session", {"name": "ada", "password": PASSWORD})
        self.assertProblem(self.ada.post("/session/password", {"old": "x", "new": "another-long-one"}), 422, "not your")
        self.assertEqual(
            self.ada.post("/session/password", {"old": PASSWORD, "new": "another-long-one"}).status_code, 200
        )
        self.assertEqual(self.ada.get("/session").body["user"], "ada")
        self.assertIsNone(elsewhere.get("/session").body["user"])

    def test_a_forgotten_password(self) -> None:
        self.ada.put("/session/email", {"password": PASSWORD, "email": "ada@example.org"})
        stranger = Caller()
        for name in ("eve", "nobody"):
            self.assertEqual(stranger.post("/session/forgotten", {"name": name}).status_code, 204)
        self.assertEqual(len(mail.outbox), 0)
        stranger.post("/session/forgotten", {"name": "ADA"})
        self.assertEqual(mail.outbox[0].to, ["ada@example.org"])
        found = re.search(r"/new-password/([^/]+)/(\S+)", str(mail.outbox[0].body))
        assert found is not None
        asked = {"uid": found[1], "token": found[2], "password": "yet-another-one"}
        self.assertProblem(stranger.post("/session/reset", {**asked, "token": "x-y"}), 422, "no longer")
        self.assertProblem(stranger.post("/session/reset", {**asked, "password": "short"}), 422, "longer")
        self.assertEqual(stranger.post("/session/reset", asked).body["user"], "ada")
        self.assertProblem(stranger.post("/session/reset", asked), 422, "no longer")
        self.assertIsNone(self.ada.get("/session").body["user"])

    def test_an_account_goes_with_what_only_it_owns(self) -> None:
        mine, shared = self.household(), self.household()
        self.let_in(shared, role="owner")
        self.assertEqual([h["id"] for h in self.ada.get("/session/account").body["households"]], [mine])
        self.assertProblem(self.ada.post("/session/end", {"password": PASSWORD}), 422, "Only you own Attic")
        self.assertProblem(self.ada.post("/session/end", {"password": "x", "households": [mine]}), 422, "not your")
        self.assertEqual(self.ada.post("/session/end", {"password": PASSWORD, "households": [mine]}).status_code, 204)
        self.assertIsNone(self.ada.get("/session").body["user"])
        self.assertEqual(list(models.Household.objects.values_list("pk", flat=True)), [shared])
        self.assertProblem(Caller().post("/session", {"name": "ada", "password": PASSWORD}), 422)

    def test_nothing_private_is_written_down_for_everybody(self) -> None:
        self.assertIn("mail", str(settings.EMAIL_FILE_PATH))
