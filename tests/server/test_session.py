"""Who may enter, and what a stranger sees: nothing."""

from unittest.mock import patch

from django.test import Client, override_settings

from .base import Caller, ServerTestCase


class SessionTests(ServerTestCase):
    def test_register_sign_out_sign_in(self) -> None:
        bo = Caller().register("bo")
        self.assertEqual(bo.get("/session").body["user"], "bo")
        self.assertEqual(bo.delete("/session").status_code, 204)
        self.assertIsNone(bo.get("/session").body["user"])
        again = bo.post("/session", {"name": "bo", "password": "a-long-enough-one"})
        self.assertEqual(again.body["user"], "bo")

    def test_refusals_say_the_mend(self) -> None:
        new = Caller()
        self.assertProblem(
            new.post("/session/register", {"name": "ADA", "password": "a-long-enough-one"}), 422, "taken"
        )
        self.assertProblem(new.post("/session/register", {"name": "bo", "password": "short"}), 422, "longer")
        self.assertProblem(new.post("/session", {"name": "ada", "password": "wrong-one"}), 422, "Check both")
        self.assertProblem(new.post("/session", {"name": " ", "password": "x"}), 422)

    def test_names_that_are_written_alike_are_one(self) -> None:
        Caller().register("fish")
        for name in ("\ufb01sh", "FISH"):
            answer = Caller().post("/session/register", {"name": name, "password": "a-long-enough-one"})
            self.assertProblem(answer, 422, "taken")

    def test_every_write_needs_the_token_also_signing_in(self) -> None:
        body = {"name": "ada", "password": "a-long-enough-one"}
        self.assertIn(Caller().send("POST", "/session", body, token=False).status_code, (401, 403))
        home = self.household()
        for method, path, data in (
            ("POST", "/households", {"name": "x"}),
            ("PATCH", f"/households/{home}", {"version": 1, "name": "x"}),
            ("POST", f"/households/{home}/spaces", {"name": "x"}),
            ("DELETE", "/session", None),
        ):
            self.assertIn(self.ada.send(method, path, data, token=False).status_code, (401, 403), path)

    def test_nothing_without_signing_in(self) -> None:
        space = self.closet()
        stranger = Caller()
        for path in ("/households/1", f"/spaces/{space}", f"/spaces/{space}/things", f"/spaces/{space}/designs",
                     f"/spaces/{space}/ledger", "/vocabulary", "/designs/1", "/solves/1",
                     "/households/1/purchase?designs=1", "/households/1/house-file"):  # fmt: skip
            self.assertProblem(stranger.get(path), 401, "Sign in")

    def test_the_demo_is_entered_only_where_it_is_offered(self) -> None:
        from pinakotheke.server.actions.demo import load_demo

        load_demo()
        unsearched = patch("pinakotheke.server.actions.demo.ask")
        unsearched.start()
        self.addCleanup(unsearched.stop)
        guest = Caller()
        self.assertTrue(guest.get("/session").body["demo"])
        answer = guest.post("/session/demo")
        self.assertEqual([h["name"] for h in answer.body["households"]], ["The Halt"])
        with override_settings(DEMO=False):
            self.assertProblem(Caller().post("/session/demo"), 422, "no demo")

    def test_the_page_is_served_for_its_own_addresses_and_nothing_else(self) -> None:
        client = Client()
        self.assertIn(client.get("/house/1/2/layout").status_code, (200, 503))
        self.assertEqual(client.post("/house/1").status_code, 405)
        self.assertEqual(client.get("/api/nothing").status_code, 404)


class StrangerTests(ServerTestCase):
    def test_another_members_rows_are_not_found(self) -> None:
        space = self.closet("width 1846; height 2400; depth 600", "5 shirts")
        self.ada.post(f"/spaces/{space}/solves")
        gallery = self.ada.get(f"/spaces/{space}/designs").body
        design, solve = gallery["designs"][0]["id"], gallery["solve"]["id"]
        thing = self.ada.get(f"/spaces/{space}/things").body["things"][0]["id"]
        home = self.ada.get(f"/spaces/{space}").body["household"]
        move = {"version": 1, "command": {"do": "remove", "part": "x"}}
        for method, path, data in (
            ("GET", f"/households/{home}", None),
            ("PATCH", f"/households/{home}", {"version": 1, "name": "mine"}),
            ("POST", f"/households/{home}/invitations", {"name": "eve"}),
            ("POST", f"/households/{home}/people", {"name": "Eve"}),
            ("DELETE", f"/households/{home}/people/x", None),
            ("GET", f"/households/{home}/house-file", None),
            ("POST", f"/households/{home}/spaces", {"name": "x"}),
            ("GET", f"/spaces/{space}", None),
            ("DELETE", f"/spaces/{space}?version=1", None),
            ("POST", f"/spaces/{space}/call-out", {"version": 1, "line": "width 1"}),
            ("POST", f"/spaces/{space}/readings", {"version": 1, "slot": {"what": "width"}, "text": "1"}),
            ("GET", f"/spaces/{space}/things", None),
            ("POST", f"/spaces/{space}/things", {"line": "1 shirt"}),
            ("PATCH", f"/things/{thing}", {"version": 1, "count": 1}),
            ("DELETE", f"/things/{thing}?version=1", None),
            ("GET", f"/spaces/{space}/designs", None),
            ("POST", f"/spaces/{space}/solves", None),
            ("GET", f"/solves/{solve}", None),
            ("POST", f"/solves/{solve}/cancel", None),
            ("GET", f"/designs/{design}", None),
            ("POST", f"/designs/{design}/edits", move),
            ("POST", f"/designs/{design}/undo", {"version": 1}),
            ("POST", f"/designs/{design}/redo", {"version": 1}),
            ("POST", f"/designs/{design}/rest", {"version": 1}),
            ("POST", f"/designs/{design}/versions", {"name": "mine"}),
            ("DELETE", f"/designs/{design}", None),
            ("GET", f"/designs/{design}/compare/{design}", None),
            ("GET", f"/designs/{design}/drawing", None),
            ("GET", f"/designs/{design}/section/0", None),
            ("GET", f"/designs/{design}/model.glb", None),
            ("GET", f"/designs/{design}/sheet.pdf", None),
            ("GET", f"/households/{home}/purchase?designs={design}", None),
            ("GET", f"/households/{home}/purchase.csv?designs={design}", None),
            ("GET", f"/households/{home}/money?designs={design}", None),
            ("POST", f"/households/{home}/sawn", {"designs": [design], "labels": ["A"]}),
            ("POST", f"/households/{home}/spoilt", {"part": "x"}),
            ("POST", f"/households/{home}/money", {"space": "x", "kind": "ordered", "amount": "1"}),
            ("POST", f"/solves/{solve}/relax/0", None),
            ("POST", f"/solves/{solve}/hang/0", None),
            ("GET", f"/spaces/{space}/ledger", None),
        ):
            with self.subTest(f"{method} {path}"):
                self.assertProblem(self.eve.send(method, path, data), 404)

    def test_a_member_lets_another_in(self) -> None:
        home = self.household()
        answer = self.ada.post(f"/households/{home}/invitations", {"name": "nobody"})
        self.assertProblem(answer, 422, "register first")
        self.let_in(home)
        self.assertEqual(self.eve.get(f"/households/{home}").status_code, 200)
