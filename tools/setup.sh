#!/usr/bin/env bash
# Sets up a virtual environment with the pinned dependencies, and the system libraries that Qt needs.
# Usage: setup.sh VENV
set -euo pipefail
venv=$1
python=${PYTHON:-}
if [ -z "$python" ]; then
  for name in python3.11 python3.12 python3.13 python3; do
    if command -v "$name" >/dev/null 2>&1 && "$name" -c 'import sys; sys.exit(sys.version_info < (3, 11))' 2>/dev/null; then
      python=$name
      break
    fi
  done
fi
[ -n "$python" ] || { echo "setup: Python 3.11 or newer is needed: install python3." >&2; exit 1; }

# Libraries that the Qt wheels load, what the tests start (an X server, readers of PDF and HP-GL), and their Debian packages.
missing=()
need_lib() { ldconfig -p 2>/dev/null | grep -q "$1" || missing+=("$2"); }
PATH="$PATH:/sbin:/usr/sbin"
need_lib libEGL.so.1 libegl1
need_lib libGL.so.1 libgl1
need_lib libglib-2.0.so.0 libglib2.0-0
need_lib libfontconfig.so.1 libfontconfig1
need_lib libdbus-1.so.3 libdbus-1-3
need_lib libxkbcommon-x11.so.0 libxkbcommon-x11-0
need_lib libxcb-cursor.so.0 libxcb-cursor0
need_lib libxcb-icccm.so.4 libxcb-icccm4
need_lib libxcb-image.so.0 libxcb-image0
need_lib libxcb-keysyms.so.1 libxcb-keysyms1
need_lib libxcb-randr.so.0 libxcb-randr0
need_lib libxcb-render-util.so.0 libxcb-render-util0
need_lib libxcb-shape.so.0 libxcb-shape0
need_lib libxcb-xinerama.so.0 libxcb-xinerama0
command -v pdftotext >/dev/null 2>&1 || missing+=(poppler-utils)
command -v hp2xx >/dev/null 2>&1 || missing+=(hp2xx)
command -v g++ >/dev/null 2>&1 || missing+=(g++)
[ -e /usr/include/dxflib/dl_dxf.h ] || missing+=(libdxflib-dev)
command -v Xvfb >/dev/null 2>&1 || missing+=(xvfb)
"$python" -c 'import ensurepip, venv' 2>/dev/null || missing+=("python$("$python" -c 'import sys; print("%d.%d" % sys.version_info[:2])')-venv")

if [ ${#missing[@]} -gt 0 ]; then
  as_root=()
  if [ "$(id -u)" -ne 0 ]; then
    if command -v sudo >/dev/null 2>&1 && sudo -n true 2>/dev/null; then as_root=(sudo -n); else
      echo "setup: these system packages are missing; run: sudo apt-get install ${missing[*]}" >&2
      exit 1
    fi
  fi
  if ! command -v apt-get >/dev/null 2>&1; then
    echo "setup: these system libraries are missing (Debian's names): ${missing[*]}" >&2
    exit 1
  fi
  echo "setup: installing ${missing[*]}"
  "${as_root[@]}" apt-get update -qq
  "${as_root[@]}" env DEBIAN_FRONTEND=noninteractive apt-get install -y -qq --no-install-recommends "${missing[@]}" >/dev/null
fi

echo "setup: installing the pinned Python packages into $venv"
"$python" -m venv "$venv"
"$venv/bin/python" -m pip install --quiet --disable-pip-version-check --require-hashes --requirement requirements.lock
"$venv/bin/python" -m pip install --quiet --disable-pip-version-check --no-deps --no-build-isolation --editable .
