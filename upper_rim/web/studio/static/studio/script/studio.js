// The studio's own script: it sends what was done and shows what came back. Rules are the server's. One module a subject, in
// the order in which they hear of an answer.
import "./requests.js";
import "./regions.js";
import "./rich_text.js";
import "./stage.js";
import "./width_ruler.js";
import "./scroll_ruler.js";
import "./movement_study.js";
import "./menu_pages.js";
import "./lifting.js";
import "./page_shape.js";
import "./taking_over.js";
import "./shortcuts.js";
import "./value_editor.js";
import "./outline.js";
import "./ahead.js";
import "./board.js";
import "./timetable.js";
import "./seam.js";
import "./find.js";
import "./fields.js";
import "./more.js";
import "./tray_edge.js";
import "./arrows.js";
import "./focus.js";
import "./news.js";
