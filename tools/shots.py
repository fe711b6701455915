"""Makes the pictures of docs/screenshots from the demo. Run by `make shots`."""

from pathlib import Path

from zesty_pivot.desk.pictures import write_pictures

if __name__ == "__main__":
    for path in write_pictures(Path(__file__).parent.parent / "docs" / "screenshots"):
        print(path.name)
