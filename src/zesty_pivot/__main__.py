"""`python -m zesty_pivot` is the command `zesty-pivot`."""

from zesty_pivot.cli.main import run

if __name__ == "__main__":
    run()
