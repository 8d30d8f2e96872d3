"""Takes the pictures in docs/screenshots anew, from a running ./start with the demo: python ops/screenshots.py
[PORT]"""

from __future__ import annotations

import sys
import time
from pathlib import Path

from selenium import webdriver
from selenium.webdriver.chrome.service import Service
from selenium.webdriver.common.by import By
from selenium.webdriver.support.ui import WebDriverWait

PICTURES = Path(__file__).resolve().parent.parent / "docs" / "screenshots"
BENCH = "/s/ostrey/pieces/pc-main/"
VIEWS = {
    "workbench": BENCH + "?select=it-menu&tray=fit&width=1000&page=/de/",
    "fit": BENCH + "fit/?page=/de/&width=1000",
    "movement": BENCH + "movement/?page=/guide/walks/",
    "pages": "/s/ostrey/pages/",
    "page": "/s/ostrey/pages/pg-press/",
    "menu": "/s/ostrey/menus/mn-main/?select=en-harbours",
    "foundations": "/s/ostrey/foundations/",
    "type": "/s/ostrey/foundations/type/",
    "states": BENCH + "?select=it-book&tray=text&state=hover",
    "languages": "/s/ostrey/pages/languages/",
    "pieces": "/s/ostrey/pieces/new/?arrangement=halves",
    "footer": "/s/ostrey/pieces/pc-footer/?select=it-social",
    "who": "/s/ostrey/pieces/pc-welcome/?page=/harbours/&as=vc-regular&beside=vc-first&tray=who&width=1120",
    "board": "/s/ostrey/board/?as=vc-first&against=vc-regular&cell=notice+below+/harbours/",
    "gates": "/s/ostrey/gates/?page=/press/",
    "findings": "/s/ostrey/findings/?state=let-be&at=wraps~rw-main~it-menu~",
    "editions": "/s/ostrey/editions/",
    "wording": "/s/ostrey/pages/wording/",
}

ACTS = {
    "states": "document.querySelector('[data-test=edit-color]').click()",
    "footer": "document.querySelector('[data-test=seam-it-social]').click();"
    "const typed = document.querySelector('#seam-typed');"
    "setTimeout(() => { typed.value = '+44 1632 960144'; typed.dispatchEvent(new Event('input', {bubbles: true})) }, 300)",
}
"""What is done there before the picture is taken."""


def main() -> None:
    port = sys.argv[1] if len(sys.argv) > 1 else "8700"
    options = webdriver.ChromeOptions()
    options.binary_location = "/usr/bin/chromium"
    for flag in (
        "--headless=new",
        "--no-sandbox",
        "--disable-gpu",
        "--hide-scrollbars",
        "--disable-background-networking",
    ):
        options.add_argument(flag)
    driver = webdriver.Chrome(options=options, service=Service("/usr/bin/chromedriver"))
    try:
        metrics = {"width": 1280, "height": 800, "deviceScaleFactor": 1, "mobile": False}
        driver.execute_cdp_cmd("Emulation.setDeviceMetricsOverride", metrics)
        driver.get(f"http://localhost:{port}/account/sign-in/")
        driver.find_element(By.NAME, "username").send_keys("designer")
        driver.find_element(By.NAME, "password").send_keys("ferry-and-fern\n")
        time.sleep(1)
        for name, path in VIEWS.items():
            _take(driver, f"http://localhost:{port}{path}", name, ACTS.get(name, ""), 2.0)
        time.sleep(1)
        _take(
            driver,
            f"http://ostrey.localhost:{port}/harbours/",
            "published",
            "document.querySelector('[data-rim-branch]').click()",
        )
    finally:
        driver.quit()


def _take(driver: webdriver.Chrome, address: str, name: str, script: str = "", wait_s: float = 0.5) -> None:
    """Once all is looked at that is looked at there."""
    driver.get(address)
    time.sleep(1.5)
    WebDriverWait(driver, 30).until_not(lambda there: there.find_elements(By.CSS_SELECTOR, "[data-test=looking]"))
    if script:
        driver.execute_script(script)
        time.sleep(wait_s)
    driver.save_screenshot(str(PICTURES / f"{name}.png"))


if __name__ == "__main__":
    main()
