from django.urls import path

from . import editions, foundations, menus, pages, pieces, sites

urlpatterns = [
    path("", sites.sites, name="sites"),
    path("sites/new/", sites.new_site, name="new-site"),
    path("s/<slug:slug>/", sites.settings_screen, name="settings"),
    path("s/<slug:slug>/people/<int:person>/remove/", sites.leave_site, name="leave-site"),
    path("s/<slug:slug>/delete/", sites.delete_site, name="delete-site"),
    path("s/<slug:slug>/bundle/", sites.bundle, name="bundle"),
    path("s/<slug:slug>/newest/<int:revision>/", sites.newest, name="newest"),
    path("s/<slug:slug>/paths/", pieces.find_paths, name="paths"),
    path("s/<slug:slug>/pages/", pages.pages, name="pages"),
    path("s/<slug:slug>/pages/branch/", pages.page_branch, name="page-branch"),
    path("s/<slug:slug>/pages/bring-in/", pages.bring_in, name="bring-in"),
    path("s/<slug:slug>/pages/lifting/", pages.lifting, name="lifting"),
    path("s/<slug:slug>/works/<str:kind>/", pages.works, name="works"),
    path("s/<slug:slug>/pages/<str:page_id>/", pages.page, name="page"),
    path("s/<slug:slug>/foundations/", foundations.foundations, name="foundations"),
    path("s/<slug:slug>/menus/", menus.menus, name="menus"),
    path("s/<slug:slug>/menus/<str:menu_id>/", menus.menu, name="menu"),
    path("s/<slug:slug>/pieces/", pieces.pieces, name="pieces"),
    path("s/<slug:slug>/pieces/<str:piece_id>/", pieces.workbench, name="workbench"),
    path("s/<slug:slug>/editions/", editions.editions, name="editions"),
    path("s/<slug:slug>/editions/list/", editions.edition_list, name="edition-list"),
    path("s/<slug:slug>/editions/publish/", editions.publish, name="publish"),
    path("s/<slug:slug>/editions/<int:number>/zip/", editions.take_away, name="take-away"),
    path("s/<slug:slug>/editions/<int:number>/go-back/", editions.go_back, name="go-back"),
]
