"""What do the pieces say of themselves, in the page's language?"""

from __future__ import annotations

_PHRASES: dict[str, dict[str, str]] = {
    "skip": {
        "en": "Skip to content",
        "de": "Zum Inhalt springen",
        "cy": "Neidio i’r cynnwys",
        "ar": "انتقل إلى المحتوى",
    },
    "close": {"en": "Close menu", "de": "Menü schließen", "cy": "Cau’r ddewislen", "ar": "إغلاق القائمة"},
    "close_notice": {"en": "Close", "de": "Schließen", "cy": "Cau", "ar": "إغلاق"},
    "top": {"en": "Back to top", "de": "Nach oben", "cy": "Yn ôl i’r brig", "ar": "إلى الأعلى"},
    "new_window": {
        "en": "opens a new window",
        "de": "öffnet ein neues Fenster",
        "cy": "yn agor ffenestr newydd",
        "ar": "يفتح نافذة جديدة",
    },
    "days": {
        "en": "Mon Tue Wed Thu Fri Sat Sun",
        "de": "Mo Di Mi Do Fr Sa So",
        "cy": "Llun Maw Mer Iau Gwe Sad Sul",
        "ar": "الإثنين الثلاثاء الأربعاء الخميس الجمعة السبت الأحد",
    },
    "search": {"en": "Search", "de": "Suche", "cy": "Chwilio", "ar": "بحث"},
    "all_pages": {
        "en": "All pages",
        "de": "Alle Seiten",
        "cy": "Pob tudalen",
        "ar": "كل الصفحات",
    },
    "found": {"en": "Found: {0}", "de": "Gefunden: {0}", "cy": "Canfuwyd: {0}", "ar": "عدد النتائج: {0}"},
    "before": {"en": "Previous", "de": "Zurück", "cy": "Blaenorol", "ar": "السابق"},
    "after": {"en": "Next", "de": "Weiter", "cy": "Nesaf", "ar": "التالي"},
    "pages_of_list": {
        "en": "Pages of the list",
        "de": "Seiten der Liste",
        "cy": "Tudalennau’r rhestr",
        "ar": "صفحات القائمة",
    },
    "picture": {"en": "Picture", "de": "Bild", "cy": "Llun", "ar": "صورة"},
    "enlarge": {"en": "Enlarge", "de": "Vergrößern", "cy": "Chwyddo", "ar": "تكبير"},
    "needed": {"en": "needed", "de": "nötig", "cy": "angenrheidiol", "ar": "مطلوب"},
    "choose": {"en": "Choose…", "de": "Bitte wählen …", "cy": "Dewiswch…", "ar": "اختر…"},
    "answer_needed": {
        "en": "“{0}” is needed.",
        "de": "„{0}“ muss ausgefüllt sein.",
        "cy": "Mae angen “{0}”.",
        "ar": "الحقل «{0}» مطلوب.",
    },
    "answer_long": {
        "en": "“{0}” is longer than {1} characters.",
        "de": "„{0}“ ist länger als {1} Zeichen.",
        "cy": "Mae “{0}” yn hirach na {1} nod.",
        "ar": "الحقل «{0}» أطول من {1} حرف.",
    },
    "answer_shape": {
        "en": "“{0}” is not written as it should be.",
        "de": "„{0}“ ist nicht so geschrieben, wie es sein muss.",
        "cy": "Nid yw “{0}” wedi’i ysgrifennu fel y dylai fod.",
        "ar": "الحقل «{0}» غير مكتوب كما ينبغي.",
    },
    "answer_choice": {
        "en": "“{0}” has to be one of its choices.",
        "de": "„{0}“ muss eine der Möglichkeiten sein.",
        "cy": "Rhaid i “{0}” fod yn un o’r dewisiadau.",
        "ar": "يجب أن يكون «{0}» أحد الخيارات المتاحة.",
    },
    "too_much_sent": {
        "en": "Too much has been sent just now. Try again later.",
        "de": "Gerade wurde zu viel gesendet. Versuchen Sie es später noch einmal.",
        "cy": "Anfonwyd gormod ar hyn o bryd. Rhowch gynnig arall arni yn nes ymlaen.",
        "ar": "أُرسل الكثير للتو. حاول مرة أخرى لاحقًا.",
    },
    "sent": {"en": "Sent", "de": "Gesendet", "cy": "Anfonwyd", "ar": "تم الإرسال"},
    "not_sent": {"en": "Not sent", "de": "Nicht gesendet", "cy": "Heb ei anfon", "ar": "لم يُرسل"},
    "go_back": {
        "en": "Back to the page",
        "de": "Zurück zur Seite",
        "cy": "Yn ôl i’r dudalen",
        "ar": "العودة إلى الصفحة",
    },
    "trap": {"en": "Leave this empty", "de": "Leer lassen", "cy": "Gadewch yn wag", "ar": "اتركه فارغًا"},
    "map": {"en": "Map", "de": "Karte", "cy": "Map", "ar": "خريطة"},
    "trail": {"en": "You are here", "de": "Sie sind hier", "cy": "Rydych chi yma", "ar": "أنت هنا"},
    "branch": {"en": "More: {0}", "de": "Mehr: {0}", "cy": "Mwy: {0}", "ar": "المزيد: {0}"},
    "not_found": {
        "en": "Page not found",
        "de": "Seite nicht gefunden",
        "cy": "Heb ddod o hyd i’r dudalen",
        "ar": "الصفحة غير موجودة",
    },
    "not_found_text": {
        "en": "Nothing is kept at this address. It may have moved: the menu or the front page may lead there.",
        "de": "Unter dieser Adresse liegt nichts. Vielleicht führt das Menü oder die Startseite weiter.",
        "cy": "Nid oes dim yn y cyfeiriad hwn. Efallai y bydd y ddewislen neu’r dudalen flaen yn arwain yno.",
        "ar": "لا يوجد شيء في هذا العنوان. قد تقودك القائمة أو الصفحة الرئيسية إليه.",
    },
    "to_come": {
        "en": "This page is still to come.",
        "de": "Diese Seite folgt noch.",
        "cy": "Mae’r dudalen hon i ddod.",
        "ar": "هذه الصفحة قادمة.",
    },
}


def phrase(name: str, language: str, *parts: str) -> str:
    """The phrase in the language's primary subtag, in English where it is not known."""
    by_language = _PHRASES[name]
    return by_language.get(language.split("-")[0].lower(), by_language["en"]).format(*parts)
