"""Keep: places against the design, labels measured back from the paper and read by another library, where is it."""

import re
from collections import Counter
from io import BytesIO
from pathlib import Path
from random import Random
from unittest import TestCase, skipUnless

import reportlab
import zxingcpp
from arabic_reshaper import reshape
from PIL import Image, ImageDraw, ImageFont
from pypdf import PdfReader

from pinakotheke.core.drawing.labels import labels_pdf, set_label, squares
from pinakotheke.core.drawing.pdf import DEJAVU, FONT, WIDE
from pinakotheke.core.inventory import Thing
from pinakotheke.core.inventory.kinds import KINDS, kind_of
from pinakotheke.core.tables import load
from pinakotheke.core.upkeep import (
    Entry,
    Index,
    Label,
    Place,
    Stay,
    differences,
    filling_order,
    label_of,
    planned,
    sheets,
)
from pinakotheke.core.upkeep.find import purposes
from pinakotheke.core.words.log import act_in_words, acts_of, acts_saying, kind_of_act, kinds
from pinakotheke.core.words.upkeep import stick_in_words

from .examples import ADULT, WARDROBE, wardrobe
from .paper import POINTS_A_MM, operations

VERA = Path(reportlab.__file__).parent / "fonts" / "Vera.ttf"
CODE = "http://127.0.0.1:8431/at/1234567"


class PlaceTests(TestCase):
    def test_every_piece_that_a_design_places_lies_in_a_place(self) -> None:
        design = wardrobe()
        plan = planned(design, WARDROBE)
        laid = {t.id: sum(a.count for a in design.assignments if a.thing == t.id) for t in WARDROBE}
        held: dict[str, int] = {}
        for one in plan:
            for thing, count in one.holds:
                held[thing] = held.get(thing, 0) + count
        self.assertEqual(held, {t: n for t, n in laid.items() if n})
        self.assertEqual(len({(p.part, p.box) for p in plan}), len(plan))

    def test_differences_are_those_that_were_made(self) -> None:
        design, things = wardrobe(), WARDROBE
        plan = planned(design, things)
        places = [Place(id=f"p{n}", space="s", name=one.part, design="d", part=one.part, box=one.box)
                  for n, one in enumerate(plan)]  # fmt: skip
        stays = [Stay(id=f"s{n}-{thing}", place=f"p{n}", thing=thing, count=count)
                 for n, one in enumerate(plan) for thing, count in one.holds]  # fmt: skip
        self.assertEqual(differences(design, places, stays, things), ())
        first = stays[0]
        found = differences(design, places, stays[1:], things)
        self.assertEqual([(d.place, d.thing, d.planned, d.found) for d in found],
                         [(first.place, first.thing, first.count, 0)])  # fmt: skip

    def test_the_heavy_and_the_low_first(self) -> None:
        things = {"iron": thing("iron", "hand-tool", mass=9.0), "down": thing("down", "duvet", mass=1.0)}
        places = [Place(id=n, space="s", name=n, height=h)
                  for n, h in (("low", 200), ("high", 1900), ("middle", 900), ("nowhere", None))]  # fmt: skip
        stays = [Stay(id="1", place="middle", thing="iron", count=1), Stay(id="2", place="low", thing="down", count=1)]
        self.assertEqual([p.id for p in filling_order(places, stays, things)], ["middle", "low", "high", "nowhere"])


def thing(name: str, kind: str, **more: object) -> Thing:
    return Thing.model_validate({"id": name, "name": name, "kind": kind, "count": 1, **more})


class SheetTests(TestCase):
    def test_sheets_fill_their_page(self) -> None:
        """Common grids (from memory): margins left and right, top and bottom are alike, and labels do not overlap."""
        for sheet in sheets().values():
            wide = sheet.left * 2 + (sheet.columns - 1) * sheet.across + sheet.label[0]
            high = sheet.top * 2 + (sheet.rows - 1) * sheet.down + sheet.label[1]
            self.assertAlmostEqual(wide, sheet.paper[0], delta=0.01, msg=sheet.id)
            self.assertAlmostEqual(high, sheet.paper[1], delta=0.01, msg=sheet.id)
            self.assertGreaterEqual(sheet.across, sheet.label[0])
            self.assertGreaterEqual(sheet.down, sheet.label[1])

    def test_labels_measured_back_from_the_paper_and_their_code_read(self) -> None:
        for sheet in sheets().values():
            labels = [Label(place=str(n), title=f"Place {n}", lines=("Scarves", "Gloves"), owner="Juna", date="2026-12-01",
                            code=f"{CODE}{n:02}") for n in range(sheet.count + 2)]  # fmt: skip
            data, found = labels_pdf(labels, sheet, 1)
            pages = PdfReader(BytesIO(data)).pages
            self.assertEqual(len(pages), 2)
            self.assertEqual((float(pages[0].mediabox.width), float(pages[0].mediabox.height)),
                             tuple(round(s * POINTS_A_MM, 4) for s in sheet.paper))  # fmt: skip
            texts, boxes = marks_on(pages[0])
            self.assertFalse([t for t in texts if t[2] == "Place 0"] and texts[0][0] < sheet.left + sheet.across - 1)
            for x, y, text in texts:
                column, row = (x - sheet.left) // sheet.across, (sheet.paper[1] - sheet.top - y) // sheet.down
                left, top = sheet.corner(int(row * sheet.columns + column))
                self.assertGreaterEqual(x, left, text)
                self.assertTrue(top <= sheet.paper[1] - y <= top + sheet.label[1], text)
            self.assertTrue(all(one.left_out == () for one in found), [one.left_out for one in found][:1])
            if found[0].code:
                self.assertGreaterEqual(found[0].module, 0.5)
                read = {one.text for one in zxingcpp.read_barcodes(picture(boxes, sheet.paper))}
                self.assertEqual(read, {label.code for label in labels[: sheet.count - 1]}, sheet.id)

    def test_a_picture_lies_within_its_label_beside_the_letters(self) -> None:
        thing = Thing(id="b", name="Bricks", kind="building-bricks", count=9)
        stay = Stay(id="s", place="p", thing="b", count=9)
        place = Place(id="p", space="s", name="Box")
        label = label_of(place, [stay], {"b": thing}, (), code=CODE, pictured=True)
        self.assertEqual((label.picture, label_of(place, [stay], {"b": thing}, ()).picture), ("lego", ""))
        for sheet in sheets().values():
            one = set_label(label, *sheet.label)
            x, y = one.picture_at
            self.assertTrue(x >= 0 and x + one.side <= sheet.label[0] * 0.4)
            self.assertTrue(y >= 0 and y + one.side <= sheet.label[1])
            self.assertTrue(all(row.x > x + one.side for row in one.rows))
            page = PdfReader(BytesIO(labels_pdf([label], sheet)[0])).pages[0]
            self.assertIn(b" c\n", page.get_contents().get_data())  # its curves are drawn
        table = load("pictures")
        self.assertLessEqual({*table["groups"].values(), *table["kinds"].values()}, set(table["outlines"]))
        self.assertEqual([k for k in table["kinds"] if k not in KINDS], [])
        self.assertEqual({r.group for r in KINDS.values()} - set(table["groups"]) - {""}, set())

    def test_odd_names_stay_within_their_label_or_are_named(self) -> None:
        """500 names: long words, other scripts, signs; measured with the letters of another library."""
        random = Random(20261201)
        files = {FONT: VERA, WIDE: DEJAVU / "DejaVuSans.ttf"}
        fonts = {name: ImageFont.truetype(file, 200) for name, file in files.items() if file.is_file()}
        pool = ["O’Brien’s", "Donaudampfschifffahrtselektrizitätenhauptbetriebswerk", "שלום", "مرحبا", "🧦🧤",
                "naïve", "Ångström", "x" * 80, "a", "ﬁsh & chips", '3/4"', "<b>", "\\", "%s", "socks", "winter", "of",
                "the", "Łódź", "ß"]  # fmt: skip
        for n in range(500):
            sheet = random.choice(list(sheets().values()))
            title = " ".join(random.choices(pool, k=random.randint(1, 6)))[:120]
            label = Label(place="p", title=title, picture=random.choice(("", "shirt")),
                          lines=tuple(" ".join(random.choices(pool, k=random.randint(1, 4))) for _ in range(n % 7)),
                          owner=random.choice(("", "Juna")), code=random.choice(("", CODE)))  # fmt: skip
            one = set_label(label, *sheet.label)
            room = one.code_at[0] if one.code else sheet.label[0]
            for row in one.rows:
                if row.bold:
                    continue
                font = fonts[row.font]
                wide = font.getlength(row.text) / 200 * row.size
                self.assertLessEqual(row.x + wide, room + 0.1, (label, row))
            for row in one.rows:
                self.assertGreaterEqual(row.y, 0, (label, row))
                self.assertLessEqual(row.y + row.size * 0.75, sheet.label[1], (label, row))
            said = "".join(row.text for row in one.rows).replace(" ", "")
            for line in label.lines:
                # What is read from the right is turned round, and its signs with it: they are counted.
                turned = Counter(reshape(line).replace(" ", "")) <= Counter(said)
                whole = turned if any(c in "שלוםمرحبا" for c in line) else all(word in said for word in line.split())
                odd = any(c in one.unprinted for c in line)
                self.assertTrue(whole or odd or line in one.left_out or len(line) > 20, (line, one))
            # What no font has is named; other scripts too, where only the usual font is here.
            never = "🧦🧤" if WIDE in fonts else "שלוםمرحبا🧦🧤"
            self.assertTrue(all(c in one.unprinted for c in label.title if c in never))

    def test_a_label_says_what_is_in_the_place_and_whose_it_is(self) -> None:
        things = {
            t.id: t for t in (thing("Scarves", "scarf", owner=ADULT.id), thing("Gloves", "gloves", owner=ADULT.id))
        }
        place = Place(id="p", space="s", name="Shelf 2 in bay 1")
        stays = [Stay(id="1", place="p", thing="Scarves", count=1)]
        one = label_of(place, stays, things, (ADULT,))
        self.assertEqual((one.title, one.lines, one.owner), ("Scarves", (), ADULT.name))
        two = label_of(place, [*stays, Stay(id="2", place="p", thing="Gloves", count=1)], things, (ADULT,))
        self.assertEqual((two.title, two.lines), ("Accessories", ("Gloves", "Scarves")))
        things["Book"] = thing("Book", "book")
        mixed = label_of(place, [*stays, Stay(id="3", place="p", thing="Book", count=1)], things, (ADULT,))
        self.assertEqual((mixed.title, mixed.lines, mixed.owner), ("Shelf 2 in bay 1", ("Book", "Scarves"), ""))
        self.assertNotEqual(one.text, two.text)
        self.assertEqual(label_of(place, [], things, ()).title, "Shelf 2 in bay 1")


def marks_on(page: object) -> tuple[list[tuple[float, float, str]], list[tuple[float, float, float, float]]]:
    """Texts with the start of their base and filled rectangles of a page, mm from its left, lower corner."""
    texts, boxes, start = [], [], (0.0, 0.0)
    for x, y, operator, operands in operations(page):
        if operator == b"Tm":
            start = float(operands[4]), float(operands[5])
        elif operator in (b"Tj", b"TJ"):
            texts.append(((x + start[0]) / POINTS_A_MM, (y + start[1]) / POINTS_A_MM, str(operands[0])))
        elif operator == b"re":
            left, low, wide, high = (float(o) for o in operands)
            boxes.append(((x + left) / POINTS_A_MM, (y + low) / POINTS_A_MM, wide / POINTS_A_MM, high / POINTS_A_MM))
    return texts, boxes


def picture(
    boxes: list[tuple[float, float, float, float]], paper: tuple[float, float], scale: float = 12
) -> Image.Image:
    """The filled rectangles of a page as a reader's camera sees them."""
    image = Image.new("L", (round(paper[0] * scale), round(paper[1] * scale)), 255)
    draw = ImageDraw.Draw(image)
    for x, y, w, h in boxes:
        top = paper[1] - y - h
        draw.rectangle((x * scale, top * scale, (x + w) * scale, (top + h) * scale), fill=0)
    return image


HOUSE = (
    ("Hammers", "hand-tool", ""), ("Screwdrivers", "hand-tool", ""), ("Winter coats", "coat-long", "Maren"),
    ("Winter boots", "boot-tall", "Teodor"), ("Rubber boots", "wellingtons", "Juna"), ("Wool jumpers", "jumper", "Maren"),
    ("Summer dresses", "dress", "Maren"), ("School books", "book", "Juna"), ("Jigsaw puzzles", "puzzle", "Juna"),
    ("Christmas baubles", "christmas-box", ""), ("Fairy lights", "garland", ""), ("Cordless drill", "drill", ""),
    ("Drill bits", "screw-box", ""), ("Step stool", "ladder-step", ""), ("Painkillers", "medicine-box", ""),
    ("First-aid kit", "first-aid-kit", ""), ("Passports", "document-safe", ""), ("Tax papers", "file-box", ""),
    ("Batteries", "battery-pack", ""), ("Phone chargers", "charger", ""), ("Spare bulbs", "light-bulb", ""),
    ("Duct tape", "tape-roll", ""), ("Paste", "glue-bottle", ""), ("Bone folders", "bone-folder-roll", ""),
    ("Marbled papers", "paper-sheet", ""), ("Yarn", "yarn-ball", "Maren"), ("Sewing machine", "sewing-machine", ""),
    ("Beach towels", "beach-towel", ""), ("Bath towels", "towel", ""),
    ("Sleeping bags", "sleeping-bag", ""),
    ("Tent", "tent", ""), ("Skis", "skis", "Teodor"), ("Bicycle pump", "bike-pump", ""), ("Helmets", "helmet", ""),
    ("Cat carrier", "pet-carrier", ""), ("Dog leads", "lead", ""), ("Flour", "flour-bag", ""),
    ("Cake tins", "baking-tin", ""), ("Wine", "wine-bottle", ""), ("Tea", "tea-box", ""), ("Iron", "iron", ""),
    ("Vacuum cleaner", "vacuum", ""), ("Bin bags", "bin-bag-roll", ""), ("Bleach", "bleach", ""),
    ("Wrapping paper", "wrap-roll", ""), ("Ribbons", "ribbon-box", ""), ("Grandmother's letters", "letter-bundle", ""),
    ("Photo albums", "photo-album", ""),
    ("Snow chains", "snow-chains", ""), ("Garden shears", "hand-shears", ""),
)  # fmt: skip
QUESTIONS = """
hammers: Hammers | hammer: Hammers | where is the hammer: Hammers | hamer: Hammers | hammmer: Hammers
screw driver: Screwdrivers | screwdriver: Screwdrivers | screwdrivr: Screwdrivers | my screwdrivers: Screwdrivers
winter coats: Winter coats | winter coat: Winter coats | Maren's winter coat: Winter coats | overcoat: Winter coats
wintercoats: Winter coats | marens coat: Winter coats | gown: Summer dresses | dress: Summer dresses
summer dress: Summer dresses | sumer dresses: Summer dresses | winter boots: Winter boots | teodors boots: Winter boots
Teodor boots: Winter boots | riding boots: Winter boots | wellies: Rubber boots | wellingtons: Rubber boots
rubber boot: Rubber boots | juna boots: Rubber boots | Juna's wellies: Rubber boots | gumboots rubber: Rubber boots
sweater: Wool jumpers | sweaters: Wool jumpers | jumper: Wool jumpers | cardigan: Wool jumpers | wool jumper: Wool jumpers
pullover: Wool jumpers | jumpr: Wool jumpers | school book: School books | books: School books | junas books: School books
novels: School books | puzzle: Jigsaw puzzles | jigsaw: Jigsaw puzzles | jigsaws: Jigsaw puzzles | puzzels: Jigsaw puzzles
baubles: Christmas baubles | christmas: Christmas baubles | christmas decorations: Christmas baubles
xmas baubles: Christmas baubles | decorations: Christmas baubles | fairy lights: Fairy lights | fairylights: Fairy lights
string of lights: Fairy lights | lights: Fairy lights | garland: Fairy lights | drill: Cordless drill
cordless drill: Cordless drill | where is my drill: Cordless drill | drils: Cordless drill | drill bits: Drill bits
bits: Drill bits | screws: Drill bits | nails: Drill bits | box of screws: Drill bits | drillbits: Drill bits
step stool: Step stool | stool: Step stool | something to reach up: Step stool | stepstool: Step stool | climb: Step stool
painkillers: Painkillers | pain killer: Painkillers | pills: Painkillers | medicine: Painkillers | medicines: Painkillers
headache: Painkillers | painkiler: Painkillers | first aid: First-aid kit | first aid kit: First-aid kit
plaster: First-aid kit | firstaid: First-aid kit | aid kit: First-aid kit | passport: Passports | pasports: Passports
passports: Passports | documents: Passports | tax: Tax papers | tax papers: Tax papers | box file: Tax papers
folders: Tax papers | taxes: Tax papers | batteries: Batteries | battery: Batteries | batterys: Batteries
baterries: Batteries | charger: Phone chargers | phone charger: Phone chargers | chargers for the phone: Phone chargers
bulb: Spare bulbs | light bulb: Spare bulbs | light bulbs: Spare bulbs | bulbs: Spare bulbs | spare bulb: Spare bulbs
tape: Duct tape | duct tape: Duct tape | duck tape: Duct tape | roll of tape: Duct tape | glue: Paste | paste: Paste
something to glue with: Paste | bottle of glue: Paste | bone folder: Bone folders | bonefolder: Bone folders
folder of bone: Bone folders | bench tools: Bone folders | marbled paper: Marbled papers | marbeled paper: Marbled papers
decorated paper: Marbled papers | marbled: Marbled papers | yarn: Yarn | wool yarn: Yarn | knit: Yarn
ball of yarn: Yarn | sewing machine: Sewing machine | sewing: Sewing machine | sew: Sewing machine
sewing machin: Sewing machine | beach towel: Beach towels | beach: Beach towels | swim: Beach towels
towels for the beach: Beach towels | bath towel: Bath towels | bath towels: Bath towels | bathtowel: Bath towels
sleeping bag: Sleeping bags | sleepingbags: Sleeping bags | sleeping bags: Sleeping bags | tent: Tent | the tent: Tent
tents: Tent | skis: Skis | ski: Skis | Teodor's skis: Skis | teodor ski: Skis | pump: Bicycle pump
bike pump: Bicycle pump | bicycle pump: Bicycle pump | inflate: Bicycle pump | helmet: Helmets | helmets: Helmets
bike helmet: Helmets | helmt: Helmets | cat carrier: Cat carrier | cat: Cat carrier | pet carrier: Cat carrier
carrier: Cat carrier | dog lead: Dog leads | leash: Dog leads | leashes: Dog leads | dog leads: Dog leads | dog: Dog leads
flour: Flour | bag of flour: Flour | flower flour: Flour | cake tin: Cake tins | muffin tin: Cake tins
baking tins: Cake tins | bake: Cake tins | cake: Cake tins | wine: Wine | bottle of wine: Wine | bottles of wine: Wine
tea: Tea | box of tea: Tea | the tea: Tea | iron: Iron | the iron: Iron | ironing: Iron | vacuum: Vacuum cleaner
vacuum cleaner: Vacuum cleaner | vaccum cleaner: Vacuum cleaner | vacum: Vacuum cleaner | bin bag: Bin bags
bin bags: Bin bags | binbags: Bin bags | rolls of bin bags: Bin bags | bleach: Bleach | bottle of bleach: Bleach
bleech: Bleach | wrapping paper: Wrapping paper | gift wrap: Wrapping paper | wraping paper: Wrapping paper
wrap: Wrapping paper | ribbon: Ribbons | ribbons: Ribbons | box of ribbon: Ribbons | ribon: Ribbons
grandmothers letters: Grandmother's letters | letters: Grandmother's letters | grandmother: Grandmother's letters
grandma letters: Grandmother's letters | bundle of letters: Grandmother's letters | photo album: Photo albums
albums: Photo albums | photos: Photo albums | photo albums: Photo albums
snow chain: Snow chains
snow chains: Snow chains | snowchains: Snow chains | chains: Snow chains | shears: Garden shears
secateurs: Garden shears | garden shears: Garden shears | gardenshears: Garden shears
scissors for the garden: Garden shears
"""
"""As people type, with the answer; written by hand."""


class FindTests(TestCase):
    def index(self) -> Index:
        found = Index()
        for name, kind, owner in HOUSE:
            row = kind_of(kind)
            found.put(
                Entry(name, name, (row.one, row.many, *row.words, row.group), owner, " ".join(purposes().get(kind, ())))
            )
        return found

    def test_questions_as_people_type_them(self) -> None:
        index = self.index()
        asked = [
            tuple(p.strip() for p in one.rsplit(":", 1))
            for one in QUESTIONS.replace("\n", "|").split("|")
            if one.strip()
        ]
        self.assertGreaterEqual(len(asked), 200)
        first, third, wrong = 0, 0, []
        for question, answer in asked:
            found = [a.key for a in index.find(question, 3)]
            first += found[:1] == [answer]
            third += answer in found
            if found[:1] != [answer]:
                wrong.append((question, answer, found))
        self.assertGreaterEqual(first, 0.95 * len(asked), wrong)
        self.assertGreaterEqual(third, 0.99 * len(asked), wrong)

    def test_what_is_taken_out_or_renamed_is_not_found_any_more(self) -> None:
        index = self.index()
        index.put(Entry("Tent", "Awning"))
        self.assertEqual(index.find("awning")[0].key, "Tent")
        self.assertNotIn("Tent", [a.key for a in index.find("tent")])
        index.drop("Tent")
        index.drop("Tent")
        self.assertEqual(index.find("awning"), ())
        self.assertEqual(len(index), len(HOUSE) - 1)
        self.assertEqual(Index().find("anything"), ())
        self.assertEqual(index.find("?!"), ())

    def test_every_kind_named_in_purposes_is_a_kind(self) -> None:
        self.assertLessEqual(set(purposes()), set(KINDS))

    def test_every_kind_is_found_by_its_own_words(self) -> None:
        rows = [kind_of(k) for k in KINDS if k != "custom"]
        index = Index(Entry(r.id, r.many, (r.one, r.many, *r.words)) for r in rows)
        missed = [(r.id, w) for r in rows for w in (r.one, r.many) if r.id not in [a.key for a in index.find(w, 5)]]
        self.assertEqual(missed, [])

    def test_modules_of_a_code_lie_within_their_label(self) -> None:
        one = set_label(Label(place="p", title="Scarves", code=CODE), 63.5, 38.1)
        for x, y, side in squares(one):
            self.assertTrue(0 <= x <= 63.5 - side and 0 <= y <= 38.1 - side)


@skipUnless((DEJAVU / "DejaVuSans.ttf").is_file(), "Debian's fonts-dejavu-core is not here")
class ScriptTests(TestCase):
    def test_other_scripts_are_printed_and_read_from_the_right(self) -> None:
        for title in ("Зимние шапки", "Χειμωνιάτικα", "כובעים", "قبعات", "Łódź"):
            one = set_label(Label(place="p", title=title, lines=("Juna", title)), 99.1, 38.1)
            self.assertEqual((one.unprinted, one.left_out), ("", ()), title)
        (hebrew,) = (r.text for r in set_label(Label(place="p", title="כובעים"), 99.1, 38.1).rows)
        self.assertEqual(hebrew, "כובעים"[::-1])
        (arabic,) = (r.text for r in set_label(Label(place="p", title="قبعات"), 99.1, 38.1).rows)
        self.assertTrue(all("\ufe70" <= c <= "\ufeff" for c in arabic), arabic)  # forms that join their neighbours
        self.assertEqual(set_label(Label(place="p", title="帽子 🧦"), 99.1, 38.1).unprinted, "帽子🧦")
        page = PdfReader(BytesIO(labels_pdf([Label(place="p", title="Шапки")], sheets()["a4-3x7"])[0])).pages[0]
        self.assertIn("Шапки", page.extract_text())


class StickTests(TestCase):
    def test_where_a_label_goes_by_hand(self) -> None:
        said = stick_in_words((400, 150), (100, 38), "metric")
        self.assertEqual(said, "level, 150 mm from either side, 56 mm from the top")
        self.assertIn("its middle 300 mm from either side", stick_in_words((600, 18), (100, 38), "metric"))
        self.assertIn("too wide", stick_in_words((80, 150), (100, 38), "metric"))


class LogTests(TestCase):
    def test_every_act_of_the_server_has_its_words(self) -> None:
        acts = set()
        for file in (Path(__file__).parents[2] / "pinakotheke" / "server").rglob("*.py"):
            acts |= set(re.findall(r'\blog\([a-z_.]+, user, "([a-z.-]+)"', file.read_text(encoding="utf-8")))
        self.assertGreater(len(acts), 40)
        self.assertEqual({a for a in acts if a not in load("log")["acts"]}, set())
        for kind in kinds():
            self.assertTrue(acts_of(kind), kind)
            self.assertTrue(all(kind_of_act(a) == kind for a in acts_of(kind)), kind)
        self.assertEqual(act_in_words("upkeep.put", {"place": "p", "thing": "t", "count": 4}), "put: t, p, 4")
        self.assertEqual(acts_saying("LENT"), ["upkeep.lend"])
        self.assertEqual(act_in_words("survey.reading", {"what": "width"}), "measured: width")
        self.assertEqual(act_in_words("nobody.knows", {}), "design changed")
