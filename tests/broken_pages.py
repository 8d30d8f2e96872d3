"""Pages as people really make them: hand-broken in more than thirty ways. Name in the archive, bytes."""

from __future__ import annotations

import io
import zipfile

_PLAIN = "<!doctype html>\n<html lang=en>\n<head><meta charset=utf-8><title>{0}</title></head>\n<body>\n<div id=old class=old-header><a href='/'>Old site</a></div>\n<h1>{0}</h1>\n{1}\n</body>\n</html>\n"


def _page(title: str, body: str) -> bytes:
    return _PLAIN.format(title, body).encode()


BROKEN: dict[str, bytes] = {
    "index.html": _page("Front", "<p>One<p>Two<ul><li>a<li>b</ul>"),
    "unclosed.html": _page("Unclosed", "<div><b><i>never closed <p>nor this"),
    "no-head.html": b"<!doctype html><body class=x><p>No head at all</body>",
    "no-body.html": b"<!doctype html><html><head><title>No body tag</title></head><p>Straight on",
    "no-tags.html": b"Just words, and a < b & c > d.",
    "empty.html": b"",
    "only-space.html": b" \r\n\t ",
    "utf16le.html": ("\ufeff" + _PLAIN.format("Sixteen ŵ 🚢", "<p>ثلاث سفن")).encode("utf-16le"),
    "utf16be.html": ("\ufeff" + _PLAIN.format("Sixteen, big end", "<p>ŷ")).encode("utf-16be"),
    "bom.html": b"\xef\xbb\xbf" + _page("A mark first", "<p>caf\xc3\xa9".encode("latin-1").decode("utf-8")),
    "latin1.html": "<html><head><meta charset=iso-8859-1><title>Café</title></head><body><p>Größe</body></html>".encode(
        "latin-1"
    ),
    "windows1251.html": "<html><head><meta http-equiv=content-type content='text/html; charset=windows-1251'><title>Паром</title><body><p>Море".encode(
        "cp1251"
    ),
    "shift-jis.html": "<html><head><meta charset=shift_jis><title>船の時刻表ソ</title></head><body><p>表示ソ能</p></body></html>".encode(
        "shift_jis"
    ),
    "gbk.html": "<html><head><meta charset=gbk><title>渡轮</title></head><body><p>时刻表</p></body></html>".encode(
        "gbk"
    ),
    "euc-kr.html": "<html><head><meta charset=euc-kr><title>페리</title></head><body>배</body></html>".encode("euc-kr"),
    "iso-2022-jp.html": "<html><head><meta charset=iso-2022-jp><title>船</title></head><body><p>時刻</p></body></html>".encode(
        "iso2022_jp"
    ),
    "undeclared.html": "<title>Undeclared</title><p>naïve ferry".encode(),
    "wrong-label.html": "<meta charset=utf-16><title>It says 16, it is 8</title><p>é".encode(),
    "invalid-bytes.html": b"<meta charset=utf-8><title>Bad \xff\xfe bytes</title><p>\xc3\x28 \x80",
    "frameset.html": b"<html><head><title>Frames</title></head><frameset cols='20%,80%'><frame src=a.html><frame src=b.html></frameset></html>",
    "svg.html": _page(
        "Inline SVG",
        "<svg viewBox='0 0 9 9'><title>Not the page's title</title><style>circle{fill:red}</style><foreignObject><body><p>inside</p></body></foreignObject></svg>",
    ),
    "mathml.html": _page("Formula", "<math><mi>x</mi><mo><</mo></math>"),
    "writes-body.html": b"<html><head><script>document.write('<body class=written><p>first</p>')</script></head><p>second</html>",
    "writes-comment.html": b"<!doctype html><title>w</title><script>document.write('<!-- <body> --><scr'+'ipt>1</scr'+'ipt>')</script><p>x",
    "script-escapes.html": b"<head><script><!-- if (a < b) document.write('<script>x</script>'); --></script></head><body>after</body>",
    "script-late-body.html": b"<head><title>t</title></head><script>var a='<body>';</script><body bgcolor=white>x</body>",
    "double-body.html": b"<html><body class=one><p>a</p><body class=two id=b><p>b</p></body></html><p>after the end",
    "double-head.html": b"<head><title>a</title></head><head><title>b</title></head><body>x</body>",
    "duplicate-ids.html": _page("Twins", "<p id=a>1</p><p id=a>2</p><div id=old>3</div>"),
    "template-comment.html": b"<!doctype html><!-- <template><body><header>no</header></body></template> --><title>t</title><template><p>tpl<!-- <body> --></template><p>x",
    "conditional.html": b"<!--[if IE]><body class=ie><![endif]--><!--[if !IE]><!--><body class=other><!--<![endif]--><p>x</body>",
    "comment-bang.html": b"<!-- a --!><p>x<!--> <p>y<!---> <p>z<!-- never closed <body>",
    "bogus-markup.html": b"<?xml version='1.0'?><!ELEMENT br EMPTY><p>x</ p><//><1><p a=1 a=2 'b' =c>y",
    "noscript-head.html": b"<head><noscript><img src=a.png></noscript><title>n</title></head><body><p>x</body>",
    "attributes.html": b"<html data-a='>' data-b=\"<body>\"><head data-x='</head>'><title>q</title></head><body data-c='a>b' onload=\"x('<body>')\"><p>x",
    "textarea.html": b"<title>t</title><textarea><body><p></textarea><p>x",
    "upper-case.HTML": b"<HTML><HEAD><TITLE>SHOUT</TITLE></HEAD><BODY BGCOLOR=#FFFFFF><FONT SIZE=7>HELLO<TABLE><TR><TD>1</TABLE></BODY></HTML>",
    "table-mess.html": b"<table><p>fostered<tr><td>1</table></table><body>late",
    "plaintext.html": b"<title>p</title><p>x<plaintext></body><b>not bold",
    "base.html": b"<head><base href='/other/'><title>Based</title></head><body><p>x</body>",
    "no-eof-tag.html": b"<!doctype html><title>cut</title><body><p>cut off in a tag <a href='/x",
    "form-feed.html": b"<!doctype html>\x0c<html>\x0c<head>\x0c<title>ff</title></head>\x0c<body\x0cclass=a>x",
    "nul.html": b"<!doctype html><title>n\x00l</title><body><p>a\x00b</p></body>",
    "crlf.html": b"<!doctype html>\r\n<html>\r\n<head>\r\n<title>crlf</title>\r\n</head>\r\n<body>\r\n<p>x\r\n</body>\r\n</html>\r\n",
    "far-charset.html": b"<!doctype html><html><head><!--"
    + b"x" * 900
    + b"--><meta charset=windows-1252><title>far \xe9</title></head><body>x</body>",
    "broken-mark.html": b"<!doctype html><title>m</title><body><!--rim:header--><p>half a mark of ours</body>",
    "old-marks.html": b"<!doctype html><title>o</title><body><!--rim:header--><header>published before</header><!--/rim--><p>x</body>",
    "nested/deep/page.html": _page("Deep", "<p>x"),
    "nested/index.html": _page("Nested", "<p>x"),
    "with space.html": _page("Space", "<p>x"),
    "100%.html": _page("Percent", "<p>x"),
    "ünï/dé.html": _page("Accents", "<p>x"),
}

WITHOUT_PLACE = {"frameset.html", "broken-mark.html"}
"""Pages that pieces cannot be put into; they are carried as they are."""

OTHER_FILES: dict[str, bytes] = {
    "style.css": b"body{color:#333}",
    "pictures/a.svg": b"<svg xmlns='http://www.w3.org/2000/svg'/>",
    "notes.txt": b"n",
}


def archive(more: dict[str, bytes] | None = None, folder: str = "") -> bytes:
    """All of them as a ZIP."""
    out = io.BytesIO()
    with zipfile.ZipFile(out, "w", zipfile.ZIP_DEFLATED) as packed:
        for name, content in {**BROKEN, **OTHER_FILES, **(more or {})}.items():
            packed.writestr(folder + name, content)
    return out.getvalue()
