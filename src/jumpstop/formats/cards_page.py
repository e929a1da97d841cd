"""All cards of a job as one file that opens with no server and no network, and asks for nothing."""

import base64
import hashlib
from collections.abc import Sequence
from functools import lru_cache
from typing import Any

from markupsafe import Markup
from pydantic_core import to_json

from ..core.plan.change.pocket import ALONE, AMBIENT_MOST, SHARE_FROM, SHARE_STEPS, share_table
from ..words.cards import Card
from .drawing import PAPER, above, environment, frame


@lru_cache(maxsize=4)
def _part(name: str) -> str:
    return (PAPER / name).read_text(encoding="utf-8")


def policy_of() -> str:
    """The page's content-security policy: its own script and style by their hashes, and nothing else at all."""
    script, style = (_hash(_part(name)) for name in ("cards.js", "cards.css"))
    own = f"script-src '{script}'; style-src '{style}'; img-src blob:"  # a drawing is made a PNG by way of a picture
    return f"default-src 'none'; {own}; base-uri 'none'; form-action 'none'"


def _hash(text: str) -> str:
    return "sha256-" + base64.b64encode(hashlib.sha256(text.encode()).digest()).decode()


def cards_page(title: str, cards: Sequence[Card], written: str, decimal: str = ".", job: str = "") -> str:
    """The page. written: when, in words; decimal: the decimal sign that figures are said with; job: its id, so that
    readings stay with it."""
    page = environment().get_template("cards.html.j2")
    return page.render(
        title=title,
        cards=cards,
        drawings=[(above(card.stage, card.name), frame(card.stage, card.name)) for card in cards],
        written=written,
        policy=policy_of(),
        style=Markup(_part("cards.css")),
        script=Markup(_part("cards.js")),
        tables=Markup(_for_script(_tables(cards, decimal) | {"job": job or title})),
    )


def _tables(cards: Sequence[Card], decimal: str) -> dict[str, Any]:
    return {
        "share": {"from": SHARE_FROM, "steps": SHARE_STEPS, "most": -AMBIENT_MOST, "table": share_table()},
        "alone": ALONE,
        "decimal": decimal,
        "cards": [
            {
                "pocket": card.pocket,
                "dials": card.dials,
                "marks": card.marks,
                "distances": card.distances,
                "roles": [_role(card, one.light) for one in card.pocket.lights],
                "blanks": card.blanks,
            }
            for card in cards
        ],
    }


def _role(card: Card, light: int) -> str:
    return next(one.role for one in card.lights if one.number == light + 1)


def _for_script(value: Any) -> str:
    """JSON that cannot end the script element it stands in."""
    text = to_json(value).decode()
    return text.replace("<", "\\u003c").replace(">", "\\u003e").replace("&", "\\u0026").replace("\u2028", "\\u2028")
