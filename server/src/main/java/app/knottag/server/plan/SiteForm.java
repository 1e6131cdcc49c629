package app.knottag.server.plan;

import app.knottag.core.plan.NameRule;
import app.knottag.core.reading.ReadingException;
import app.knottag.server.web.FormReader;
import jakarta.validation.constraints.NotNull;
import java.time.ZoneId;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/** Reads what was typed about a site, and refuses it with everything that is wrong. */
public final class SiteForm {

    /** A site as it is typed in; how it is fed may be unknown. */
    public record SiteChangeRequest(
            @NotNull String name,
            @NotNull String zone,
            String client,
            @NotNull String nameRule,
            Feed feed,
            String feedNote,
            Long feedPortId) {

        /** What brings the line into the site. */
        public enum Feed {
            WALL,
            MODEM
        }
    }

    /** What was read; no client is an empty text. */
    record SiteFacts(
            String name,
            ZoneId zone,
            String client,
            String nameRule,
            Optional<SiteChangeRequest.Feed> feed,
            String feedNote,
            @Nullable Long feedPortId) {}

    private SiteForm() {}

    public static SiteFacts read(SiteChangeRequest b) {
        var form = new FormReader();
        String name = form.text("name", b.name(), true);
        if (form.clean() && (name.length() < 2 || name.length() > 80))
            form.add("name", "bad-name", "A name has 2 to 80 characters.");
        boolean zone = ZoneId.getAvailableZoneIds().contains(b.zone());
        if (!zone) form.add("zone", "bad-zone", "“" + b.zone() + "” is no time zone. Choose one from the list.");
        try {
            new NameRule(b.nameRule());
        } catch (ReadingException e) {
            form.add("nameRule", "bad-name-rule", e.getMessage());
        }
        String client = form.text("client", b.client(), false);
        String note = form.text("feedNote", b.feedNote(), false);
        form.refuse();
        return new SiteFacts(
                name, ZoneId.of(b.zone()), client, b.nameRule(), Optional.ofNullable(b.feed()), note, b.feedPortId());
    }
}
