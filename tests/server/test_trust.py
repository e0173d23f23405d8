"""What a deployment stands on: limits, requests done once, the queue's fairness, demo copies, health, headers, photos."""

import time
from datetime import timedelta
from io import BytesIO
from unittest.mock import patch
from uuid import uuid4

from django.contrib.auth import get_user_model
from django.core.cache import caches
from django.core.files.uploadedfile import SimpleUploadedFile
from django.test import Client, override_settings
from django.utils import timezone
from django_tasks_db.models import DBTaskResult
from PIL import Image

from pinakotheke.server import jobs, models
from pinakotheke.server.actions import photos
from pinakotheke.server.actions.demo import clear_expired, load_demo
from pinakotheke.server.tidying import tidy

from .base import Caller, ServerTestCase

IN_MEMORY = {"default": {"BACKEND": "django.core.cache.backends.locmem.LocMemCache", "LOCATION": "limits"}}
QUEUE = {"default": {"BACKEND": "django_tasks_db.DatabaseBackend", "QUEUES": [], "ENQUEUE_ON_COMMIT": True}}
WRONG = {"name": "ada", "password": "wrong-one-again"}


@override_settings(CACHES=IN_MEMORY)
class LimitTests(ServerTestCase):
    def setUp(self) -> None:
        caches["default"].clear()
        super().setUp()

    def test_a_guesser_is_locked_out_and_the_right_password_with_them(self) -> None:
        guesser = Caller()
        said = [guesser.post("/session", WRONG).body["title"] for _ in range(10)]
        self.assertIn("Too many wrong passwords.", said)
        right = {"name": "ada", "password": "a-long-enough-one"}
        self.assertProblem(guesser.post("/session", right), 429, "Too many")
        self.assertEqual(Caller().post("/session", {"name": "eve", "password": "a-long-enough-one"}).status_code, 200)

    def test_sign_ins_are_counted_by_address_before_any_password_is_tried(self) -> None:
        guesser = Caller()
        with patch("pinakotheke.server.api.session.authenticate", return_value=None) as tried:
            answers = [guesser.post("/session", {"name": f"n{n}", "password": "x"}) for n in range(40)]
        self.assertEqual(tried.call_count, 30)
        self.assertProblem(answers[-1], 429, "too often")
        self.assertGreater(int(answers[-1].headers["Retry-After"]), 0)

    def test_a_name_is_tried_so_often_from_wherever(self) -> None:
        codes = []
        for n in range(70):
            with patch("pinakotheke.server.api.session.authenticate", return_value=None):
                client = Caller()
                client.client.defaults["REMOTE_ADDR"] = f"10.0.0.{n}"
                codes.append(client.post("/session", WRONG).status_code)
        self.assertEqual((codes[:60].count(422), codes[60:].count(429)), (60, 10))

    def test_households_and_exports_are_counted_by_account(self) -> None:
        codes = [self.ada.post("/households", {"name": "x"}).status_code for _ in range(62)]
        self.assertEqual((codes.count(201), codes[-1]), (60, 429))
        self.assertEqual(self.eve.post("/households", {"name": "x"}).status_code, 201)


class OnceTests(ServerTestCase):
    def send(self, key: str, line: str = "2 shirts", who: Caller | None = None) -> tuple[int, object]:
        caller = who or self.ada
        caller.client.defaults["HTTP_IDEMPOTENCY_KEY"] = key
        answer = caller.post(f"/spaces/{self.space}/things", {"line": line})
        del caller.client.defaults["HTTP_IDEMPOTENCY_KEY"]
        return answer.status_code, answer.body

    def setUp(self) -> None:
        super().setUp()
        self.space = self.closet()

    def test_sent_again_it_is_done_once_and_answered_the_same(self) -> None:
        key = str(uuid4())
        first, again = self.send(key), self.send(key)
        self.assertEqual(first, again)
        self.assertEqual((first[0], models.Thing.objects.count()), (201, 1))
        self.send(str(uuid4()))
        self.assertEqual(models.Thing.objects.count(), 2)

    def test_a_refusal_keeps_nothing_so_that_it_can_be_mended(self) -> None:
        key = str(uuid4())
        self.assertEqual(self.send(key, "9999999999999 shirts")[0], 422)
        self.assertEqual(models.Answered.objects.count(), 0)
        self.assertEqual(self.send(key)[0], 201)

    def test_one_key_is_for_one_request_of_one_user(self) -> None:
        key = str(uuid4())
        self.send(key)
        self.assertEqual(self.send(key, "3 hats")[0], 422)
        self.let_in(models.Household.objects.get().pk)
        self.assertEqual(self.send(key, "3 hats", self.eve)[0], 201)
        self.assertEqual(self.send("x" * 65)[0], 422)

    def test_answers_are_forgotten_after_a_day(self) -> None:
        self.send(str(uuid4()))
        models.Answered.objects.update(at=timezone.now() - timedelta(days=2))
        self.assertEqual(tidy()["answers"], 1)


class QueueTests(ServerTestCase):
    @override_settings(TASKS=QUEUE)
    def test_the_first_search_of_each_household_goes_before_anybodys_second(self) -> None:
        spaces = []
        for who, many in ((self.ada, 3), (self.eve, 1)):
            home = who.post("/households", {"name": "x"}).body["id"]
            for n in range(many):
                space = who.post(f"/households/{home}/spaces", {"name": f"S{n}"}).body["id"]
                who.post(f"/spaces/{space}/call-out", {"line": "width 1846; height 2412; depth 612", "version": 1})
                asked = who.post(f"/spaces/{space}/solves").body["id"]
                spaces.append((who is self.eve, n, asked))
        order = [task.args_kwargs["args"][0] for task in DBTaskResult.objects.ready()]
        told = {asked: (eve, n) for eve, n, asked in spaces}
        self.assertEqual([told[o] for o in order], [(False, 0), (True, 0), (False, 1), (False, 2)])

    @override_settings(TASKS=QUEUE)
    def test_the_page_is_told_when_no_worker_is_there(self) -> None:
        space = self.closet("width 1846; height 2412; depth 612")
        solve = self.ada.post(f"/spaces/{space}/solves").body["id"]
        self.assertIn("No worker", self.ada.get(f"/solves/{solve}").body["message"])
        jobs.beat("w1")
        self.assertEqual(self.ada.get(f"/solves/{solve}").body["message"], "waiting for a worker")
        self.assertEqual(Client().get("/health").json()["worker"], "ok")
        models.Worker.objects.update(heard=timezone.now() - timedelta(minutes=5))
        said = Client().get("/health").json()
        self.assertEqual((said["worker"], said["searches_waiting"], said["status"]), ("none", 1, "degraded"))

    @override_settings(MOST_SEARCHES=0)
    def test_a_household_fills_the_queue_only_so_far(self) -> None:
        space = self.closet("width 1846; height 2412; depth 612")
        self.assertProblem(self.ada.post(f"/spaces/{space}/solves"), 422, "wait already")


class DemoTests(ServerTestCase):
    def setUp(self) -> None:
        super().setUp()
        unsearched = patch("pinakotheke.server.actions.demo.ask")
        unsearched.start()
        self.addCleanup(unsearched.stop)

    def visit(self) -> tuple[Caller, int]:
        visitor = Caller()
        return visitor, int(visitor.post("/session/demo").body["households"][0]["id"])

    def test_a_visitor_has_all_of_it_and_touches_nobody_elses(self) -> None:
        house = load_demo()
        (one, mine), (_, yours) = self.visit(), self.visit()
        self.assertEqual(len({house.pk, mine, yours}), 3)
        counted = ("space_set", "thing_set", "person_set", "supply_set", "movement_set", "worksession_set", "stock_set")
        copy = models.Household.objects.get(pk=mine)
        for rows in counted:
            self.assertEqual(getattr(copy, rows).count(), getattr(house, rows).count(), rows)
        things = {t.pk for t in house.thing_set.all()}
        self.assertFalse(things & {s.thing_id for s in copy.supply_set.all()})
        self.assertFalse(things & {t.pk for t in copy.thing_set.all()})
        self.assertEqual({t.space.household_id for t in copy.thing_set.select_related("space") if t.space}, {mine})
        version = one.get(f"/households/{mine}").body["version"]
        one.patch(f"/households/{mine}", {"version": version, "name": "Wrecked"})
        for space in copy.space_set.all():
            one.delete(f"/spaces/{space.pk}?version={space.version}")
        self.assertProblem(one.get(f"/households/{yours}"), 404)
        self.assertEqual(models.Household.objects.get(pk=yours).name, "The Halt")
        self.assertEqual(load_demo().pk, house.pk)
        self.assertEqual(house.space_set.count(), models.Household.objects.get(pk=yours).space_set.count())

    def test_a_copy_expires_and_its_visitor_with_it(self) -> None:
        house = load_demo()
        self.visit()
        models.Household.objects.exclude(pk=house.pk).update(expires=timezone.now() - timedelta(seconds=1))
        self.assertEqual(clear_expired(), 1)
        self.assertEqual(list(models.Household.objects.all()), [house])
        self.assertFalse(get_user_model().objects.filter(username__startswith="visitor-").exists())


class HeaderTests(ServerTestCase):
    def test_every_answer_is_protected(self) -> None:
        for path in ("/", "/house/1", "/api/session", "/api/nothing", "/assets/none.js", "/health"):
            with self.subTest(path):
                answer = Client().get(path)
                policy = answer.headers["Content-Security-Policy"]
                script = next(d for d in policy.split("; ") if d.startswith("script-src"))
                self.assertEqual(script, "script-src 'self'")
                self.assertIn("frame-ancestors 'none'", policy)
                self.assertIn("geolocation=()", answer.headers["Permissions-Policy"])
                self.assertEqual(answer.headers["X-Content-Type-Options"], "nosniff")
                self.assertEqual(answer.headers["Referrer-Policy"], "same-origin")
                self.assertRegex(answer.headers["X-Request-ID"], r"^[0-9a-f]{32}$")
                answer.close()

    def test_what_the_api_says_is_stored_nowhere(self) -> None:
        for path in ("/session", f"/households/{self.household()}", "/households/999"):
            self.assertEqual(self.ada.get(path).headers["Cache-Control"], "no-store")

    def test_errors_of_every_kind_are_problem_documents(self) -> None:
        for method, path, status in (("GET", "/nothing", 404), ("DELETE", "/vocabulary", 405), ("GET", "/spaces/x", 422),
                                     ("GET", f"/spaces/{10**30}", 422), ("POST", "/households", 422)):  # fmt: skip
            with self.subTest(f"{method} {path}"):
                self.assertProblem(self.ada.send(method, path, {}), status)
        self.assertProblem(self.ada.send("POST", "/households", raw=b" " * 2_100_000), 413)

    def test_the_description_is_made_once(self) -> None:
        Client().get("/api/openapi.json")
        began = time.perf_counter()
        with patch("ninja.main.get_schema", side_effect=AssertionError("made again")):
            self.assertEqual(Client().get("/api/openapi.json").status_code, 200)
        self.assertLess(time.perf_counter() - began, 5)

    def test_names_carry_no_signs_that_are_not_seen(self) -> None:
        made = self.ada.post("/households", {"name": "Att\u202eic\u0007 \u200fhome"})
        self.assertEqual(made.body["name"], "Attic home")


class PhotoTests(ServerTestCase):
    def send(self, space: int, size: tuple[int, int]) -> int:
        out = BytesIO()
        Image.new("RGB", size, "white").save(out, "JPEG")
        headers = {"X-CSRFToken": self.ada.client.cookies["csrftoken"].value}
        file = SimpleUploadedFile("x.jpg", out.getvalue())
        return self.ada.client.post(f"/api/spaces/{space}/photos", {"file": file}, headers=headers).status_code

    def test_24_million_pixels_and_no_more(self) -> None:
        space = self.closet()
        self.assertEqual(self.send(space, (6000, 4000)), 201)
        with Image.open(models.Photo.objects.get().file.open()) as kept:
            self.assertEqual(kept.size, (1600, 1067))
        self.assertEqual(self.send(space, (6000, 4200)), 422)

    def test_its_file_goes_when_the_row_is_gone_for_good(self) -> None:
        space = self.closet()
        self.send(space, (40, 30))
        photo = models.Photo.objects.get()
        with patch.object(photos, "log", side_effect=RuntimeError), self.assertRaises(RuntimeError):
            photos.remove_photo(get_user_model().objects.get(username="ada"), photo.pk)
        self.assertTrue(photo.file.storage.exists(photo.file.name or ""))
        self.ada.delete(f"/photos/{photo.pk}")
        self.assertFalse(photo.file.storage.exists(photo.file.name or ""))


@override_settings(CACHES={**IN_MEMORY, "answers": {**IN_MEMORY["default"], "LOCATION": "answers"}})
class MemoTests(ServerTestCase):
    """What is remembered is never old: after each act the answer is the one that is made anew."""

    def test_after_each_act_it_is_as_made_anew(self) -> None:
        caches["answers"].clear()
        space = self.closet("width 1846; height 2412; depth 612; door none", "9 shirts; 5 jumpers")
        home = models.Household.objects.get().pk
        self.ada.post(f"/spaces/{space}/solves")
        design = models.Design.objects.filter(space=space).latest("pk")
        paths = (f"/spaces/{space}/designs", f"/households/{home}/homes", f"/households/{home}/house-file")
        acts = (
            lambda: self.ada.post(f"/spaces/{space}/things", {"line": "2 hats"}),
            lambda: self.ada.patch(f"/households/{home}", {"version": 1, "units": "imperial"}),
            lambda: self.ada.post(f"/households/{home}/people", {"name": "Bo"}),
            lambda: self.ada.post(f"/designs/{design.pk}/versions", {"name": "mine"}),
            lambda: jobs.run_solve.enqueue(models.Solve.objects.create(space_id=space).pk),
            lambda: self.ada.delete(f"/designs/{models.Design.objects.earliest('pk').pk}"),
        )
        for n, act in enumerate(acts):
            for path in paths:
                self.ada.get(path)
            act()
            for path in paths:
                with self.subTest(f"{n} {path}"):
                    told = self.ada.get(path).body
                    caches["answers"].clear()
                    self.assertEqual(told, self.ada.get(path).body)

    def test_what_nobody_changed_is_not_made_again(self) -> None:
        space = self.closet("width 1846; height 2412; depth 612; door none", "9 shirts")
        first = self.ada.get(f"/spaces/{space}/designs").body
        with patch("pinakotheke.server.api.layout.Scene", side_effect=AssertionError("made again")):
            self.assertEqual(self.ada.get(f"/spaces/{space}/designs").body, first)
