"""With what can gates begin?"""

from __future__ import annotations

from .arranging import BOX, Arrangement, RowPlan, cells, words

ARRANGEMENTS = {
    "locked": Arrangement(
        "password",
        "A locked door",
        "The logo, a sentence, the password and a button.",
        (
            RowPlan(
                "Door",
                cells(
                    (
                        "share",
                        "start",
                        (
                            "logo",
                            (
                                "rich",
                                {"rich": {"text": "<p>This part of the site is for those who know its password.</p>"}},
                            ),
                            "told",
                            "secret",
                            ("answer", {"says": "yes", **words("Open")}),
                        ),
                    )
                ),
                {},
                BOX,
            ),
        ),
    ),
    "yes-no": Arrangement(
        "age",
        "Yes or no",
        "A question with two buttons.",
        (
            RowPlan(
                "Question",
                cells(
                    (
                        "share",
                        "center",
                        (
                            "logo",
                            ("rich", {"rich": {"text": "<p>Are you old enough, where you are, to go on?</p>"}}),
                            "told",
                            ("answer", {"says": "yes", **words("Yes, I am")}),
                            ("answer", {"says": "no", "look": "second", **words("No, I am not")}),
                        ),
                    )
                ),
                {},
                BOX,
            ),
        ),
    ),
    "date-of-birth": Arrangement(
        "age",
        "Date of birth",
        "A date is typed; who is too young does not get in.",
        (
            RowPlan(
                "Date",
                cells(
                    (
                        "share",
                        "start",
                        (
                            "logo",
                            (
                                "rich",
                                {
                                    "rich": {
                                        "text": "<p>To go on, tell us when you were born. We keep nothing of it.</p>"
                                    }
                                },
                            ),
                            "told",
                            "birth",
                            ("answer", {"says": "yes", **words("Go on")}),
                            ("answer", {"says": "no", "look": "link", **words("I would rather not say")}),
                        ),
                    )
                ),
                {},
                BOX,
            ),
        ),
    ),
}
