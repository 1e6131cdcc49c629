package app.knottag.core.runbook;

import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kind.Field;
import java.util.List;

/** What to enter on the device, in the order of its own menu. */
public final class TypeSheet {

    private TypeSheet() {}

    /**
     * One line of the sheet.
     *
     * @param value what to enter; empty when the plan has no value for this field
     * @param figures whether the value is an address or a mask, to be shown in groups
     * @param spoken its groups in words, to dictate it; empty for what is known without dictating
     * @param leaveAlone whether the field keeps what it has
     * @param part which of the further menus it stands in, or empty for the network menu
     */
    public record SheetRow(
            Field field,
            String label,
            String value,
            boolean figures,
            List<String> spoken,
            boolean leaveAlone,
            String part) {}

    /** Returns the sheet of all menus; a field without a planned value is to be left empty. */
    public static List<SheetRow> of(Kind kind, EndpointPlan plan) {
        return kind.menu().stream().map(f -> row(f, plan)).toList();
    }

    private static SheetRow row(Kind.MenuField f, EndpointPlan plan) {
        String value =
                f.field() == Field.OTHER ? f.text() : plan.planned(f.field()).orElse(f.text());
        return new SheetRow(
                f.field(),
                f.label(),
                value,
                f.field().figures(),
                f.field().figures() ? Spoken.groups(value) : f.field().spelled() ? Spelling.of(value) : List.of(),
                f.leaveAlone(),
                f.part());
    }

    /** Returns the rows of one menu. */
    public static List<SheetRow> of(Kind kind, EndpointPlan plan, String part) {
        return of(kind, plan).stream().filter(r -> r.part().equals(part)).toList();
    }

    /** Returns the rows of one menu that are read back: those with a value, figures or not. */
    public static List<SheetRow> toReadBack(Kind kind, EndpointPlan plan, String part) {
        return of(kind, plan, part).stream().filter(r -> !r.value().isEmpty()).toList();
    }

    /** Returns the name of a row's field in what is read back; several have words of their own, so the label tells. */
    public static String key(SheetRow row) {
        return row.field() == Field.OTHER ? row.label() : row.field().name();
    }
}
