"""A stand-in for the tablet's camera: a drawn picture of calico with a pinned fold, as a camera would send it."""

from io import BytesIO
from random import Random

from PIL import Image, ImageDraw, ImageFilter

WIDTH, HEIGHT = 1200, 900
CLOTH, SHADOW, PIN = (226, 216, 196), (186, 174, 150), (70, 74, 84)
HEADS = ((178, 58, 52), (52, 96, 150), (208, 160, 52))


def photo_of_a_pinch(seed: int = 7) -> bytes:
    """Return a PNG of cloth with a fold along it, held by pins; invented, the same for the same seed."""
    chance = Random(seed)
    picture = Image.new("RGB", (WIDTH, HEIGHT), CLOTH)
    draw = ImageDraw.Draw(picture)
    for y in range(0, HEIGHT, 3):
        draw.line([(0, y), (WIDTH, y + chance.randint(-2, 2))], fill=_shade(CLOTH, chance.randint(-7, 5)))
    for x in range(0, WIDTH, 4):
        draw.line([(x, 0), (x + chance.randint(-2, 2), HEIGHT)], fill=_shade(CLOTH, chance.randint(-9, 4)))
    fold = [(x, HEIGHT * 0.48 + 40 * (x / WIDTH - 0.5) ** 2 * 4) for x in range(0, WIDTH + 1, 20)]
    for down in range(46):
        draw.line([(x, y + down) for x, y in fold], fill=_shade(SHADOW, down), width=2)
    picture = picture.filter(ImageFilter.GaussianBlur(1.6))
    draw = ImageDraw.Draw(picture)
    for at in range(150, WIDTH, 210):
        y = HEIGHT * 0.48 + chance.randint(8, 18)
        draw.line([(at, y - 34), (at + 12, y + 74)], fill=PIN, width=5)
        draw.ellipse([(at - 13, y - 58), (at + 13, y - 32)], fill=chance.choice(HEADS))
    stream = BytesIO()
    picture.save(stream, "PNG")
    return stream.getvalue()


def _shade(colour: tuple[int, int, int], by: int) -> tuple[int, int, int]:
    red, green, blue = (min(max(part + by, 0), 255) for part in colour)
    return red, green, blue
