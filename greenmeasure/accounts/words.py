"""What the doors say."""

SUBJECT = "Green Measure: set a new password"


def letter(name: str, where: str) -> str:
    """The letter with a link for a new password."""
    return (
        f"{name},\n\nsomebody asked for a new password under your sign-in name. If it was you, set it here within a day:\n\n"
        f"{where}\n\nIf it was not you, leave it: nothing has changed.\n"
    )


def forgotten_text(mail: bool) -> str:
    """What is said to whoever forgot a password, the same whether or not anybody has that name."""
    if mail:
        return "If that name has an e-mail address, a link is on its way to it. It holds for a day."
    return "No letters go out from here. Ask a manager of your account for a link with which you set a new password."


def device_text(agent: str) -> str:
    """What a session runs on, as far as its browser tells."""
    if not agent:
        return "not told"
    return "phone or tablet" if "Mobi" in agent or "Tablet" in agent else "computer"
