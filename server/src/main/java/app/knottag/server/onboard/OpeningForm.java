package app.knottag.server.onboard;

import app.knottag.core.kind.Opening.Danger;
import app.knottag.server.onboard.OnboardWork.OpeningSaid;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.Sites;
import app.knottag.server.web.Dates;
import app.knottag.server.web.FormReader;
import java.util.Objects;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Reads what is said of an opening: it is closed, or somebody closes it by a day. */
@Component
class OpeningForm {

    record OpeningRequest(boolean closed, String owner, String ends, String note, String title, Danger danger) {}

    private final Sites sites;

    OpeningForm(Sites sites) {
        this.sites = sites;
    }

    OpeningSaid read(EndpointStore.Row endpoint, OpeningRequest b) {
        var form = new FormReader();
        String owner = form.text("owner", b.owner(), !b.closed());
        String note = form.text("note", b.note(), false);
        var style = sites.site(endpoint.siteId()).dates();
        var ends = Optional.ofNullable(Dates.day("ends", b.ends(), style)).filter(d -> !b.closed());
        if (!b.closed() && ends.isEmpty()) form.add("ends", "end-missing", "Say by which day it is closed.");
        form.refuse();
        return new OpeningSaid(
                b.closed(),
                owner,
                ends,
                note,
                Objects.requireNonNullElse(b.title(), ""),
                Objects.requireNonNullElse(b.danger(), Danger.OTHER));
    }
}
