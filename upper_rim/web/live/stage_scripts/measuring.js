// What is an old part of the page like, as this browser shows it? Boxes, texts, links and styles, in the order of the
// document; what they mean is found out elsewhere.
export const rimMeasuring = (() => {
  const MOST_PARTS = 1500, LONGEST_TEXT = 2000, LONGEST_DRAWING = 40000, MOST_RULES = 20000;
  const SKIPPED = "script,style,template,noscript,link,meta";
  const SIDES = ["top", "right", "bottom", "left"];
  const STYLES = [
    "color", "background-color", "background-image", "font-family", "font-size", "font-weight", "font-style", "line-height", "letter-spacing",
    "text-transform", "text-decoration-line", "text-align", "list-style-type", "opacity", "position", "visibility", "display", "box-shadow", "text-shadow", "background-position", "background-size", "background-repeat", "margin-left", "margin-right",
    ...SIDES.flatMap((side) => [`padding-${side}`, `border-${side}-width`, `border-${side}-style`, `border-${side}-color`]),
    "border-top-left-radius", "border-top-right-radius", "border-bottom-right-radius", "border-bottom-left-radius",
  ];
  const ATTRIBUTES = ["href", "src", "alt", "type", "name", "placeholder", "role", "aria-label", "aria-current", "lang", "hreflang", "id", "class", "title", "target"];
  const UNDER_POINTER = ["color", "background-color", "text-decoration-line"];
  // What goes without saying.
  const UNSAID = new Set(["", "0px", "none", "auto", "rgba(0, 0, 0, 0)", "visible", "static", "repeat", "0% 0%"]);
  const near = (px) => Math.round(px * 100) / 100;
  const rectOf = ({ left, top, width, height }) => [near(left + scrollX), near(top + scrollY), near(width), near(height)];

  // Rules for what is pointed at, each with the selector of what it is about.
  const pointedRules = () => {
    const found = [];
    let left = MOST_RULES;
    const walk = (rules) => {
      for (const rule of rules) {
        if (!left--) return;
        if (rule.media && !matchMedia(rule.media.mediaText).matches) continue;
        if (rule.selectorText?.includes(":hover")) found.push([rule.selectorText.replaceAll(":hover", ""), rule.style]);
        if (rule.cssRules) walk(rule.cssRules);
      }
    };
    for (const sheet of document.styleSheets) {
      if (sheet.ownerNode?.matches?.("[data-rim-sheet]")) continue;
      try {
        walk(sheet.cssRules);
      } catch {
        // Of another origin.
      }
    }
    return found;
  };
  const pointed = (part, rules) => {
    const style = {}, probe = document.createElement("i");
    for (const [selector, declared] of rules) {
      let matches = false;
      try {
        matches = part.matches(selector);
      } catch {
        continue;
      }
      if (!matches) continue;
      // As a browser writes it where it stands: colours by name and by variable, too.
      for (const name of UNDER_POINTER) {
        const value = declared.getPropertyValue(name) || (name === "background-color" && declared.background) || (name === "text-decoration-line" && declared.textDecoration);
        if (!value) continue;
        part.append(probe);
        probe.style.cssText = `display:none;${name}:${value}`;
        style[name] = getComputedStyle(probe).getPropertyValue(name);
        probe.remove();
      }
    }
    return style;
  };
  const faces = () => {
    const found = [];
    for (const sheet of document.styleSheets) {
      if (sheet.ownerNode?.matches?.("[data-rim-sheet]")) continue;
      let rules = [];
      try {
        rules = [...sheet.cssRules];
      } catch {
        continue;
      }
      for (const rule of rules) {
        if (!(rule instanceof CSSFontFaceRule) || found.length >= 60) continue;
        const base = sheet.href || document.baseURI, sources = [...rule.style.getPropertyValue("src").matchAll(/url\(\s*["']?([^"')]+)/g)];
        const said = (name) => rule.style.getPropertyValue(name).replace(/["']/g, "").trim();
        found.push({ family: said("font-family"), weight: said("font-weight"), style: said("font-style"), sources: sources.slice(0, 6).map(([, to]) => new URL(to, base).href) });
      }
    }
    return found;
  };

  // The first of some elements that is the page's own; null where none is.
  const measured = (elements) => {
    const top = elements.find((one) => !one.closest("[data-rim-node]"));
    if (!top) return null;
    const parts = [], rules = pointedRules();
    const styleOf = (part) => {
      const computed = getComputedStyle(part);
      return Object.fromEntries(STYLES.map((name) => [name, computed.getPropertyValue(name).slice(0, 600)]).filter(([, value]) => !UNSAID.has(value)));
    };
    const adorns = (part) => ["::before", "::after"].some((pseudo) => {
      const { content, display } = getComputedStyle(part, pseudo);
      return display !== "none" && !["none", "normal"].includes(content) && content.replace(/["\s\u00a0]/g, "") !== "";
    });
    const walk = (part, parent) => {
      if (parts.length >= MOST_PARTS) return;
      if (part.nodeType === Node.TEXT_NODE) {
        const text = part.data.replace(/\s+/g, " ");
        if (!text.trim()) return;
        const range = document.createRange();
        range.selectNodeContents(part);
        const rects = [...range.getClientRects()].filter(({ width, height }) => width && height);
        const lines = new Set(rects.map(({ top: y }) => Math.round(y))).size;
        return parts.push({ parent, tag: "#text", rect: rectOf(range.getBoundingClientRect()), text: text.slice(0, LONGEST_TEXT), lines });
      }
      if (part.nodeType !== Node.ELEMENT_NODE || part.matches(SKIPPED)) return;
      const at = parts.length, tag = part.localName, attributes = {};
      for (const name of ATTRIBUTES) if (part.hasAttribute(name)) attributes[name] = part.getAttribute(name).slice(0, LONGEST_TEXT);
      // Where they lead, wherever this page lies.
      if (tag === "a" && part.href) attributes.href = String(part.href).slice(0, LONGEST_TEXT);
      if (tag === "img") attributes.src = (part.currentSrc || part.src).slice(0, LONGEST_TEXT);
      const shows = part.checkVisibility({ opacityProperty: true, visibilityProperty: true });
      const one = { parent, tag, rect: shows ? rectOf(part.getBoundingClientRect()) : [0, 0, 0, 0], attributes, styles: shows ? styleOf(part) : {} };
      if (shows && adorns(part)) one.adorned = true;
      if (shows && tag === "a") one.pointed = pointed(part, rules);
      parts.push(one);
      if (tag === "svg") {
        const copy = part.cloneNode(true);
        // What it takes from the page is said in itself.
        [part, ...part.querySelectorAll("*")].forEach((own, number) => {
          const { fill, stroke, strokeWidth } = getComputedStyle(own), other = number ? copy.querySelectorAll("*")[number - 1] : copy;
          if (own.matches("path,circle,ellipse,rect,line,polyline,polygon,text,tspan")) other.setAttribute("fill", fill), stroke !== "none" && (other.setAttribute("stroke", stroke), other.setAttribute("stroke-width", strokeWidth));
          other.removeAttribute("style");
        });
        copy.setAttribute("xmlns", "http://www.w3.org/2000/svg");
        copy.setAttribute("width", String(near(part.getBoundingClientRect().width)));
        copy.setAttribute("height", String(near(part.getBoundingClientRect().height)));
        if (copy.outerHTML.length <= LONGEST_DRAWING) one.drawing = copy.outerHTML;
        return;
      }
      for (const child of part.childNodes) walk(child, at);
    };
    walk(top, -1);
    // What lies behind it, where it has no ground of its own.
    let ground = "", band = null;
    for (let around = top.parentElement; around && !ground; around = around.parentElement) {
      const { backgroundColor } = getComputedStyle(around), { left, width } = around.getBoundingClientRect();
      if (/, 0\)$|^transparent$/.test(backgroundColor)) continue;
      // A body's ground is the window's, where the root has none.
      if (around.matches("html,body") || width >= document.documentElement.clientWidth * 0.97) ground = backgroundColor;
      else band ??= { colour: backgroundColor, left: near(left), width: near(width) };
    }
    const body = getComputedStyle(document.body);
    return {
      width: document.documentElement.clientWidth,
      parts,
      cut: parts.length >= MOST_PARTS,
      ground: ground || "rgb(255, 255, 255)",
      band,
      page: { color: body.color, "background-color": body.backgroundColor, "font-family": body.fontFamily, "font-size": body.fontSize, direction: body.direction },
      faces: faces(),
    };
  };
  return { measured };
})();
