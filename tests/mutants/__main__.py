"""`make mutants`: a fixed sample of mutations, each against the tests that reach it; prints what survives.

A mutation changes the code of one function in a process of its own, forked from one that has read all tests. `--touched` only
records which tests reach which functions (done by itself when the code is not the one recorded).
"""

from __future__ import annotations

import argparse
import gc
import hashlib
import importlib
import io
import json
import multiprocessing
import os
import random
import subprocess
import sys
import time
from collections import Counter, defaultdict
from contextlib import redirect_stderr, redirect_stdout
from pathlib import Path
from types import CodeType, FunctionType

import pytest

from tests.mutants.operators import Mutation, mutated, mutations

ROOT = Path(__file__).parents[2]
CORE = ROOT / "src" / "zesty_pivot" / "core"
BUILD = ROOT / "build" / "mutants"
TESTS = ("tests/core", "tests/kept", "tests/desk/test_pens.py")
SEED, SAMPLE = 20261128, 270

# Shares of the sample by folder, the heart first; the rest of the core shares what is left.
SHARES = {"moves": 56, "procedures": 44, "steps": 44, "finish": 36, "piece": 20, "ledger": 12, "checks": 14, "necklines": 14}

BUDGET_S = 110.0  # of the tests' own time for one mutation; in 40 s no longer every kind of test has its say
LONGEST_S = 180  # a mutation that runs longer than this hangs, which is noticed


def state() -> str:
    """What tells one state of code and tests from another."""
    found = hashlib.sha256()
    for path in sorted([*CORE.rglob("*.py"), *(ROOT / "tests").rglob("*.py")]):
        found.update(path.read_bytes())
    return found.hexdigest()[:16]


def touched() -> dict[str, list[tuple[float, str]]]:
    """The tests of each function (`file:function`) with their seconds, recorded anew when code or tests have changed."""
    folder = BUILD / state()
    if not folder.exists():
        print("recording which tests reach what ...", flush=True)
        env = {**os.environ, "ZESTY_TOUCHED": str(folder), "QT_QPA_PLATFORM": "offscreen"}
        command = [sys.executable, "-m", "pytest", "-q", "-n", "auto", "-p", "tests.mutants.touched", *TESTS]
        subprocess.run(command, cwd=ROOT, env=env, check=False, stdout=subprocess.DEVNULL)  # one or another may be too slow so
    reached: dict[str, list[tuple[float, str]]] = defaultdict(list)
    for file in folder.glob("*.json"):
        for test, (seconds, functions) in json.loads(file.read_text()).items():
            for function in functions:
                reached[function].append((seconds, test))
    return reached


def sample() -> list[Mutation]:
    """The mutations that are tried: the same for the same code."""
    chance, found = random.Random(SEED), mutations(CORE)
    chosen: list[Mutation] = []
    others = [mutation for mutation in found if mutation.folder not in SHARES]
    for folder, count in SHARES.items():
        chosen += chance.sample([mutation for mutation in found if mutation.folder == folder], count)
    return [*chosen, *chance.sample(others, SAMPLE - len(chosen))]


def chosen_tests(reached: list[tuple[float, str]], budget: float) -> list[str]:
    """Tests for the budget: the kept figures, then the quickest of every file in turn, so that all kinds have their say."""
    files: dict[str, list[tuple[float, str]]] = defaultdict(list)
    for seconds, test in sorted(reached):
        files[test.partition("::")[0]].append((seconds, test))
    kept = [test for file, tests in files.items() if file.startswith("tests/kept/") for _seconds, test in tests]
    found, spent = kept, 0.0
    files = {file: tests for file, tests in files.items() if not file.startswith("tests/kept/")}
    while files and spent < budget:
        for file in sorted(files):
            seconds, test = files[file].pop(0)
            found.append(test)
            spent += seconds
            if not files[file]:
                del files[file]
    return found


def _code_of(tree_code: CodeType, name: str) -> CodeType:
    code = tree_code
    for part in name.split("."):
        code = next(const for const in code.co_consts if isinstance(const, CodeType) and const.co_name == part)
    return code


def _planted(mutation: Mutation) -> int:
    """Changes every function object that runs the mutated code; how many there are."""
    importlib.import_module("zesty_pivot.core." + mutation.file.removesuffix(".py").replace("/", "."))
    file = str(CORE / mutation.file)
    code = _code_of(compile(mutated(CORE, mutation), file, "exec"), mutation.function)
    held = [thing for thing in gc.get_objects() if isinstance(thing, FunctionType)]
    same = [f for f in held if f.__code__.co_filename == file and f.__code__.co_qualname == mutation.function]
    for function in same:
        function.__code__ = code
    return len(same)


def _tried(mutation: Mutation, tests: list[str], answer: multiprocessing.Queue[str]) -> None:
    """In a process of its own: plants the mutation and runs the tests."""
    os.chdir(ROOT)
    if not _planted(mutation):
        answer.put("not found")
        return
    with redirect_stdout(io.StringIO()), redirect_stderr(io.StringIO()):
        code = pytest.main(["-x", "-q", "-p", "no:cacheprovider", "-p", "no:xdist", "--no-header", *tests])
    answer.put("survived" if code == 0 else "killed" if code == 1 else f"pytest ended with {int(code)}")


def verdict(mutation: Mutation, reached: dict[str, list[tuple[float, str]]], budget: float) -> str:
    """What becomes of one mutation: killed, survived, or not reached by any test."""
    tests = chosen_tests(reached.get(f"{mutation.file}:{mutation.function}", []), budget)
    if not tests:
        return "not reached"
    context = multiprocessing.get_context("fork")
    answer: multiprocessing.Queue[str] = context.Queue()
    process = context.Process(target=_tried, args=(mutation, tests, answer))
    process.start()
    process.join(LONGEST_S)
    if process.is_alive():
        process.kill()
        process.join()
        return "killed"
    return answer.get() if process.exitcode == 0 else "killed"


def _worker(
    part: list[Mutation],
    reached: dict[str, list[tuple[float, str]]],
    budget: float,
    out: multiprocessing.Queue[tuple[str, str]],
) -> None:
    with redirect_stdout(io.StringIO()), redirect_stderr(io.StringIO()):
        pytest.main(["--collect-only", "-q", "-p", "no:cacheprovider", "-p", "no:xdist", *TESTS])
    gc.collect()
    for mutation in part:
        out.put((mutation.id, verdict(mutation, reached, budget)))


def main() -> int:
    """Runs the sample, prints survivors and figures; 1 when more than a tenth survive."""
    options = argparse.ArgumentParser(prog="make mutants", description=__doc__)
    options.add_argument("--only", default="", help="mutations whose id contains this; of all of them, not only of the sample")
    options.add_argument("--from-file", type=Path, help="mutations whose ids stand in a file, a line each")
    options.add_argument("--jobs", type=int, default=os.cpu_count() or 1)
    options.add_argument("--budget", type=float, default=BUDGET_S, help="seconds of tests for one mutation")
    options.add_argument("--touched", action="store_true")
    asked = options.parse_args()
    os.environ["QT_QPA_PLATFORM"] = "offscreen"
    reached = touched()
    if asked.touched:
        return 0
    chosen = sample()
    if asked.only:
        chosen = [mutation for mutation in mutations(CORE) if asked.only in mutation.id]
    if asked.from_file:
        ids = set(asked.from_file.read_text().split())
        chosen = [mutation for mutation in mutations(CORE) if mutation.id in ids]
    begun, found = time.monotonic(), {}
    context = multiprocessing.get_context("fork")
    out: multiprocessing.Queue[tuple[str, str]] = context.Queue()
    random.Random(SEED).shuffle(chosen)
    workers = [
        context.Process(target=_worker, args=(chosen[k :: asked.jobs], reached, asked.budget, out)) for k in range(asked.jobs)
    ]
    for worker in workers:
        worker.start()
    known = {mutation.id: mutation for mutation in chosen}
    while len(found) < len(chosen):
        id, said = out.get()
        found[id] = said
        if said != "killed":
            print(f"{said}: {id} (line {known[id].line})", flush=True)
    for worker in workers:
        worker.join()
    _print_figures(known, found)
    print(f"{time.monotonic() - begun:.0f} s")
    return int(sum(said != "killed" for said in found.values()) > 0.1 * len(found))


def _print_figures(known: dict[str, Mutation], found: dict[str, str]) -> None:
    made, left = (
        Counter(known[id].folder for id in found),
        Counter(known[id].folder for id, said in found.items() if said != "killed"),
    )
    print("\n| folder | mutations | survived |\n|---|---|---|")
    for folder in sorted(made):
        print(f"| {folder} | {made[folder]} | {left[folder]} |")
    print(f"| all | {len(found)} | {sum(left.values())} ({100 * sum(left.values()) / max(len(found), 1):.0f} %) |")


if __name__ == "__main__":
    sys.exit(main())
