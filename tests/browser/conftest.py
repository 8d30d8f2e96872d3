"""The whole application, as ./start runs it, and real browsers to use it with."""

from __future__ import annotations

import json
import os
import re
import shutil
import signal
import socket
import subprocess
import sys
import time
import urllib.error
import urllib.request
from collections import defaultdict
from collections.abc import Callable, Iterable, Iterator
from contextlib import contextmanager
from http.client import HTTPConnection, HTTPResponse
from http.cookiejar import CookieJar
from itertools import count
from pathlib import Path
from typing import Any, ClassVar, Literal, TypeAlias
from urllib.parse import urlencode

import pytest
from selenium import webdriver
from selenium.webdriver.chrome.service import Service
from selenium.webdriver.common.action_chains import ActionChains
from selenium.webdriver.common.by import By
from selenium.webdriver.common.keys import Keys
from selenium.webdriver.remote.webelement import WebElement
from websocket import create_connection

from tests.consent_judge import Proxy, behind
from tests.folder import Folder
from tests.gates_judge import RIGHT
from upper_rim.core.kinds.pieces.password import PasswordGate
from upper_rim.core.model.site import Site

ROOT = Path(__file__).resolve().parent.parent.parent
PATIENCE_S = 30.0
LINGER = "const soon = setTimeout; window.setTimeout = (then, ms, ...given) => soon(then, 10 * ms, ...given)"
DESIGNER = ("designer", "ferry-and-fern")


def _found(pattern: str, text: str) -> str:
    found = re.search(pattern, text)
    assert found is not None, f"no {pattern}"
    return found[1]


class Running:
    """`./start` on a free port, with a database of its own."""

    def __init__(self) -> None:
        self.folder = ROOT / ".run" / f"browser-{os.getpid()}"
        with socket.socket() as probe:
            probe.bind(("127.0.0.1", 0))
            self.port = probe.getsockname()[1]
        self.studio = f"http://localhost:{self.port}"
        self._cookies: dict[str, CookieJar] = {}
        self.begin()

    def begin(self) -> None:
        command = [sys.executable, str(ROOT / "ops" / "run.py"), "--port", str(self.port), "--workers", "2"]
        environment = {key: value for key, value in os.environ.items() if not key.startswith("RIM_")}
        self.folder.mkdir(parents=True, exist_ok=True)
        self._log = (self.folder / "log.txt").open("a")
        self._process = subprocess.Popen(
            command, env={**environment, "RIM_RUN_FOLDER": str(self.folder)}, stdout=self._log, stderr=self._log
        )
        try:
            wait_for(lambda: "Upper Rim runs." in (self.folder / "log.txt").read_text(), 90)
        except BaseException:
            self.stop()
            raise

    def stop(self) -> None:
        self._process.send_signal(signal.SIGINT)
        self._process.wait(60)
        self._log.close()
        (self.folder / "log.txt").write_text("")

    def restart_database(self) -> None:
        code = "import pathlib, sys, database; database.Cluster(pathlib.Path(sys.argv[1]), 'main').restart()"
        subprocess.run([sys.executable, "-c", code, str(self.folder)], cwd=ROOT / "ops", check=True)

    def process(self, name: str) -> int:
        return int(json.loads((self.folder / "processes.json").read_text())[name])

    def live(self, slug: str) -> str:
        return f"http://{slug}.localhost:{self.port}"

    def session(self, name: str, password: str) -> str:
        """The session of somebody who has signed in, for the cookie that browsers send; one for the whole run."""
        if name not in self._cookies:
            self._cookies[name] = CookieJar()
            self._post(name, "/account/sign-in/", username=name, password=password)
        return next(str(cookie.value) for cookie in self._cookies[name] if cookie.name == "sessionid")

    @contextmanager
    def undone_afterwards(self, *slugs: str) -> Iterator[None]:
        """What anybody does to these sites meanwhile is taken back, whatever was undone of it."""
        self.session(*DESIGNER)
        before = {slug: self._revision(slug) for slug in slugs}
        try:
            yield
        finally:
            for slug, revision in before.items():
                if self._revision(slug) != revision:
                    self._post(DESIGNER[0], f"/s/{slug}/past/", back=str(revision))

    def _revision(self, slug: str) -> int:
        return int(_found(r'name="base" value="(\d+)', self._ask(DESIGNER[0], f"/s/{slug}/past/")))

    def _ask(self, name: str, path: str, form: bytes | None = None) -> str:
        opener = urllib.request.build_opener(urllib.request.HTTPCookieProcessor(self._cookies[name]))
        address = self.studio + path
        with opener.open(urllib.request.Request(address, form, {"Referer": address}), timeout=30) as answer:
            return str(answer.read().decode())

    def _post(self, name: str, path: str, **said: str) -> None:
        token = _found(r'csrfmiddlewaretoken" value="([^"]+)', self._ask(name, path))
        self._ask(name, path, urlencode({**said, "csrfmiddlewaretoken": token}).encode())

    def passes(self, slug: str, path: str, gate: str) -> str:
        """The cookie of somebody who has passed a gate of the demo."""
        said = urlencode({**AT_GATES, "gate": gate, "answer": "yes"}).encode()
        connection = HTTPConnection("127.0.0.1", self.port, timeout=20)
        headers = {"Host": f"{slug}.localhost:{self.port}", "Content-Type": "application/x-www-form-urlencoded"}
        connection.request("POST", path, said, headers)
        kept = connection.getresponse().getheader("Set-Cookie", "")
        connection.close()
        return str(kept).partition(";")[0]

    def fetch(self, slug: str, path: str, cookies: str = "") -> tuple[int, bytes]:
        """A file of a published site, as it is sent."""
        headers = {"Host": f"{slug}.localhost:{self.port}", "Cookie": cookies}
        request = urllib.request.Request(f"http://127.0.0.1:{self.port}{path}", headers=headers)
        try:
            answer: HTTPResponse = urllib.request.urlopen(request, timeout=20)
            return answer.status, answer.read()
        except urllib.error.HTTPError as error:
            return error.code, error.read()


def wait_for(condition: Callable[[], Any], seconds: float = PATIENCE_S) -> Any:
    """What the condition gives, once it is true; the last fault where it never is."""
    until = time.monotonic() + seconds
    fault: Exception | None = None
    while time.monotonic() < until:
        try:
            found = condition()
            if found:
                return found
        except Exception as error:
            fault = error
        time.sleep(0.05)
    raise AssertionError("this did not come true in time") from fault


@pytest.fixture
def proxy() -> Iterator[Proxy]:
    made = Proxy()
    yield made
    made.close()


@pytest.fixture
def driver(proxy: Proxy) -> Iterator[webdriver.Chrome]:
    made = behind(proxy, chromium_options())
    yield made
    made.quit()


@pytest.fixture
def live(live_server: Any, settings: Any) -> Callable[[Site, dict[str, bytes]], str]:
    """Publishes a site at a host of its own, with `RIGHT` as the password of each door."""
    # Only here: what measures asks for a browser without Django.
    from django.contrib.auth.hashers import make_password
    from django.contrib.auth.models import User

    from upper_rim.web.jobs import publishing
    from upper_rim.web.sites import store

    settings.REGION_HEADER = "X-Region"
    settings.PASSWORD_HASHERS = ["django.contrib.auth.hashers.MD5PasswordHasher"]
    ada, names = User.objects.create_user("ada"), count()
    port = live_server.url.rpartition(":")[2]

    def publish(site: Site, contents: dict[str, bytes]) -> str:
        slug = f"judged-{next(names)}"
        stored = store.new_site(ada, site, contents, slug=slug)
        for gate in (piece for piece in site.pieces if isinstance(piece, PasswordGate)):
            stored.passwords.create(gate=gate.id, label="All", hash=make_password(RIGHT), stamp="x")
        publishing.make_edition(publishing.new_edition(stored, ada.pk).pk)
        return f"http://{slug}.localhost:{port}"

    return publish


@pytest.fixture
def folder() -> Iterator[Folder]:
    made = Folder()
    yield made
    made.close()


@pytest.fixture(scope="session")
def running() -> Iterator[Running]:
    application = Running()
    yield application
    Chromium.quit_idle()
    application.stop()
    shutil.rmtree(application.folder, ignore_errors=True)
    for left in Path("/var/lib/postgresql").glob("upper-rim-*-main") if os.geteuid() == 0 else ():
        if not (left / "postmaster.pid").exists():
            shutil.rmtree(left, ignore_errors=True)


Frames: TypeAlias = Literal["timed", "hastened", "none"]
"""What a browser draws: sixty frames in a second; one after the other as soon as it is made, for scripts that wait for
frames, on pages where nothing moves without end; or none at all, for who asks where boxes are and for nothing that
needs a frame (a transition, an event of scrolling): the headless shell draws none without its compositor's threads, in
half the time."""

_FLAGS: dict[Frames, tuple[str, ...]] = {
    "timed": (),
    "hastened": ("--disable-frame-rate-limit",),
    "none": ("--disable-threaded-compositing",),
}


def chromium_options(frames: Frames = "timed", *, bars: bool = False) -> webdriver.ChromeOptions:
    """Chromium's headless shell: the same engine without a desktop's windows, in two thirds of the time. Its texts are
    not hinted and frames of other sites have processes of their own, as in the browser that people use; what is
    drawn, which nobody sees, is drawn without a process of its own. `bars`: with scroll bars that take room."""
    options = webdriver.ChromeOptions()
    options.binary_location = "/usr/lib/chromium/chromium-headless-shell"
    for flag in (
        "--font-render-hinting=none",
        "--site-per-process",
        "--no-sandbox",
        "--disable-gpu",
        "--in-process-gpu",
        "--disable-quic",
        "--no-first-run",
        "--disable-dev-shm-usage",
        "--disable-background-networking",
        "--disable-component-update",
        "--disable-sync",
        *([] if bars else ["--hide-scrollbars"]),
        "--window-size=1280,800",
        *_FLAGS[frames],
    ):
        options.add_argument(flag)
    return options


def plain_chromium(
    *logs: str, frames: Frames = "timed", flags: Iterable[str] = (), bars: bool = False
) -> webdriver.Chrome:
    """A browser by itself, for pages that no server sends. `logs`: kinds of logs that it keeps whole."""
    options = chromium_options(frames, bars=bars)
    for flag in flags:
        options.add_argument(flag)
    options.set_capability("goog:loggingPrefs", dict.fromkeys(logs, "ALL"))
    driver = webdriver.Chrome(options=options, service=Service("/usr/bin/chromedriver"))
    ask_nobody(driver)
    return driver


def load_faces(driver: webdriver.Chrome) -> None:
    """Waits for all of the page's faces, also those of texts that do not show yet: until a layout asks for a face, a
    page says that its faces are loaded, and a face that comes late swaps its text."""
    driver.execute_async_script(
        "const done = arguments[0];"
        "Promise.allSettled([...document.fonts].map((face) => face.load())).then(() => document.fonts.ready).then(() => done());"
    )


def load_what_comes_late(driver: webdriver.Chrome) -> None:
    """Fetches what a page fetches when a part is first pointed at or focused, with its CSS: wherever the pointer
    happens to lie, nothing comes later."""
    driver.execute_async_script(
        "const done = arguments[0], late = [...document.querySelectorAll('[data-rim-late]')];"
        "Promise.all(late.map((part) => import(part.dataset.rimLate))).then(() => done());"
    )


class Chromium:
    """A browser that stays open: each of its windows is somebody else's, with no cookies, storage and cache of
    another."""

    idle: ClassVar[defaultdict[Frames, list[Chromium]]] = defaultdict(list)

    def __init__(self, frames: Frames) -> None:
        options = chromium_options(frames)
        self._frames: Frames = frames
        options.set_capability("goog:loggingPrefs", {"browser": "ALL"})
        self.driver = webdriver.Chrome(options=options, service=Service("/usr/bin/chromedriver"))
        self.driver.set_script_timeout(60)
        self._first = self.driver.current_window_handle
        about = f"http://{self.driver.capabilities['goog:chromeOptions']['debuggerAddress']}/json/version"
        address = json.loads(urllib.request.urlopen(about, timeout=30).read())["webSocketDebuggerUrl"]
        self._socket = create_connection(address, suppress_origin=True, timeout=30)
        self._context = ""

    def open(self, downloads: Path) -> None:
        self._context = self._asked("Target.createBrowserContext")["browserContextId"]
        window = self._asked("Target.createTarget", url="about:blank", browserContextId=self._context)["targetId"]
        folder = {"behavior": "allow", "downloadPath": str(downloads)}
        self._asked("Browser.setDownloadBehavior", browserContextId=self._context, **folder)
        self.driver.switch_to.window(window)
        self.driver.get_log("browser")

    def close(self) -> None:
        self._asked("Target.disposeBrowserContext", browserContextId=self._context)
        self.driver.switch_to.window(self._first)
        self.idle[self._frames].append(self)

    @classmethod
    def quit_idle(cls) -> None:
        for one in (one for idle in cls.idle.values() for one in idle):
            one.driver.quit()
        cls.idle.clear()

    def _asked(self, method: str, **parameters: str) -> dict[str, str]:
        """Of the browser itself (Chrome DevTools Protocol), which a window may not ask."""
        self._socket.send(json.dumps({"id": 1, "method": method, "params": parameters}))
        while "id" not in (answer := json.loads(self._socket.recv())):
            pass
        result: dict[str, str] = answer["result"]
        return result


def shown_on_stage(css: str) -> str:
    """The one of what a selector matches that shows, as an expression."""
    return f"[...document.querySelectorAll('{css}')].find((one) => one.checkVisibility())"


def handle_on_stage(name: str) -> str:
    """The handle of what is chosen that turns a size, as an expression."""
    marks = "[...(document.querySelector('[data-rim-handles]')?.shadowRoot.querySelectorAll('i') ?? [])]"
    return f"{marks}.find((one) => one.dataset.handle === '{name}' && !one.parentElement.hidden)"


def _press(driver: webdriver.Chrome, *pressed: str) -> None:
    *held, last = pressed
    chain = ActionChains(driver)
    for key in held:
        chain.key_down(key)
    chain.send_keys(last)
    for key in reversed(held):
        chain.key_up(key)
    chain.perform()


AT_GATES = {"password": "tide-and-tern", "day": "1", "month": "1", "year": "1970"}
"""What opens the gates of the demo."""


def let_in(driver: webdriver.Chrome) -> None:
    """Passes the gate of the demo that stands here, if one does."""
    if not driver.find_elements(By.NAME, "gate"):
        return
    for name, said in AT_GATES.items():
        for field in driver.find_elements(By.NAME, name):
            field.send_keys(said)
    driver.find_element(By.CSS_SELECTOR, "[name=answer][value=yes]:not([tabindex])").click()
    wait_for(lambda: not driver.find_elements(By.NAME, "gate"))


def ask_nobody(driver: webdriver.Chrome) -> None:
    """Published pages are as they are for somebody who has answered: no question stands over them."""
    gone = "document.addEventListener('DOMContentLoaded', () => document.querySelectorAll('[data-rim-question]:not([data-rim-node])').forEach((one) => one.remove()))"
    driver.execute_cdp_cmd("Page.addScriptToEvaluateOnNewDocument", {"source": gone})


class Browser:
    """A Chromium window, and short ways to do what a person does in it."""

    def __init__(self, running: Running, downloads: Path, frames: Frames = "timed", *, asks: bool = False) -> None:
        """`asks`: questions about consent stand on published pages."""
        idle = Chromium.idle[frames]
        self._chromium = idle.pop() if idle else Chromium(frames)
        self._chromium.open(downloads)
        self.driver = self._chromium.driver
        self.running = running
        if not asks:
            ask_nobody(self.driver)
        self.resize(1280, 800)

    def resize(self, width: int, height: int) -> None:
        self.driver.execute_cdp_cmd(
            "Emulation.setDeviceMetricsOverride",
            {"width": width, "height": height, "deviceScaleFactor": 1, "mobile": False},
        )

    def go(self, path: str) -> None:
        self.driver.get(path if path.startswith("http") else self.running.studio + path)

    def sign_in(self, name: str = DESIGNER[0], password: str = DESIGNER[1]) -> None:
        """With the session of somebody who has signed in elsewhere."""
        session = self.running.session(name, password)
        cookie = {"name": "sessionid", "value": session, "url": self.running.studio, "httpOnly": True}
        self.driver.execute_cdp_cmd("Network.setCookie", cookie)
        self.go("/")

    def sign_in_by_hand(self, name: str, password: str) -> None:
        self.go("/account/sign-in/")
        self.driver.find_element(By.NAME, "username").send_keys(name)
        self.driver.find_element(By.NAME, "password").send_keys(password + "\n")
        wait_for(lambda: self.all("home") and "/account/" not in self.driver.current_url)

    def all(self, test: str) -> list[WebElement]:
        return self.driver.find_elements(By.CSS_SELECTOR, f'[data-test="{test}"]')

    def one(self, test: str, which: int = 0) -> WebElement:
        return wait_for(lambda: self.all(test))[which]

    def press(self, test: str) -> None:
        self.acted(lambda: self.unfolded(test).click())

    def unfolded(self, test: str, which: int = 0) -> WebElement:
        """Shown, where it stands among what a group shows only when it is asked for more."""
        found = self.one(test, which)
        self.js("const more = arguments[0].closest('details[data-more]'); if (more) more.open = true", found)
        return found

    def fill(self, test: str, text: str) -> None:
        """Types into a field, without leaving it."""
        field = self.unfolded(test)
        field.clear() if not text else self.js("arguments[0].value = ''", field)
        field.send_keys(text)

    def change(self, test: str, text: str, which: int = 0) -> None:
        """Types into a control of its own form and leaves it, as with the Tab key."""

        def act() -> None:
            field = self.unfolded(test, which)
            # In a field that has the focus nothing is shown anew.
            self.js("arguments[0].focus(); arguments[0].value = ''", field)
            field.send_keys(text + "\t")

        self.acted(act)

    def choose(self, test: str, value: str) -> None:
        self.acted(
            lambda: self.js(
                "arguments[0].value = arguments[1]; arguments[0].dispatchEvent(new Event('change', {bubbles: true}))",
                self.one(test),
                value,
            )
        )

    def acted(self, act: Callable[[], Any]) -> None:
        """Does something and waits until what it asked of the server is there and settled: some time after the answer,
        by a timer that was set before ours."""
        self.js(
            "if (!window.rimOpen) { window.rimOpen = new Set();"
            "document.addEventListener('htmx:beforeRequest', (e) => { if (e.detail.elt.id !== 'watch') rimOpen.add(e.detail.xhr) });"
            "document.addEventListener('htmx:afterRequest', (e) => setTimeout(() => rimOpen.delete(e.detail.xhr), htmx.config.defaultSettleDelay + 1)); }"
        )
        act()
        self.settled()

    def settled(self) -> None:
        time.sleep(0.06)
        wait_for(
            lambda: self.js(
                "return document.readyState === 'complete' && (window.rimOpen === undefined || rimOpen.size === 0)"
            )
        )

    def revision(self) -> int:
        return int(self.js("return document.querySelector('[name=base]').value"))

    def publish_anyway(self) -> None:
        """On the screen of the editions; also where it is asked once more, since something breaks."""

        def newest() -> str | None:
            listed = self.all("edition")
            return listed[0].get_attribute("data-number") if listed else None

        before = newest()
        self.press("publish")
        wait_for(lambda: self.all("asks") or newest() != before)
        if self.all("asks"):
            self.press("publish-anyway")
            wait_for(lambda: newest() != before)

    def begin_piece(self, slug: str, arrangement: str, name: str = "") -> None:
        """Begins a piece with what is seen, and looks at it on the workbench."""
        self.go(f"/s/{slug}/pieces/new/?arrangement={arrangement}")
        self.fill("piece-name", name)
        self.press("begin")
        wait_for(lambda: "/pieces/pc-" in self.driver.current_url and self.all("stage"))

    def insert(self, typed: str) -> None:
        """Says at the seam behind what is chosen what is to come, and takes the likeliest."""
        self.one("insert").click()
        self.insert_here(typed)

    def insert_here(self, typed: str) -> None:
        """The same, where the seam is open."""
        self.one("seam-typed").send_keys(typed)
        wait_for(lambda: self.one("seam-list").get_attribute("data-typed") == typed and self.all("candidate"))
        self.acted(lambda: self.keys(Keys.ENTER))

    def keys(self, *pressed: str) -> None:
        """Presses a key while those before it are held."""
        _press(self.driver, *pressed)

    def js(self, script: str, *arguments: Any) -> Any:
        return self.driver.execute_script(script, *arguments)

    def take_piece_away(self) -> None:
        """The piece on the workbench goes again, so that the next test finds the site as it was."""
        site, piece = self.driver.current_url.split("?")[0].rstrip("/").rsplit("/pieces/", 1)
        self.go(f"{site}/pieces/")
        form = {"do": "remove", "node": piece}
        assert f"/pieces/{piece}/" not in self.posted(form, "document.body.innerHTML", f"{site}/pieces/")

    def posted(self, values: dict[str, str], shown: str = "true", url: str = "") -> Any:
        """Posts to a screen, the one that is shown where none is named. Gives what `shown` is in the script as soon as the
        answer is put onto the screen."""
        script = """
const [url, values, done] = arguments;
const put = ({ detail }) => {
  if (detail.requestConfig.verb !== 'post') return;
  document.removeEventListener('htmx:afterOnLoad', put);
  done(%s);
};
document.addEventListener('htmx:afterOnLoad', put);
htmx.ajax('POST', url || location.pathname, { source: '#screen', target: '#screen', swap: 'morph:innerHTML', values });
"""
        return self.driver.execute_async_script(script % shown, url, values)

    def watch_posts(self) -> None:
        """From now on what the screen posts is counted (`posts`)."""
        self.js(
            "window.rimPosts = 0;"
            "document.addEventListener('htmx:beforeRequest', ({detail}) => (rimPosts += detail.requestConfig.verb === 'post'));"
        )

    def posts(self) -> int:
        return int(self.js("return rimPosts"))

    def linger(self) -> None:
        """From now on what waits for a pause between keys waits ten times as long, on the screen and on its stage, so
        that a slow machine makes no pause of two keys that follow each other."""
        self.js(LINGER)
        self.on_stage_js(LINGER)

    def on_stage(self) -> Stage:
        return Stage(self)

    def on_stage_js(self, script: str, *arguments: Any) -> Any:
        with self.on_stage() as driver:
            return driver.execute_script(script, *arguments)

    def stage_keys(self, *pressed: str) -> None:
        with self.on_stage() as driver:
            _press(driver, *pressed)

    def on_screen(self, element: str, across: float = 0.5, down: float = 0.5) -> tuple[float, float]:
        """Where a place of an element's box on the stage, however small that is drawn, lies in the window: `element` is
        an expression of JavaScript, the place in shares of the box. Told once neither it nor the stage moves."""
        box = f"const {{left, top, width, height}} = ({element}).getBoundingClientRect(); return [left, top, width, height]"
        stage = "const stage = document.querySelector('#stage'), {left, top, width} = stage.getBoundingClientRect(); return [left, top, width / stage.offsetWidth]"
        places: list[list[float]] = []

        def stands() -> bool:
            places.append([*self.on_stage_js(box), *self.js(stage)])
            return places[-1:] == places[-2:-1]

        wait_for(stands)
        left, top, width, height, x, y, scale = places[-1]
        return x + scale * (left + width * across), y + scale * (top + height * down)

    def mouse(self, kind: str, x: float, y: float, is_down: bool = False, alt: bool = False, count: int = 1) -> None:
        """`kind`: mouseMoved, mousePressed or mouseReleased, at a place of the window, whichever frame is there."""
        is_over = kind == "mouseMoved" and not is_down
        about = {"button": "none" if is_over else "left", "buttons": int(is_down), "modifiers": int(alt)}
        event = {"type": kind, "x": x, "y": y, "clickCount": count, **about}
        self.driver.execute_cdp_cmd("Input.dispatchMouseEvent", event)

    def drag_on_stage(self, what: str, onto: str, across: float, down: float = 0.5) -> str:
        """From the middle of one thing to a place of another's box; both are expressions, as for `on_screen`. Gives what
        the mark there said before it was let go: where, and of which node."""
        begin, to = self.on_screen(what), self.on_screen(onto, across, down)
        with self.held(*begin) as pull:
            for step in range(1, 13):
                pull(begin[0] + (to[0] - begin[0]) * step / 12, begin[1] + (to[1] - begin[1]) * step / 12)
            landing = self.on_stage_js("return document.querySelector('[data-rim-landing]')?.dataset.rimLanding")
            assert landing, "no mark where it will land"
        self.settled()
        return str(landing)

    @contextmanager
    def held(self, x: float, y: float) -> Iterator[Callable[..., None]]:
        """Presses there, once the frame that is seen there is told of the pointer, and lets go where it was moved to last."""
        at = (x, y)

        def pull(x: float, y: float, alt: bool = False) -> None:
            nonlocal at
            at = (x, y)
            self.mouse("mouseMoved", x, y, is_down=True, alt=alt)

        if self.js("return document.elementFromPoint(...arguments)?.id === 'stage'", x, y):
            # A press goes by what was painted last: a window that is not yet there lets it fall to what is around it.
            is_told = "return document.querySelector(':hover') !== null"
            wait_for(lambda: self.mouse("mouseMoved", x, y) or self.on_stage_js(is_told))
        else:
            self.mouse("mouseMoved", x, y)
        self.mouse("mousePressed", x, y, is_down=True)
        try:
            yield pull
        finally:
            self.mouse("mouseReleased", *at)

    def quit(self) -> None:
        self._chromium.close()


@pytest.fixture(scope="module", autouse=True)
def as_they_were(running: Running) -> Iterator[None]:
    """The next module finds the sites of the demo as this one did."""
    with running.undone_afterwards("ostrey", "quillwort"):
        yield


@pytest.fixture(scope="module")
def bench(running: Any, tmp_path_factory: pytest.TempPathFactory) -> Any:
    """A signed-in browser of a module's own."""
    browser = Browser(running, tmp_path_factory.mktemp("downloads"))
    browser.sign_in()
    yield browser
    browser.quit()


def live_edition(browser: Browser) -> str | None:
    live = [
        one for one in browser.all("edition") if "live at" in one.text and one.get_attribute("data-state") == "done"
    ]
    return live[0].get_attribute("data-number") if live else None


class Stage:
    """Within: what is looked for is looked for on the stage."""

    def __init__(self, browser: Browser) -> None:
        self.browser = browser

    def __enter__(self) -> webdriver.Chrome:
        self.browser.driver.switch_to.frame(self.browser.one("stage"))
        return self.browser.driver

    def __exit__(self, *_: object) -> None:
        self.browser.driver.switch_to.default_content()


@pytest.fixture
def new_browser(running: Running, tmp_path: Path) -> Iterator[Callable[[], Browser]]:
    opened: list[Browser] = []

    def begin() -> Browser:
        opened.append(Browser(running, tmp_path))
        return opened[-1]

    yield begin
    for browser in opened:
        browser.quit()


@pytest.fixture
def browser(new_browser: Callable[[], Browser]) -> Browser:
    return new_browser()


@pytest.fixture(scope="module")
def measurer(running: Running, tmp_path_factory: pytest.TempPathFactory) -> Iterator[Browser]:
    """Of pages that nobody does anything on."""
    browser = Browser(running, tmp_path_factory.mktemp("downloads"), frames="none")
    yield browser
    browser.quit()
