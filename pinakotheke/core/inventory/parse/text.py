"""Words of a name as they are compared: small letters, one for many, nothing between them."""

import re
import unicodedata
from functools import lru_cache

_IRREGULAR = {
    "children": "child", "men": "man", "women": "woman", "feet": "foot", "teeth": "tooth", "mice": "mouse",
    "knives": "knife", "shelves": "shelf", "scarves": "scarf", "scarfs": "scarf", "loaves": "loaf", "leaves": "leaf",
    "axes": "axe", "potatoes": "potato", "tomatoes": "tomato", "prs": "pair", "pr": "pair",
    "xmas": "christmas", "tshirt": "t-shirt",
}  # fmt: skip
_WORD = re.compile(r"[^\W_]+(?:['’][^\W_]+)?['’]?", re.UNICODE)
SKIPPED = frozenset({"of", "the", "my", "our", "your", "some", "a", "an", "for", "with", "and", "in", "to"})


@lru_cache(maxsize=20_000)
def singular(word: str) -> str:
    """One for many; what belongs to somebody is that somebody's word.

    >>> [singular(w) for w in ("boxes", "hoodies", "hoodie", "vases", "knives", "children's", "dresses", "glass")]
    ['box', 'hoody', 'hoody', 'vase', 'knife', 'child', 'dress', 'glass']
    """
    word = re.sub(r"['’]s?$", "", word.lower())
    if word in _IRREGULAR:
        return _IRREGULAR[word]
    if word.endswith("ies") and len(word) > 4:
        return word[:-3] + "y"
    if word.endswith("ie") and len(word) > 3:
        return word[:-2] + "y"
    if re.search(r"(?:ss|x|zz|ch|sh)es$", word):
        return word[:-2]
    if word.endswith("s") and not word.endswith(("ss", "us", "is")) and len(word) > 2:
        return word[:-1]
    return word


def names_something(text: str) -> bool:
    """Whether there is a letter of any script in a text, or a picture."""
    return any(unicodedata.category(c)[0] in "LM" or (ord(c) > 127 and unicodedata.category(c)[0] == "S") for c in text)


@lru_cache(maxsize=20_000)
def tokens(name: str) -> tuple[str, ...]:
    """The words of a name that count, one for many.

    >>> tokens("Pairs of children's shoes"), tokens("T-shirts"), tokens("lever arch files")
    (('pair', 'child', 'shoe'), ('t', 'shirt'), ('lever', 'arch', 'file'))
    """
    words = _WORD.findall(name.replace("-", " "))
    return tuple(s for w in words if (low := w.lower()) not in SKIPPED and (s := singular(low)))
