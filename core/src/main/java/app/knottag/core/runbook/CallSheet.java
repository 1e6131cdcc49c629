package app.knottag.core.runbook;

import app.knottag.core.address.AddressReader;
import app.knottag.core.runbook.TypeSheet.SheetRow;
import java.util.List;
import java.util.Locale;
import java.util.Map;

/**
 * A read-back over the phone: what the listener repeated for each value, with the slip that made it another one.
 *
 * @param right how many were repeated rightly
 * @param of how many there are
 */
public record CallSheet(List<ServiceReply> fields, int right, int of) {

    /** One value as it was repeated; not heard yet when the text is empty. */
    public record ServiceReply(String field, String label, boolean heard, boolean right, String message) {}

    /** Scores what was repeated, by field name. */
    public static CallSheet score(List<SheetRow> rows, EndpointPlan plan, Map<String, String> repeated) {
        var fields = rows.stream()
                .filter(r -> !r.spoken().isEmpty())
                .map(r -> heard(
                        r, plan, repeated.getOrDefault(r.field().name(), "").strip()))
                .toList();
        return new CallSheet(
                fields, (int) fields.stream().filter(ServiceReply::right).count(), fields.size());
    }

    private static ServiceReply heard(SheetRow row, EndpointPlan plan, String text) {
        if (text.isEmpty()) return new ServiceReply(row.field().name(), row.label(), false, false, "");
        if (!row.figures()) return spelled(row, text);
        var reading =
                AddressReader.read(Spoken.figures(text), EndpointPlan.purpose(row.field()), plan.context(row.value()));
        boolean right = row.value().equals(reading.value());
        return new ServiceReply(
                row.field().name(), row.label(), true, right, right ? "" : GateJudge.said(reading, row.value()));
    }

    private static ServiceReply spelled(SheetRow row, String text) {
        boolean right = plain(text).equals(plain(row.value()))
                || Spoken.figures(text).equals(row.value())
                || plain(text).equals(plain(String.join("", row.spoken())));
        return new ServiceReply(
                row.field().name(),
                row.label(),
                true,
                right,
                right ? "" : "“" + text + "” instead of “" + row.value() + "”.");
    }

    private static String plain(String text) {
        return text.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]", "");
    }
}
