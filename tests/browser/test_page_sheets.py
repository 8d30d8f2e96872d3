"""Is what a page's own sheet leaves out without effect on it? Asked of Chromium, for every page of both demos."""

from __future__ import annotations

from collections.abc import Callable

import pytest
from selenium import webdriver

from upper_rim.core.model.site import Site
from upper_rim.core.output.page.compose import Composer
from upper_rim.core.output.publication import composer_of
from upper_rim.demo import ostrey, quillwort
from upper_rim.shipped import shelf

from .conftest import plain_chromium

STRAY = """
const [html, whole, own] = arguments;
document.documentElement.innerHTML = html;
document.querySelectorAll('link, style').forEach((one) => one.remove());
const rulesOf = (text) => {
  const sheet = new CSSStyleSheet(), found = [];
  sheet.replaceSync(text);
  const walk = (rules, around) => {
    for (const rule of rules) {
      if (rule.selectorText) for (const one of rule.selectorText.split(/,(?![^(]*\\))/)) found.push([around, one.trim(), rule.style]);
      else if (rule.cssRules && rule.type !== CSSRule.KEYFRAMES_RULE) walk(rule.cssRules, around + rule.cssText.split('{')[0]);
    }
  };
  walk(sheet.cssRules, '');
  return found;
};
const keyed = ([around, selector]) => around + '|' + selector;
const kept = new Set(rulesOf(own).map(keyed));
// In every state: what only some states are is not asked for.
const inAnyState = (selector) => selector
  .replace(/\\[(data-rim-(passed|down|away|early|quiet|on|bar|shut)|aria-(expanded|current|invalid)|hidden|open)[^\\]]*\\]/g, '')
  .replace(/::?(hover|focus-visible|focus-within|focus|active|popover-open|user-invalid|disabled|placeholder|backdrop|before|after|marker|first-letter|first-line)/g, '')
  .replace(/:(is|where|not)\\([\\s,]*\\)/g, '').replace(/(^|[\\s>+~])(?=$|[\\s>+~])/g, '$1').trim() || '*';
// What a custom property says is left out where nothing asks for it.
const saysMore = ([, , style]) => [...style].some((name) => !name.startsWith('--'));
return rulesOf(whole).filter((one) => !kept.has(keyed(one)) && saysMore(one)).map(([, selector]) => selector)
  .filter((selector) => { try { return document.querySelector(inAnyState(selector)); } catch { return true; } });
"""


@pytest.mark.parametrize("made", [ostrey, quillwort])
def test_no_rule_that_a_page_is_not_given_could_match_there(made: Callable[[], tuple[Site, dict[str, bytes]]]) -> None:
    site, contents = made()
    composer = composer_of(site, shelf(), contents.__getitem__, 2026)
    whole = Composer(composer.site, shelf(), contents.__getitem__, marks=True, year=2026).css
    driver: webdriver.Chrome = plain_chromium(frames="none")
    try:
        driver.get("about:blank")
        for page in composer.site.pages:
            html = composer.page(page, contents[page.content]).decode() if page.content else ""
            path = next((path for path, _ in composer.loaded() if path.endswith(".css") and path in html), None)
            if path is not None:
                stray = driver.execute_script(STRAY, html, whole, dict(composer.loaded())[path].decode())
                assert stray == [], page.path
    finally:
        driver.quit()
