"""The look: the shipped font has every character and digits of one width, every role and icon can be drawn."""

import math
import re
import tomllib

import pytest
from PySide6.QtCore import QPointF, QRectF, QSize
from PySide6.QtGui import QColor, QFontMetricsF, QImage, QPainter, QRawFont

from anlage.core.drawing import DisplayList, Marker, Path, Text, fitted
from anlage.core.drawing.section import section
from anlage.core.joint import Preparation, Sketch
from anlage.data.files import FOLDER, text_of
from anlage.data.look import FONTS, colours
from anlage.session.leaves.table import LEAVES
from anlage.ui.desk.app import application
from anlage.ui.kit.icons import icon
from anlage.ui.kit.look import Look, font, measure
from anlage.ui.picture.painter import Placed, paint

SQUARE = Path(role="metal", points=((0, 0), (10, 0), (10, 10), (0, 10)), closed=True, target="metals/one")
HANDLE = Marker(role="handle", at=(10.0, 5.0), kind="handle", target="joint/od_mm")
VALUE = Text(role="value", at=(5.0, 5.0), text="12 mm", target="joint/thickness_mm")
PICTURE = DisplayList((SQUARE, VALUE, HANDLE), 2.0, (0, 0), (10, 10))


@pytest.fixture(autouse=True)
def _running(qapp):  # noqa: ARG001 - the one application must be there first
    application(["anlage"])


@pytest.mark.parametrize("path", FONTS, ids=lambda path: path.stem)
def test_the_shipped_font_has_every_character_the_interface_uses(path):
    face = QRawFont(str(path), 13)
    sources = [source.read_text(encoding="utf-8") for source in (FOLDER.parent).rglob("*.py")]
    texts = [*sources, *(text_of(f"leaves/{part}.toml") for part in LEAVES), text_of("units.toml")]
    used = {letter for text in texts for letter in text if not letter.isspace() and letter.isprintable()} | set(
        "\u2009\u202f"
    )
    typed_only = set("″′ºµ⅛⅜⅝⅞⅓⅔")  # spellings that are understood when typed, never shown
    missing = sorted(letter for letter in used - typed_only if not face.supportsCharacter(ord(letter)))
    assert missing == []


@pytest.mark.parametrize("strong", [False, True])
def test_digits_have_one_width(strong):
    metrics = QFontMetricsF(font("body", strong=strong))
    assert len({metrics.horizontalAdvance(digit) for digit in "0123456789"}) == 1


def test_a_text_is_measured_in_millimetres_of_paper():
    assert measure("12.5 mm", 5.6) == pytest.approx(2 * measure("12.5 mm", 2.8))
    assert 8 < measure("12.5 mm", 2.8) < 16


def test_the_font_comes_with_its_licence():
    assert "SIL OPEN FONT LICENSE" in text_of("fonts/OFL.md")


def test_every_icon_lies_on_its_grid_and_is_drawn():
    for name, strokes in tomllib.loads(text_of("icons.toml"))["strokes"].items():
        assert all(0 <= number <= 24 for stroke in strokes for number in stroke), name
        image = icon(name, QColor("black")).pixmap(QSize(24, 24)).toImage()
        assert any(image.pixelColor(x, y).alpha() for x in range(24) for y in range(24)), name


@pytest.mark.parametrize("theme", ["light", "dark"])
def test_the_stylesheet_knows_every_colour_it_names(theme):
    sheet = Look.of(theme).stylesheet()
    assert "$" not in sheet
    assert set(re.findall(r"#[0-9a-fA-F]{6}", sheet)) <= {colour.lower() for colour in colours(theme).values()}


def painted(placed, **options):
    image = QImage(200, 200, QImage.Format.Format_ARGB32)
    image.fill(QColor("white"))
    painter = QPainter(image)
    paint(placed, painter, Look.of("light"), **options)
    painter.end()
    return image


def test_a_picture_is_painted_where_it_is_placed():
    placed = Placed.centred(PICTURE, QRectF(0, 0, 200, 200), 4.0)
    image = painted(placed)
    assert image.pixelColor(65, 65).name() == Look.of("light").colour["metal"].name()  # 10 mm · 2 · 4 px about 100
    assert image.pixelColor(55, 55).name() == "#ffffff"
    assert painted(placed, dimmed=True).pixelColor(65, 65) != image.pixelColor(65, 65)
    assert painted(placed, held="joint/od_mm") != image


def test_what_lies_under_a_point_is_found():
    placed = Placed.centred(PICTURE, QRectF(0, 0, 200, 200), 4.0)
    assert placed.in_work(placed.on_screen((3.0, 4.0))) == pytest.approx((3.0, 4.0))
    assert placed.handle_at(QPointF(143, 104)) == "joint/od_mm"
    assert placed.handle_at(QPointF(160, 100)) == ""
    assert placed.value_at(placed.value_rect("joint/thickness_mm").center()) == "joint/thickness_mm"
    assert placed.area_at(QPointF(65, 65)) == "metals/one"
    assert placed.area_at(QPointF(5, 5)) == ""


def test_heat_is_painted_from_the_ramp():
    warm = Path(role="pass", points=SQUARE.points, closed=True, heat=2.0)
    placed = Placed.centred(DisplayList((warm,), 2.0, (0, 0), (10, 10)), QRectF(0, 0, 200, 200), 4.0, (1.0, 2.0))
    assert painted(placed).pixelColor(100, 100).name() == Look.of("light").heat(2.0, (1.0, 2.0)).name()


def test_an_arrow_points_along_its_direction():
    arrow = Marker(role="dimension", at=(5.0, 5.0), kind="arrow", direction_deg=0.0, size_mm=10.0)
    image = painted(Placed.centred(DisplayList((arrow,), 2.0, (0, 0), (10, 10)), QRectF(0, 0, 200, 200), 4.0))
    assert image.pixelColor(80, 100) != QColor("white")
    assert image.pixelColor(110, 100).name() == "#ffffff"


@pytest.mark.parametrize("room", [(60.0, 200.0), (200.0, 40.0)])
def test_a_picture_is_as_large_as_its_room_lets_it(room):
    joint = Sketch(Preparation(kind="single-v", thickness_mm=14, root_opening_mm=3, groove_angle_deg=60))
    picture = fitted(lambda scale: section(joint, scale=scale, show=lambda v, _: f"{v:g}", measure=measure), *room)
    (left, low), (right, high) = picture.low, picture.high
    shares = ((right - left) * picture.scale / room[0], (high - low) * picture.scale / room[1])
    assert max(shares) == pytest.approx(1.0, abs=0.02)
    assert min(shares) <= 1.0
    assert math.isfinite(picture.scale)
