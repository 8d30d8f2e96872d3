"""Which view answers which address of the studio?"""

from django.urls import path

from .board import timetable, visitors
from .board import views as board
from .controls import suggestions
from .editions import before
from .editions import views as editions
from .findings import views as findings
from .fit import views as fit
from .foundations import carrying, fonts, schemes, tokens
from .foundations import views as foundations
from .gates import consent
from .gates import views as gates
from .inbox import views as inbox
from .languages import views as languages
from .menus import heights as menu_heights
from .menus import views as menus
from .movement import views as movement
from .pages import taking_over
from .pages import views as pages
from .past import views as past
from .pieces import views as pieces
from .preview import steps
from .sites import views as sites
from .wording import files as wording_files
from .wording import measured
from .wording import views as wording
from .workbench import files, finding, fitting_sizes, rearranging, remedies, scroll_ruler, seam, words
from .workbench import views as workbench

urlpatterns = [
    path("", sites.sites, name="sites"),
    path("sites/new/", sites.new_site, name="new-site"),
    path("s/<slug:slug>/", sites.settings_screen, name="settings"),
    path("s/<slug:slug>/people/<int:person>/remove/", sites.leave_site, name="leave-site"),
    path("s/<slug:slug>/delete/", sites.delete_site, name="delete-site"),
    path("s/<slug:slug>/bundle/", sites.bundle, name="bundle"),
    path("s/<slug:slug>/front/", sites.front, name="front"),
    path("s/<slug:slug>/steps/leave-out/", steps.leave_out, name="leave-steps"),
    path("s/<slug:slug>/newest/<int:revision>/", sites.newest, name="newest"),
    path("s/<slug:slug>/paths/", suggestions.find_paths, name="paths"),
    path("s/<slug:slug>/pages/", pages.pages, name="pages"),
    path("s/<slug:slug>/pages/branch/", pages.page_branch, name="page-branch"),
    path("s/<slug:slug>/pages/bring-in/", pages.bring_in, name="bring-in"),
    path("s/<slug:slug>/pages/<str:page_id>/measured/", pages.measured_page, name="measured-page"),
    path("s/<slug:slug>/pages/languages/", languages.languages, name="languages"),
    path("s/<slug:slug>/pages/wording/", wording.wording, name="wording"),
    path("s/<slug:slug>/pages/wording/lengths/", measured.lengths, name="wording-lengths"),
    path("s/<slug:slug>/pages/wording/tried/", measured.tried, name="wording-tried"),
    path("s/<slug:slug>/pages/wording/brought/", wording_files.brought, name="wording-brought"),
    path("s/<slug:slug>/pages/wording/csv/", wording_files.as_csv, name="wording-csv"),
    path("s/<slug:slug>/pages/wording/xliff/<str:language>/", wording_files.as_xliff, name="wording-xliff"),
    path("s/<slug:slug>/pages/lifting/", pages.lifting, name="lifting"),
    path("s/<slug:slug>/pages/lifting/taken-over/", taking_over.taken_over, name="taken-over"),
    path("s/<slug:slug>/pages/lifting/proposals/", pages.lift_proposals, name="lift-proposals"),
    path("s/<slug:slug>/works/<str:kind>/", pages.works, name="works"),
    path("s/<slug:slug>/pages/<str:page_id>/", pages.page, name="page"),
    path("s/<slug:slug>/foundations/", foundations.foundations, name="foundations"),
    path("s/<slug:slug>/foundations/type/", foundations.type_screen, name="type"),
    path("s/<slug:slug>/foundations/defaults/", foundations.defaults, name="defaults"),
    path("s/<slug:slug>/foundations/defaults/<str:role>/", foundations.role, name="role"),
    path("s/<slug:slug>/foundations/looks/", foundations.looks, name="looks"),
    path("s/<slug:slug>/foundations/looks/<str:look_id>/", foundations.look, name="look"),
    path("s/<slug:slug>/foundations/code/", foundations.code, name="code"),
    path("s/<slug:slug>/foundations/contrast/", foundations.contrast, name="contrast"),
    path("s/<slug:slug>/foundations/font/<str:font_id>/<int:at>/", fonts.font_file, name="font-file"),
    path("s/<slug:slug>/foundations/font/", fonts.bring_font, name="bring-font"),
    path("s/<slug:slug>/foundations/tokens/", tokens.tokens, name="tokens"),
    path("s/<slug:slug>/foundations/schemes/", schemes.schemes, name="schemes"),
    path("s/<slug:slug>/foundations/carry/", carrying.carry, name="carry"),
    path("s/<slug:slug>/menus/", menus.menus, name="menus"),
    path("s/<slug:slug>/menus/<str:menu_id>/", menus.menu, name="menu"),
    path("s/<slug:slug>/menus/<str:menu_id>/opened/", menu_heights.opened, name="menu-opened"),
    path("s/<slug:slug>/board/", board.board, name="board"),
    path("s/<slug:slug>/board/found/", board.found, name="board-found"),
    path("s/<slug:slug>/board/csv/", board.board_file, {"form": "csv"}, name="board-csv"),
    path("s/<slug:slug>/board/json/", board.board_file, {"form": "json"}, name="board-json"),
    path("s/<slug:slug>/findings/", findings.findings, name="findings"),
    path("s/<slug:slug>/findings/how-far/", findings.how_far_looked, name="how-far-looked"),
    path("s/<slug:slug>/findings/mending/", findings.mending, name="findings-mending"),
    path("s/<slug:slug>/findings/report/", findings.report, name="findings-report"),
    path("s/<slug:slug>/gates/", gates.gates, name="gates"),
    path("s/<slug:slug>/gates/answers.csv", consent.answers_csv, name="answers-csv"),
    path("s/<slug:slug>/timetable/", timetable.timetable, name="timetable"),
    path("s/<slug:slug>/visitors/", visitors.visitors, name="visitors"),
    path("s/<slug:slug>/pieces/", pieces.pieces, name="pieces"),
    path("s/<slug:slug>/pieces/new/", pieces.new_piece, name="new-piece"),
    path("s/<slug:slug>/pieces/new/arrangements/", pieces.arrangements, name="arrangements"),
    path("s/<slug:slug>/pieces/<str:piece_id>/", workbench.workbench, name="workbench"),
    path("s/<slug:slug>/pieces/<str:piece_id>/fitting-sizes/", fitting_sizes.fitting_sizes, name="fitting-sizes"),
    path("s/<slug:slug>/pieces/<str:piece_id>/seam/", seam.candidates, name="seam"),
    path(
        "s/<slug:slug>/pieces/<str:piece_id>/arrangements/", rearranging.other_arrangements, name="other-arrangements"
    ),
    path("s/<slug:slug>/pieces/<str:piece_id>/fit/", fit.fit_study, name="fit"),
    path("s/<slug:slug>/pieces/<str:piece_id>/mending/", remedies.mending, name="mending"),
    path("s/<slug:slug>/pieces/<str:piece_id>/movement/", movement.movement_study, name="movement"),
    path("s/<slug:slug>/pieces/<str:piece_id>/scroll-ruler/", scroll_ruler.ruler_again, name="scroll-ruler"),
    path("s/<slug:slug>/find/", finding.find, name="find"),
    path("s/<slug:slug>/words/", words.words_at, name="words-at"),
    path("s/<slug:slug>/icons/", suggestions.icons, name="icons"),
    path("s/<slug:slug>/files/", files.bring_file, name="bring-file"),
    path("s/<slug:slug>/inbox/", inbox.inbox, name="inbox"),
    path("s/<slug:slug>/inbox/messages.csv", inbox.as_csv, name="inbox-csv"),
    path("s/<slug:slug>/inbox/<int:message>/remove/", inbox.remove, name="remove-message"),
    path("s/<slug:slug>/past/", past.past, name="past"),
    path("s/<slug:slug>/editions/", editions.editions, name="editions"),
    path("s/<slug:slug>/editions/list/", editions.edition_list, name="edition-list"),
    path("s/<slug:slug>/editions/before/", before.before_publishing, name="before-publishing"),
    path("s/<slug:slug>/editions/publish/", editions.publish, name="publish"),
    path("s/<slug:slug>/editions/<int:number>/zip/", editions.take_away, name="take-away"),
    path("s/<slug:slug>/editions/<int:number>/go-back/", editions.go_back, name="go-back"),
]
