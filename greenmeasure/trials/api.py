"""Trials."""

from django.http import HttpRequest
from ninja import Path, Router

from greenmeasure.accounts.auth import APPLICATOR, MANAGER, VIEWER, account_of, user_of
from greenmeasure.common.bounds import Id
from greenmeasure.common.versions import against
from greenmeasure.trials import actions, queries
from greenmeasure.trials.schemas import LayoutIn, LayoutOut, ScoresIn, TrialChangeIn, TrialIn, TrialMapOut, TrialOut, TrialsOut

router = Router(tags=["trials"])


@router.get("", response=TrialsOut, auth=VIEWER)
def list_trials(request: HttpRequest, account: Path[str]) -> TrialsOut:
    """The trials, those under way first."""
    return queries.trials_out(account_of(request))


@router.post("/layout", response=LayoutOut, auth=VIEWER)
def look_at_layout(request: HttpRequest, account: Path[str], data: LayoutIn) -> LayoutOut:
    """How a trial would lie on an area, and how small a difference it could show; nothing is kept."""
    return queries.layout_out(account_of(request), data)


@router.post("", response={201: TrialOut}, auth=MANAGER)
def begin_trial(request: HttpRequest, account: Path[str], data: TrialIn) -> tuple[int, TrialOut]:
    """Begin a trial: its plots become parts of the area, one a treatment, with a fixed spot each."""
    found = account_of(request)
    made = actions.begin(found, user_of(request), data)
    return 201, queries.trial_out(found, queries.trial_of(found, made.pk))


@router.get("/on-round/{round_id}", response=list[TrialMapOut], auth=VIEWER)
def list_trial_maps(request: HttpRequest, account: Path[str], round_id: Id) -> list[TrialMapOut]:
    """The maps of the trials whose plots a round is for."""
    return queries.maps_of(account_of(request), round_id)


@router.get("/{trial_id}", response=TrialOut, auth=VIEWER)
def read_trial(request: HttpRequest, account: Path[str], trial_id: Id) -> TrialOut:
    """A trial: its plots, what went down on each treatment, what was scored, what that shows."""
    found = account_of(request)
    return queries.trial_out(found, queries.trial_of(found, trial_id))


@router.put("/{trial_id}", response=TrialOut, auth=MANAGER)
def change_trial(request: HttpRequest, account: Path[str], trial_id: Id, data: TrialChangeIn) -> TrialOut:
    """Change a trial's name, its days, or what is noted of it."""
    found = account_of(request)
    with against(data, lambda: queries.trial_out(found, queries.trial_of(found, trial_id))):
        return queries.trial_out(found, actions.change(found, queries.trial_of(found, trial_id), data))


@router.delete("/{trial_id}", response={204: None}, auth=MANAGER)
def remove_trial(request: HttpRequest, account: Path[str], trial_id: Id) -> tuple[int, None]:
    """Take out a trial of which nothing was scored and nothing put down."""
    found = account_of(request)
    actions.remove(found, queries.trial_of(found, trial_id))
    return 204, None


@router.post("/{trial_id}/scores", response={201: TrialOut}, auth=APPLICATOR)
def score_trial(request: HttpRequest, account: Path[str], trial_id: Id, data: ScoresIn) -> tuple[int, TrialOut]:
    """Keep what the plots were scored on a day."""
    found = account_of(request)
    actions.keep_scores(found, user_of(request), queries.trial_of(found, trial_id), data)
    return 201, queries.trial_out(found, queries.trial_of(found, trial_id))


@router.post("/{trial_id}/end", response=TrialOut, auth=MANAGER)
def end_trial(request: HttpRequest, account: Path[str], trial_id: Id) -> TrialOut:
    """End a trial: its parts and spots are put away, what was noted stays."""
    found = account_of(request)
    actions.end(found, queries.trial_of(found, trial_id))
    return queries.trial_out(found, queries.trial_of(found, trial_id))


@router.post("/{trial_id}/resume", response=TrialOut, auth=MANAGER)
def resume_trial(request: HttpRequest, account: Path[str], trial_id: Id) -> TrialOut:
    """Go on with a trial that was ended."""
    found = account_of(request)
    actions.resume(found, queries.trial_of(found, trial_id))
    return queries.trial_out(found, queries.trial_of(found, trial_id))
