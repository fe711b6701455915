"""`python -m tests.kept` writes the kept figures anew; read the difference before you commit it."""

from pathlib import Path

from tests.kept.recipes import RECIPES, style_of
from tests.kept.writing import kept_text
from zesty_pivot.data.demo import demo_styles

FOLDER = Path(__file__).parent / "texts"


def main() -> None:
    """All texts."""
    FOLDER.mkdir(exist_ok=True)
    styles = [*(style_of(name) for name in RECIPES), *demo_styles()]
    for style in styles:
        (FOLDER / f"{style.name.lower().replace(' ', '-')}.txt").write_text(kept_text(style), encoding="utf-8")


if __name__ == "__main__":
    main()
