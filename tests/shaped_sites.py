"""Sites of others' making in small: one for each shape that a page's body can have."""

from __future__ import annotations

from random import Random
from typing import NamedTuple

WORDS = "<p>The hut is open from May to October, and the path to it from June.</p>"
CARD = f'<main><h1>The hut</h1>{WORDS * 3}<p><a href="/other.html">Other</a> <button>Ask</button></p></main>'
SIDE = '<nav class="side"><a href="/">Home</a> <a href="/other.html">Other</a></nav>'


class Shaped(NamedTuple):
    """`css`: the site's own sheet; `body`: what stands in the page's body; `root`: attributes of the root element."""

    css: str
    body: str = CARD
    body_tag: str = "<body>"
    root: str = ' lang="en"'
    doctype: str = "<!doctype html>"
    head: str = '<meta name="viewport" content="width=device-width, initial-scale=1">'

    def files(self) -> dict[str, bytes]:
        """Of an archive: the page, and its sheet, in a folder beside it."""
        link = '<link rel="stylesheet" href="look/site.css">' if self.css else ""
        page = (
            f'{self.doctype}<html{self.root}><head><meta charset="utf-8"><title>The hut</title>{self.head}{link}</head>'
            f"{self.body_tag}{self.body}</body></html>"
        )
        return {"index.html": page.encode(), **({"look/site.css": self.css.encode()} if self.css else {})}


SHAPES = {
    "no css": Shaped(""),
    "no css, quirks": Shaped("", doctype=""),
    "reset": Shaped("*{margin:0;padding:0;box-sizing:border-box} main{padding:20px}"),
    "narrow": Shaped("body{max-width:770px;margin:0 auto;padding:0 16px}"),
    "narrow, one side": Shaped("body{width:60%;margin:2em 4em 0 10%;min-width:200px}"),
    "narrow, in em": Shaped("body{max-width:46rem;margin:3em auto;padding:2em;font-size:18px;line-height:1.5}"),
    "62.5 %": Shaped("html{font-size:62.5%} body{font-size:1.6rem;max-width:70rem;margin:2rem auto}"),
    "borders": Shaped("body{margin:12px;border:6px solid teal;padding:10px;border-radius:9px}"),
    "card on a ground": Shaped("html{background:#ccd} body{background:#fff;max-width:600px;margin:30px auto;padding:20px}"),
    "row flex": Shaped(
        "body{margin:0;display:flex} .side{flex:0 0 220px;padding:12px;background:#eee} main{flex:1;padding:20px}", SIDE + CARD
    ),
    "row flex, children": Shaped(
        "body{margin:0;display:flex;min-height:100vh} body>nav{width:200px;background:#eee} body>main{flex:1;padding:0 30px}"
        "@media (max-width:600px){body{display:block} body > nav{width:auto}}",
        SIDE + CARD,
    ),
    "in the middle": Shaped(
        "body{margin:0;min-height:100vh;display:flex;align-items:center;justify-content:center} main{width:300px}"
    ),
    "column flex": Shaped("body{margin:0;display:flex;flex-direction:column;min-height:100vh} main{flex:1;padding:20px}"),
    "column flex, centred": Shaped("body{margin:0 auto;display:flex;flex-flow:column;align-items:center;gap:2rem} main{width:80%}"),
    "grid": Shaped(
        "body{margin:0;display:grid;grid-template-columns:200px 1fr;gap:16px} .side{background:#eee} main{padding:0 20px}", SIDE + CARD
    ),
    "grid, areas": Shaped(
        'body{margin:0;display:grid;grid-template:"side main" 1fr / minmax(120px,20%) 1fr;min-height:100vh}'
        ".side{grid-area:side} main{grid-area:main}",
        SIDE + CARD,
    ),
    "columns": Shaped("body{margin:20px;columns:2;column-gap:30px}", CARD + CARD),
    "floating": Shaped("body{float:left;width:500px;margin:0 20px}"),
    "right to left": Shaped("body{max-width:700px;margin-inline:auto 40px;padding-inline-start:30px}", root=' lang="ar" dir="rtl"'),
    "dark": Shaped(":root{color-scheme:dark;background:#111;color:#eee} body{max-width:760px;margin:auto}"),
    "in layers": Shaped("@layer base,site;@layer site{body{margin:40px auto;max-width:500px}} @layer base{body{margin:0}}"),
    "imported": Shaped('@import "more/page.css" screen;'),
    "by its class": Shaped("body{margin:0} body.home#top{padding:24px} .away{padding:90px}", body_tag='<body class="home" id="top">'),
    "by its attribute": Shaped("body{margin:0!important}", body_tag='<body style="margin:50px;padding-left:40px">'),
    "custom properties": Shaped(":root{--wide:640px;--gap:3vw} body{max-width:var(--wide);margin:0 auto;padding:calc(var(--gap) + 4px)}"),
    "widths": Shaped("body{margin:0} @media (min-width:700px){body{margin:0 10vw;padding:20px}} @media print{body{display:grid}}"),
    "as high as the window": Shaped("html,body{height:100%} body{margin:0;padding:10px;box-sizing:border-box}"),
}  # fmt: skip
LONG = CARD.replace(WORDS, WORDS * 20)
BAR = '<div class="bar"><a href="/other.html">Bar</a></div>'
SCROLLING = {
    "plain": Shaped("body{margin:0}", LONG),
    "narrow": Shaped("body{max-width:700px;margin:0 auto}", LONG),
    "heights": Shaped("html,body{height:100%;margin:0}", LONG),
    "heights and padding": Shaped("html,body{height:100%;margin:0} body{padding:20px}", LONG),
    "heights all the way": Shaped("html,body,#app{height:100%;margin:0}", f'<div id="app">{LONG}</div>'),
    "hidden twice": Shaped("html,body{margin:0;overflow-x:hidden}", LONG),
    "hidden once": Shaped("body{margin:0;overflow-x:hidden}", LONG),
    "scrolling body": Shaped("html{overflow:hidden;height:100%} body{margin:0;height:100%;overflow:auto}", LONG),
    "scrolling part": Shaped("html,body{height:100%;margin:0} body{overflow:hidden} main{height:100%;overflow:auto}", LONG),
    "scrolling part, of the window": Shaped("body{margin:0;overflow:hidden} main{height:100vh;overflow:auto}", LONG),
    "shell": Shaped("body{margin:0} .app{position:fixed;inset:0;overflow:auto}", f'<div class="app">{LONG}</div>'),
    "shell, placed": Shaped(
        "body{margin:0} .app{position:absolute;top:0;left:0;right:0;bottom:0;overflow:auto}", f'<div class="app">{LONG}</div>'
    ),
    "shell with a side": Shaped(
        "html,body{margin:0;height:100vh;overflow:hidden} .app{display:flex;height:100vh} .app>main{flex:1;overflow:auto}"
        ".side{width:200px;height:calc(100vh - 20px)}",
        f'<div class="app">{SIDE}{LONG}</div>',
    ),
    "no shell": Shaped(
        "body{margin:0} .modal{position:fixed;top:0;left:0;width:100%;height:100%;overflow:auto;display:none}",
        f'{LONG}<div class="modal"><p>Asked</p></div>',
    ),
    "being loaded": Shaped(
        "body{margin:0} .loading{height:100vh;overflow:hidden}",
        f"{LONG}<script>document.body.classList.remove('loading')</script>",
        body_tag='<body class="loading">',
    ),
    "bar": Shaped("body{margin:0;padding-top:50px} .bar{position:fixed;top:0;left:0;right:0;height:50px;background:#cde}", BAR + LONG),
    "sticky bar": Shaped("body{margin:0} .bar{position:sticky;top:0;height:50px;background:#cde}", BAR + LONG),
    "bar below": Shaped("body{margin:0} .bar{position:fixed;bottom:0;left:0;right:0;height:50px;background:#cde}", BAR + LONG),
    "root with padding": Shaped("html{padding:20px} body{margin:0}", LONG),
    "narrow root": Shaped("html{max-width:70ch;padding:3em 1em;margin:auto;line-height:1.75;font-size:1.25em}", LONG),
    "root that centres": Shaped("html{display:flex;justify-content:center} body{margin:0;width:600px}", LONG),
    "a table": Shaped("body{display:table;width:100%;margin:0}", LONG),
    "conditions within": Shaped("body{margin:0;@media (min-width:600px){margin:0 100px}}", LONG),
    "selectors of selectors": Shaped("html:not(.x) > :is(body,.b){margin:0 60px}", LONG),
}  # fmt: skip
"""Longer than a window."""
MORE = {"look/more/page.css": b"body{margin:0 auto;width:600px}"}


_DECLARATIONS = (
    *(f"margin:{one}" for one in ("0", "8px", "1em 2em", "0 auto", "20px auto 5%", "3vw", "0 0 30px 10%")),
    *(f"padding:{one}" for one in ("0", "12px", "1em", "0 5%", "10px 0 0 40px")),
    *(f"margin-{side}:{size}" for side in ("top", "left", "inline-start", "block-end") for size in ("0", "14px")),
    *(f"padding-{side}:9px" for side in ("bottom", "right", "inline-end")),
    *(f"max-width:{one}" for one in ("700px", "46rem", "80%", "none", "60ch")),
    *(f"width:{one}" for one in ("auto", "90%", "560px")),
    *(f"border:{one}" for one in ("0", "3px solid teal", "none")),
    "box-sizing:border-box",
    "border-top:5px dashed red",
    "font-size:18px",
    "line-height:1.7",
    "position:relative",
    "background:#fed",
    "display:block",
    "display:flow-root",
)
_ARRANGED = (
    "display:flex",
    "display:flex;gap:10px",
    "display:flex;flex-wrap:wrap",
    "display:flex;flex-direction:column;align-items:flex-start",
    "display:grid;grid-template-columns:160px minmax(0,1fr);column-gap:12px",
    "display:flex;min-height:100vh;align-items:center",
)
_BODIES = (
    "body",
    "html body",
    ".home",
    "#top",
    "body.home",
    "*",
    ":is(body,main)",
    "html>body:not(.away)",
    "[class~=home]",
)
_ROOTS = ("html", ":root", "html[lang]")
_AROUND = (
    "{}",
    "{}",
    "{}",
    "@media (min-width:600px){{{}}}",
    "@media screen and (max-width:900px){{{}}}",
    "@supports (display:grid){{{}}}",
    "@layer one{{{}}}",
    "@layer two{{{}}}",
    "@layer two.deep{{{}}}",
    "@layer one{{@layer deep{{{}}}}}",
    "@media print{{{}}}",
)


def shaped_at_random(seed: int) -> Shaped:
    """A page whose root and body are said something of by rules that outweigh each other in every way there is."""
    chance = Random(seed)
    rules = ["@layer two,one;"] if chance.random() < 0.3 else []

    def declared(most: int, body: str = "") -> str:
        said = chance.sample(_DECLARATIONS, chance.randrange(1, most))
        # What shows all elements shows those of the head.
        said = [one for one in said if body != "*" or not one.startswith("display")]
        return ";".join(f"{one}!important" if chance.random() < 0.1 else one for one in said)

    for _ in range(chance.randrange(1, 8)):
        body = chance.choice(_BODIES)
        rules.append(chance.choice(_AROUND).format(f"{body}{{{declared(4, body)}}}"))
    if chance.random() < 0.2:
        rules.append(f"{chance.choice(_ROOTS)}{{{declared(3)}}}")
    if chance.random() < 0.4:
        rules.append(chance.choice(_AROUND[:4]).format(f"body{{{chance.choice(_ARRANGED)}}}"))
        rules.append(
            chance.choice(("", "body>main{flex:1;padding:5px}", "main{width:300px}", "body > .side{padding:7px}"))
        )
    chance.shuffle(rules)
    rules.sort(key=lambda rule: not rule.startswith("@layer two,"))
    style = f' style="{declared(3).replace("!important", "")}"' if chance.random() < 0.15 else ""
    root = chance.choice((' lang="en"', ' lang="ar" dir="rtl"'))
    return Shaped("\n".join(rules), chance.choice((CARD, SIDE + CARD)), f'<body class="home" id="top"{style}>', root)
