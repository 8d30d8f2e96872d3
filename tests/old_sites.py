"""Small sites as other people may have written them, each with a header and a footer made in a manner of its own."""

from __future__ import annotations

from dataclasses import dataclass

_PAGES = ("index", "ferries", "harbours", "tickets", "about", "contact")


@dataclass(frozen=True)
class OldSite:
    """`parts`: selectors of what is old there, each with what it is."""

    name: str
    css: str
    header: str
    footer: str
    parts: tuple[tuple[str, str], ...] = (("header", "header"), ("footer", "footer"))
    head: str = ""
    before: str = ""
    after: str = ""
    root: str = 'lang="en"'

    @property
    def files(self) -> dict[str, bytes]:
        files = {"/logo.svg": _LOGO, "/style.css": self.css.encode(), "/mark.svg": _MARK}
        for name in _PAGES:
            files[f"/{name}.html"] = self._page(name).encode()
        return files

    def _page(self, name: str) -> str:
        words = "".join(f"<p>{name.title()} {number}: boats leave when the tide is in.</p>" for number in range(30))
        return (
            f'<!doctype html><html {self.root}><head><meta charset="utf-8"><title>{name.title()}</title>'
            f'<meta name="viewport" content="width=device-width"><link rel="stylesheet" href="/style.css">{self.head}</head>'
            f"<body>{self.before}{self.header}<main><h1>{name.title()}</h1>{words}</main>{self.footer}{self.after}</body></html>"
        )


_LOGO = b'<svg xmlns="http://www.w3.org/2000/svg" width="160" height="48" viewBox="0 0 160 48"><rect width="160" height="48" rx="8" fill="#14506b"/><circle cx="24" cy="24" r="14" fill="#e8c15a"/></svg>'
_MARK = b'<svg xmlns="http://www.w3.org/2000/svg" width="48" height="48" viewBox="0 0 48 48"><path d="M4 40 24 6l20 34z" fill="#a33"/></svg>'

_FLOATS = OldSite(
    "floats",
    """
body{margin:0;font:16px/1.5 Arial,sans-serif;color:#222;background:#fff}
#top{background:#123a4a;overflow:hidden;padding:12px 40px}
#top .logo{float:left}
#top .logo img{display:block}
#nav{float:right;margin:0;padding:0;list-style:none}
#nav li{float:left;margin-left:28px}
#nav a{color:#fff;text-decoration:none;line-height:48px;display:block}
#nav a:hover{color:#e8c15a}
#foot{background:#eee;color:#444;padding:20px 40px;overflow:hidden;font-size:14px}
#foot .l{float:left}
#foot .r{float:right}
#foot .r a{color:#14506b;margin-left:18px}
""",
    '<div id="top"><a class="logo" href="/index.html"><img src="/logo.svg" alt="Old Line" width="160" height="48"></a>'
    '<ul id="nav"><li><a href="/ferries.html">Ferries</a></li><li><a href="/harbours.html">Harbours</a></li>'
    '<li><a href="/tickets.html">Tickets</a></li><li><a href="/contact.html">Contact us</a></li></ul></div>',
    '<div id="foot"><div class="l">© 2019 Old Line Shipping</div><div class="r"><a href="/about.html">About</a>'
    '<a href="/contact.html">Contact</a></div></div>',
    (("#top", "header"), ("#foot", "footer")),
)

_TABLES = OldSite(
    "tables",
    """
body{margin:0;font-family:Verdana,sans-serif;font-size:13px;background:#f4f0e6;color:#333}
table.head{width:960px;margin:0 auto;border-collapse:collapse;background:#fff}
.head td{padding:10px 14px}
.head .name{font-size:24px;font-weight:bold;color:#7a1f1f;text-decoration:none}
.head .menu td{background:#7a1f1f;padding:8px 14px}
.head .menu a{color:#fff;text-decoration:none;margin-right:20px}
table.end{width:960px;margin:0 auto;background:#fff;border-collapse:collapse}
.end td{padding:16px 14px;vertical-align:top;width:33%}
.end a{color:#7a1f1f}
""",
    '<table class="head" id="head"><tr><td><a class="name" href="/index.html">Tide Tables</a></td>'
    '<td align="right">Call 01632 960 001</td></tr><tr class="menu"><td colspan="2"><a href="/ferries.html">Ferries</a>'
    '<a href="/harbours.html">Harbours</a><a href="/tickets.html">Tickets</a><a href="/about.html">About</a></td></tr></table>',
    '<table class="end" id="end"><tr><td>12 Quay Lane<br>Osterhaven</td><td><a href="/about.html">About us</a></td>'
    "<td>Open 9 to 5</td></tr></table>",
    (("#head", "header"), ("#end", "footer")),
)

_FLEX = OldSite(
    "flex",
    """
:root{--ink:#1c2b33;--accent:#c2452d}
*{box-sizing:border-box}
body{margin:0;font-family:system-ui,"Helvetica Neue",sans-serif;color:var(--ink);background:#fffdf8}
.site-header{display:flex;align-items:center;justify-content:space-between;padding:18px 32px;border-bottom:1px solid #ddd6c8;position:sticky;top:0;background:#fffdf8}
.brand{font-weight:700;font-size:22px;color:var(--ink);text-decoration:none;letter-spacing:.02em}
.site-nav ul{display:flex;gap:32px;list-style:none;margin:0;padding:0}
.site-nav a{color:var(--ink);text-decoration:none;font-size:15px}
.site-nav a:hover{color:var(--accent)}
.cta{background:var(--accent);color:#fff;padding:10px 20px;border-radius:6px;text-decoration:none;font-weight:600;font-size:15px}
.site-footer{background:#1c2b33;color:#e9e4d8;padding:48px 32px;display:flex;gap:64px}
.site-footer h3{font-size:14px;text-transform:uppercase;letter-spacing:.08em;margin:0 0 12px}
.site-footer ul{list-style:none;margin:0;padding:0}
.site-footer li{margin-bottom:8px}
.site-footer a{color:#e9e4d8;text-decoration:none}
.site-footer p{margin:0;max-width:300px;line-height:1.6}
""",
    '<header class="site-header"><a class="brand" href="/index.html">Lantern Quay</a><nav class="site-nav"><ul>'
    '<li><a href="/ferries.html">Ferries</a></li><li><a href="/harbours.html">Harbours</a></li>'
    '<li><a href="/about.html">About</a></li></ul></nav><a class="cta" href="/tickets.html">Buy tickets</a></header>',
    '<footer class="site-footer"><p>Small boats between small islands, every day but Monday, in every kind of weather.</p>'
    '<div><h3>Travel</h3><ul><li><a href="/ferries.html">Ferries</a></li><li><a href="/tickets.html">Tickets</a></li></ul></div>'
    '<div><h3>About</h3><ul><li><a href="/about.html">The company</a></li><li><a href="/contact.html">Contact</a></li></ul></div></footer>',
)

_GRID = OldSite(
    "grid",
    """
body{margin:0;font:17px/1.4 Georgia,serif;color:#2a2118;background:#faf6ee}
.mast{display:grid;grid-template-columns:1fr auto 1fr;align-items:center;max-width:1100px;margin:0 auto;padding:24px 20px}
.mast img{justify-self:center;display:block}
.mast .left,.mast .right{display:flex;gap:26px}
.mast .right{justify-content:flex-end}
.mast a{color:#2a2118;text-decoration:none}
.end{display:grid;grid-template-columns:2fr 1fr 1fr;gap:40px;max-width:1100px;margin:0 auto;padding:40px 20px;border-top:2px solid #2a2118}
.end h4{margin:0 0 10px;font-size:17px}
.end ul{margin:0;padding:0;list-style:none}
.end a{color:#5b3b1a}
.end p{margin:0}
""",
    '<header class="mast"><nav class="left" aria-label="Travel"><a href="/ferries.html">Ferries</a><a href="/harbours.html">Harbours</a></nav>'
    '<a href="/index.html"><img src="/mark.svg" alt="Marram" width="48" height="48"></a>'
    '<nav class="right" aria-label="More"><a href="/tickets.html">Tickets</a><a href="/contact.html">Contact</a></nav></header>',
    '<footer class="end"><p>Marram is a house for guests on the outer shore, with nine rooms and one long table.</p>'
    '<div><h4>Stay</h4><ul><li><a href="/tickets.html">Rooms</a></li><li><a href="/about.html">The house</a></li></ul></div>'
    '<div><h4>Find us</h4><ul><li><a href="/harbours.html">By boat</a></li><li><a href="/contact.html">On foot</a></li></ul></div></footer>',
)

_ABSOLUTE = OldSite(
    "absolute logo",
    """
body{margin:0;font:15px/1.45 "Trebuchet MS",sans-serif;color:#16302b}
#banner{position:relative;height:110px;background:linear-gradient(180deg,#dff0ea,#b9dccf)}
#banner #logo{position:absolute;left:60px;top:31px;display:block;width:160px;height:48px;background:url("/logo.svg") no-repeat;text-indent:-9999px;overflow:hidden}
#banner ul{position:absolute;right:60px;bottom:14px;margin:0;padding:0;list-style:none}
#banner li{display:inline-block;margin-left:22px}
#banner a{color:#16302b;font-weight:bold;text-decoration:none}
#colophon{background:#16302b;color:#cfe6de;text-align:center;padding:22px 0;font-size:13px}
""",
    '<div id="banner"><a id="logo" href="/index.html">Saltings</a><ul><li><a href="/ferries.html">Boats</a></li>'
    '<li><a href="/harbours.html">Landings</a></li><li><a href="/about.html">Who we are</a></li></ul></div>',
    '<div id="colophon">© 2008–2021 The Saltings Company</div>',
    (("#banner", "header"), ("#colophon", "footer")),
)

_TWO_ROWS = OldSite(
    "two rows",
    """
*{box-sizing:border-box}
body{margin:0;font-family:"Open Sans",Arial,sans-serif;font-size:16px;color:#333;background:#fff}
.wrap{max-width:1140px;margin:0 auto;padding:0 15px}
.bar{background:#26323f;color:#c9d3dd;font-size:13px;line-height:20px;padding:8px 0}
.bar .wrap{display:flex;justify-content:space-between}
.bar a{color:#fff;text-decoration:none;margin-left:16px}
.main{padding:20px 0;box-shadow:0 2px 6px rgba(0,0,0,.12)}
.main .wrap{display:flex;align-items:center;justify-content:space-between}
.main ul{display:flex;list-style:none;margin:0;padding:0}
.main li a{display:block;padding:10px 16px;color:#26323f;text-decoration:none;font-weight:600}
.main li.active a{color:#d0622a}
.main li ul{display:none}
.foot{background:#f2f4f6;padding:40px 0 0}
.foot .wrap.cols{display:flex;gap:30px}
.foot .col{flex:1}
.foot h4{margin:0 0 14px;font-size:18px;color:#26323f}
.foot ul{list-style:none;margin:0;padding:0}
.foot li{padding:4px 0}
.foot a{color:#4a5a6a;text-decoration:none}
.foot .legal{background:#26323f;color:#c9d3dd;font-size:13px;padding:14px 0;margin-top:40px}
""",
    '<header class="head"><div class="bar"><div class="wrap"><span>Sailing today: all boats on time</span>'
    '<div><a href="/contact.html">Contact</a><a href="/about.html">Press</a></div></div></div>'
    '<div class="main"><div class="wrap"><a href="/index.html"><img src="/logo.svg" alt="North Sound" width="160" height="48"></a>'
    '<nav><ul><li class="active"><a href="/index.html">Home</a></li><li><a href="/ferries.html">Ferries</a><ul><li><a href="/tickets.html">Fares</a></li>'
    '<li><a href="/about.html">Fleet</a></li></ul></li><li><a href="/harbours.html">Harbours</a></li><li><a href="/contact.html">Contact</a></li></ul></nav>'
    "</div></div></header>",
    '<footer class="foot"><div class="wrap cols"><div class="col"><h4>North Sound</h4><p style="margin:0;line-height:1.5">Seven boats, four islands and a timetable that holds.</p></div>'
    '<div class="col"><h4>Travel</h4><ul><li><a href="/ferries.html">Ferries</a></li><li><a href="/tickets.html">Fares</a></li><li><a href="/harbours.html">Harbours</a></li></ul></div>'
    '<div class="col"><h4>Company</h4><ul><li><a href="/about.html">About</a></li><li><a href="/contact.html">Contact</a></li></ul></div></div>'
    '<div class="legal"><div class="wrap">© 2022 North Sound Boats</div></div></footer>',
)

_CENTRED = OldSite(
    "centred",
    """
body{margin:0;background:#201a26;color:#eadff0;font:16px/1.5 "Palatino Linotype",Palatino,serif}
header{text-align:center;padding:36px 0 20px}
header h1{margin:0;font-size:40px;font-weight:400;letter-spacing:.12em;text-transform:uppercase}
header h1 a{color:#f3e9c6;text-decoration:none}
header p{margin:6px 0 18px;font-style:italic;color:#b9a8c4}
header nav a{color:#eadff0;margin:0 14px;text-decoration:none}
header nav a:hover{text-decoration:underline}
footer{text-align:center;padding:30px;border-top:1px solid #4a3d55;font-size:14px;color:#b9a8c4}
footer a{color:#f3e9c6}
""",
    '<header><h1><a href="/index.html">Nightjar</a></h1><p>Sound walks after dark</p><nav><a href="/ferries.html">Walks</a>'
    '<a href="/harbours.html">Places</a><a href="/tickets.html">Join</a><a href="/contact.html">Write</a></nav></header>',
    '<footer>Nightjar is run by volunteers. <a href="/contact.html">Write to us</a> and come along.</footer>',
)

_SEARCH = OldSite(
    "with search",
    """
*{box-sizing:border-box}
body{margin:0;font:14px/20px Tahoma,Geneva,sans-serif;color:#222;background:#fff}
#hd{width:1000px;margin:0 auto;height:84px;position:relative}
#hd h2{margin:0;position:absolute;left:0;top:26px;font-size:26px;line-height:32px}
#hd h2 a{color:#0b5e43;text-decoration:none}
#hd form{position:absolute;right:0;top:24px;margin:0;display:flex;gap:6px}
#hd input[type=search]{width:240px;height:36px;border:1px solid #9ab;border-radius:4px;padding:0 10px;font:inherit;background:#f7fafc}
#hd button{height:36px;border:0;background:#0b5e43;color:#fff;padding:0 14px;border-radius:4px}
#tabs{background:#0b5e43}
#tabs ul{width:1000px;margin:0 auto;padding:0;list-style:none;display:flex}
#tabs a{display:block;padding:10px 18px;color:#fff;text-decoration:none;border-right:1px solid #2c7f63}
#ft{width:1000px;margin:0 auto;padding:18px 0;border-top:3px solid #0b5e43;font-size:12px;display:flex;justify-content:space-between}
#ft a{color:#0b5e43}
""",
    '<div id="oldhead"><div id="hd"><h2><a href="/index.html">Fen Library</a></h2><form action="/find" role="search">'
    '<input type="search" name="q" placeholder="Title or author"><button>Go</button></form></div>'
    '<div id="tabs"><ul><li><a href="/ferries.html">Catalogue</a></li><li><a href="/harbours.html">Rooms</a></li><li><a href="/tickets.html">Events</a></li></ul></div></div>',
    '<div id="ft"><span>Fen Library, Mill Street 4</span><a href="/contact.html">Contact</a></div>',
    (("#oldhead", "header"), ("#ft", "footer")),
)

_FIXED = OldSite(
    "fixed, drawn logo",
    """
*{box-sizing:border-box}
body{margin:0;padding-top:72px;font-family:"Segoe UI",Roboto,sans-serif;font-size:16px;line-height:24px;color:#101418}
.topbar{position:fixed;top:0;left:0;right:0;height:72px;background:#101418;color:#fff;display:flex;align-items:center;gap:40px;padding:0 48px}
.topbar .logo{display:flex;align-items:center;gap:12px;color:#fff;text-decoration:none;font-weight:700;font-size:20px}
.topbar nav{display:flex;gap:8px}
.topbar nav a{padding:8px 14px;border-radius:20px;color:#cdd6df;text-decoration:none}
.topbar nav a.current{background:#2b3640;color:#fff}
.topbar .icons{margin-left:auto;display:flex;gap:16px}
.topbar .icons a{color:#cdd6df;display:block;width:24px;height:24px}
.closing{background:#101418;color:#9aa7b3;padding:32px 48px;display:flex;align-items:center;justify-content:space-between}
.closing a{color:#fff}
""",
    '<header class="topbar"><a class="logo" href="/index.html"><svg width="32" height="32" viewBox="0 0 32 32" aria-hidden="true"><circle cx="16" cy="16" r="15" fill="none" stroke="currentColor" stroke-width="2"/><path d="M8 20l8-12 8 12z" fill="#f2b632"/></svg><span>Skerry</span></a>'
    '<nav><a class="current" href="/index.html">Start</a><a href="/ferries.html">Trips</a><a href="/harbours.html">Shores</a></nav>'
    '<div class="icons"><a href="https://github.com/skerry-example" aria-label="Code"><svg width="24" height="24" viewBox="0 0 24 24"><path d="M2 2h20v20H2z" fill="currentColor"/></svg></a>'
    '<a href="mailto:post@skerry.example" aria-label="Mail"><svg width="24" height="24" viewBox="0 0 24 24"><path d="M2 5h20v14H2z" fill="currentColor"/></svg></a></div></header>',
    '<footer class="closing"><div>© 2023 Skerry Walks</div><div>Made on the shore, <a href="/about.html">by few</a></div></footer>',
)

_STROKES = OldSite(
    "strokes between",
    """
body{margin:8px;font:16px "Times New Roman",serif;color:#000;background:#fff}
#page{width:770px;margin:0 auto}
#masthead{background:#003366;color:#fff;padding:14px 16px}
#masthead a.home{color:#ffcc00;font:bold 28px "Times New Roman",serif;text-decoration:none}
#masthead .links{margin-top:8px;font-size:14px}
#masthead .links a{color:#fff}
#bottom{border-top:1px solid #999;padding:10px 0;font-size:13px;color:#555}
#bottom a{color:#003366}
""",
    '<div id="page"><div id="masthead"><a class="home" href="/index.html">Parish of Lindwick</a>'
    '<div class="links"><a href="/ferries.html">Services</a> | <a href="/harbours.html">Churches</a> | <a href="/about.html">People</a></div></div>',
    '<div id="bottom">Last changed in May. <a href="/contact.html">Write to the office</a></div></div>',
    (("#masthead", "header"), ("#bottom", "footer")),
)

_FONTS = OldSite(
    "center font",
    """
body{margin:0}
""",
    '<div id="hd"><center><table width="800" border="0" cellpadding="6" cellspacing="0" bgcolor="#004488"><tr>'
    '<td><font face="Arial" size="6" color="#ffffff"><b>Harbour Club</b></font></td><td align="right">'
    '<font face="Arial" size="2"><a href="/contact.html" style="color:#ffee88">Join us</a></font></td></tr>'
    '<tr bgcolor="#336699"><td colspan="2" align="center"><font face="Arial" size="2">'
    '<a href="/index.html" style="color:white">Home</a> &nbsp;|&nbsp; '
    '<a href="/ferries.html" style="color:white">Boats</a> &nbsp;|&nbsp; '
    '<a href="/harbours.html" style="color:white">Moorings</a></font></td></tr></table></center></div>',
    '<div id="ft"><center><hr width="800"><font face="Arial" size="1">Harbour Club, Quay Road 1, Lindwick'
    "<br>Tel. 01632 960 555</font></center></div>",
    (("#hd", "header"), ("#ft", "footer")),
)

_RTL = OldSite(
    "right to left",
    """
*{box-sizing:border-box}
body{margin:0;font-family:'Noto Sans Arabic',Tahoma,sans-serif;font-size:17px;color:#222;direction:rtl}
.h{display:flex;justify-content:space-between;align-items:center;padding:20px 50px;background:#0d3b4c}
.h a{color:#fff;text-decoration:none}
.h .t{font-size:26px;font-weight:700}
.h ul{display:flex;gap:28px;list-style:none;margin:0;padding:0}
.f{padding:24px 50px;background:#eee;display:flex;justify-content:space-between}
.f a{color:#0d3b4c}
""",
    '<header class="h"><a class="t" href="/index.html">مرسى</a><ul><li><a href="/ferries.html">الرحلات</a></li>'
    '<li><a href="/harbours.html">الموانئ</a></li><li><a href="/contact.html">اتصل بنا</a></li></ul></header>',
    '<footer class="f"><span>مرسى للنقل البحري</span><a href="/about.html">من نحن</a></footer>',
    (("header.h", "header"), ("footer.f", "footer")),
    root='lang="ar" dir="rtl"',
)

_TAGLINE = OldSite(
    "tagline and tools",
    """
body{margin:0;background:#efe9dd;font:14px/1.4 'Lucida Grande',Verdana,sans-serif;color:#3a3226}
#wrap{width:940px;margin:0 auto;background:#fff}
#masthead{padding:24px 30px 0}
#masthead h1{margin:0;font-size:30px}
#masthead h1 a{color:#6b2c1a;text-decoration:none}
#masthead p{margin:2px 0 16px;color:#8a7d68;font-style:italic}
#tools{float:right;margin-top:6px}
#tools a{color:#6b2c1a;margin-left:12px;font-size:12px}
#menu{background:#6b2c1a;overflow:hidden;padding:0 30px;margin:0 -30px}
#menu a{float:left;color:#f4e9d4;padding:10px 14px;text-decoration:none;border-right:1px solid #8a4b36}
#menu a:first-child{padding-left:0}
#colo{padding:20px 30px;border-top:4px double #6b2c1a;font-size:12px;color:#8a7d68}
#colo dl{margin:0;display:flex;gap:40px}
#colo dt{font-weight:bold;color:#3a3226}
#colo dd{margin:0}
""",
    '<div id="wrap"><div id="masthead"><div id="tools"><a href="/contact.html">Contact</a>'
    '<a href="/tickets.html">Basket</a></div><h1><a href="/index.html">The Bindery</a></h1>'
    '<p>Books made by hand since 1981</p><div id="menu"><a href="/ferries.html">Workshops</a>'
    '<a href="/harbours.html">Papers</a><a href="/about.html">About</a></div></div>',
    '<div id="colo"><dl><div><dt>Visit</dt><dd>Tue to Sat, 10 to 6</dd></div><div><dt>Call</dt><dd>01632 960 112'
    '</dd></div><div><dt>Write</dt><dd><a href="mailto:post@bindery.example">post@bindery.example</a></dd></div>'
    "</dl></div></div>",
    (("#masthead", "header"), ("#colo", "footer")),
)

_MEGA = OldSite(
    "mega hidden",
    """
*{box-sizing:border-box}
body{margin:0;font:16px/1.5 Arial;color:#222}
.g-header{background:#fff;border-bottom:2px solid #e30;position:relative;z-index:5}
.g-in{max-width:1200px;margin:0 auto;padding:0 24px;display:flex;align-items:center;height:80px}
.g-logo{font-size:28px;font-weight:900;color:#e30;text-decoration:none;margin-right:60px}
.g-nav>ul{display:flex;margin:0;padding:0;list-style:none}
.g-nav>ul>li{position:relative}
.g-nav>ul>li>a{display:block;padding:28px 18px;color:#222;text-decoration:none;text-transform:uppercase;font-size:14px;letter-spacing:.05em}
.g-nav ul ul{position:absolute;top:100%;left:0;opacity:0;visibility:hidden;background:#fff;min-width:200px;padding:10px 0;list-style:none;margin:0;box-shadow:0 4px 12px rgba(0,0,0,.2)}
.g-nav ul ul a{display:block;padding:6px 18px;color:#222;text-decoration:none}
.g-nav li:hover ul{opacity:1;visibility:visible}
.g-tools{margin-left:auto;display:flex;gap:18px;align-items:center}
.g-tools a{color:#222;text-decoration:none;font-size:14px}
.burger{display:none}
.ff{background:#222;color:#aaa;padding:40px 0}
.ff .in{max-width:1200px;margin:0 auto;padding:0 24px;display:flex;justify-content:space-between}
.ff ul{list-style:none;padding:0;margin:0}
.ff .h{display:flex;gap:20px}
.ff a{color:#fff;text-decoration:none}
""",
    '<header class="g-header"><div class="g-in"><a class="g-logo" href="/index.html">ROT</a><nav class="g-nav">'
    '<ul><li><a href="/ferries.html">Cars</a><ul><li><a href="/tickets.html">Small</a></li><li>'
    '<a href="/about.html">Large</a></li></ul></li><li><a href="/harbours.html">Vans</a><ul><li>'
    '<a href="/about.html">All</a></li></ul></li><li><a href="/about.html">Service</a></li></ul></nav>'
    '<div class="g-tools"><a href="/contact.html">Dealers</a><a href="/tickets.html">Basket (0)</a></div>'
    '<button class="burger">Menu</button></div></header>',
    '<footer class="ff"><div class="in"><div>© 2024 ROT Works</div><ul class="h"><li>'
    '<a href="/about.html">Imprint</a></li><li><a href="/contact.html">Contact</a></li><li>'
    '<a href="/tickets.html">Terms</a></li></ul></div></footer>',
    (("header.g-header", "header"), ("footer.ff", "footer")),
)

_OVER_HERO = OldSite(
    "hero",
    """
*{box-sizing:border-box}
body{margin:0;font:18px/1.6 'Open Sans',sans-serif;color:#222}
.hero{position:absolute;top:0;left:0;width:100%;padding:30px 60px;display:flex;align-items:center}
.hero a{color:#fff;text-decoration:none;text-shadow:0 1px 2px #000}
.hero .logo{font-size:24px;font-weight:300;letter-spacing:4px}
.hero nav{margin-left:auto}
.hero nav a{margin-left:34px;font-size:16px}
.hero nav a.pill{border:2px solid #fff;border-radius:30px;padding:8px 24px}
main{background:linear-gradient(#246,#124);color:#fff;padding:200px 60px 60px}
.end{padding:60px;display:grid;grid-template-columns:repeat(3,1fr);gap:30px;font-size:15px}
.end b{display:block}
.end p{margin:0 0 10px}
""",
    '<header class="hero"><a class="logo" href="/index.html">FJELL</a><nav><a href="/ferries.html">Huts</a>'
    '<a href="/harbours.html">Trails</a><a class="pill" href="/tickets.html">Reserve</a></nav></header>',
    '<footer class="end"><div><p><b>Fjell Huts</b>Upper Valley 3<br>9999 Norde</p></div><div><p><b>Call</b>'
    '<a href="tel:+4712345678">+47 12 34 56 78</a></p></div><div><p><b>Follow</b>'
    '<a href="https://youtube.com/@fjell">Films</a></p></div></footer>',
    (("header.hero", "header"), ("footer.end", "footer")),
)

_BLOG = OldSite(
    "blog theme",
    """
*{box-sizing:border-box}
body{margin:0;font:18px/1.7 'Source Sans Pro','Helvetica Neue',sans-serif;color:#404040;background:#fff}
.site-header{max-width:1080px;margin:0 auto;padding:3em 1em 1em}
.site-branding{margin-bottom:1.5em}
.site-title{font-size:36px;margin:0;font-weight:700;line-height:1.2}
.site-title a{color:#1a1a1a;text-decoration:none}
.site-description{margin:0;font-size:14px;color:#686868}
.main-navigation{border-top:1px solid #d1d1d1;border-bottom:1px solid #d1d1d1}
.main-navigation ul{list-style:none;margin:0;padding:0;display:flex}
.main-navigation a{display:block;padding:.8em 1.2em .8em 0;color:#1a1a1a;text-decoration:none;font-weight:700;font-size:16px}
.main-navigation .current-menu-item a{color:#007acc}
.site-footer{max-width:1080px;margin:0 auto;padding:2em 1em;font-size:14px}
.site-footer .widgets{display:flex;gap:3em}
.widget{flex:1}
.widget-title{font-size:14px;text-transform:uppercase;letter-spacing:.09em;margin:0 0 1em}
.widget ul{margin:0;padding:0;list-style:none}
.widget li{border-top:1px solid #d1d1d1;padding:.4em 0}
.widget a{color:#007acc}
.site-info{border-top:4px solid #1a1a1a;margin-top:2em;padding-top:1em}
""",
    '<header class="site-header" role="banner"><div class="site-branding"><p class="site-title">'
    '<a href="/index.html" rel="home">Heather Walks</a></p>'
    '<p class="site-description">Notes from the northern paths</p></div><nav class="main-navigation">'
    '<ul class="menu"><li class="menu-item current-menu-item"><a href="/index.html">Home</a></li><li>'
    '<a href="/ferries.html">Routes</a></li><li><a href="/harbours.html">Gear</a></li><li>'
    '<a href="/contact.html">Contact</a></li></ul></nav></header>',
    '<footer class="site-footer" role="contentinfo"><div class="widgets"><section class="widget">'
    '<h2 class="widget-title">Recent</h2><ul><li><a href="/ferries.html">Up the long ridge</a></li><li>'
    '<a href="/harbours.html">Three wet days</a></li></ul></section><section class="widget">'
    '<h2 class="widget-title">Archives</h2><ul><li><a href="/about.html">May 2024</a></li><li>'
    '<a href="/tickets.html">April 2024</a></li></ul></section></div>'
    '<div class="site-info">Proudly made by hand. <a href="/about.html">Privacy</a></div></footer>',
    (("header", "header"), ("footer", "footer")),
)

_BADGES = OldSite(
    "shop badges",
    """
*{box-sizing:border-box}
body{margin:0;font:15px/1.4 Poppins,Arial,sans-serif;color:#222}
.promo{background:#f6d55c;text-align:center;padding:8px;font-size:13px}
.h{display:flex;align-items:center;height:76px;padding:0 40px;border-bottom:1px solid #eee}
.h .logo img{display:block;height:40px;width:133px}
.h nav{margin:0 auto;display:flex;gap:30px}
.h nav a{color:#222;text-decoration:none;font-weight:500}
.h nav a.sale{color:#d7263d}
.h .tools{display:flex;gap:20px}
.h .tools a{color:#222;text-decoration:none;position:relative}
.h .tools i{font-style:normal;background:#d7263d;color:#fff;border-radius:9px;font-size:11px;padding:1px 6px;margin-left:4px}
.f{background:#fafafa;padding:48px 40px 24px}
.f .cols{display:grid;grid-template-columns:repeat(4,1fr);gap:32px}
.f h4{margin:0 0 14px;font-size:15px}
.f a{display:block;color:#666;text-decoration:none;padding:4px 0;font-size:14px}
.f p{margin:0;color:#666;font-size:14px}
.f .bottom{border-top:1px solid #e5e5e5;margin-top:32px;padding-top:20px;display:flex;justify-content:space-between;color:#999;font-size:13px}
""",
    '<header><div class="promo">Free delivery on all islands this week</div><div class="h">'
    '<a class="logo" href="/index.html"><img src="/logo.svg" alt="Tern"></a><nav><a href="/ferries.html">New</a>'
    '<a href="/harbours.html">Coats</a><a href="/about.html">Boots</a><a class="sale" href="/tickets.html">Sale'
    '</a></nav><div class="tools"><a href="/contact.html">Account</a><a href="/tickets.html">Basket<i>2</i></a>'
    "</div></div></header>",
    '<footer class="f"><div class="cols"><div><h4>Tern</h4>'
    "<p>Clothes for weather, cut and sewn in Osterhaven since 1994.</p></div><div><h4>Shop</h4>"
    '<a href="/ferries.html">New</a><a href="/harbours.html">Coats</a><a href="/about.html">Boots</a></div><div>'
    '<h4>Help</h4><a href="/contact.html">Sizes</a><a href="/contact.html">Returns</a></div><div><h4>House</h4>'
    '<a href="/about.html">Our story</a><a href="/about.html">Repairs</a></div></div><div class="bottom">'
    "<span>© 2026 Tern Outfitters</span><span>Prices with tax</span></div></footer>",
    (("header", "header"), ("footer", "footer")),
)

OLD_SITES = (
    _FLOATS,
    _TABLES,
    _FLEX,
    _GRID,
    _ABSOLUTE,
    _TWO_ROWS,
    _CENTRED,
    _SEARCH,
    _FIXED,
    _STROKES,
    _FONTS,
    _RTL,
    _TAGLINE,
    _MEGA,
    _OVER_HERO,
    _BLOG,
    _BADGES,
)
