"""Where Chromium is, and how it is started so that it asks nothing of the network: for the tests and for the pictures.

Debian has the engine by itself too, without a window's parts around it: a fresh page costs half the processor's time.
"""

import os
from pathlib import Path

CHROMIUM = os.environ.get("CHROMIUM") or next(
    (way for way in ("/usr/bin/chromium-headless-shell", "/usr/bin/chromium") if Path(way).exists()), "chromium"
)
FLAGS = [
    "--headless",
    "--no-sandbox",
    "--disable-gpu",
    "--disable-quic",
    "--no-first-run",
    "--disable-background-networking",
    "--disable-component-update",
    "--disable-sync",
    "--use-fake-device-for-media-stream",
    "--use-fake-ui-for-media-stream",
]
