package app.knottag.server.handover;

import app.knottag.core.handover.Area;
import app.knottag.core.handover.LabelDrawing.Drawn;
import app.knottag.core.handover.LabelGrid;
import java.util.List;

/**
 * Labels as they lie on their sheets.
 *
 * @param labels each with its place, in order
 */
record LabelSheet(LabelGrid grid, List<Placed> labels) {

    /** @param name what it belongs to */
    record Placed(int sheet, Area box, String name, Drawn drawn) {}

    int sheets() {
        return labels.isEmpty() ? 0 : labels.get(labels.size() - 1).sheet() + 1;
    }

    List<Placed> on(int sheet) {
        return labels.stream().filter(l -> l.sheet() == sheet).toList();
    }
}
