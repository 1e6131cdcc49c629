package app.knottag.server.register;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.InterfaceChoice;
import app.knottag.core.hardware.LabelText;
import app.knottag.core.hardware.Mac;
import app.knottag.core.intake.Recognised;
import app.knottag.core.intake.TextReader;
import app.knottag.core.kind.Kind.Label;
import app.knottag.core.kind.Kinds;
import app.knottag.core.kind.LabelOrder;
import app.knottag.core.reading.Reading;
import app.knottag.core.reading.ReadingException;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.Endpoints;
import app.knottag.server.record.InterfaceStore.InterfaceRow;
import app.knottag.server.record.Runbooks;
import app.knottag.server.web.CodePicture;
import app.knottag.server.web.Problem;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.time.Clock;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.EnumSet;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.http.MediaType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** Reading a label: from a wedge or a paste, from a picture, or from a neighbour table. Nothing is kept here. */
@RestController
class LabelController {

    private static final int MOST_TEXT = 200_000;

    record LabelTextRequest(@NotNull String text) {}

    /** A MAC as it came and how it reads. */
    record ReadText(String text, Reading reading) {}

    record LabelView(
            List<ReadText> macs,
            @Nullable ReadText serial,
            @Nullable String model,
            List<String> rest) {}

    /** A MAC of a pasted table that may be that of the endpoint. */
    record Candidate(Mac mac, @Nullable Ipv4Address address, String said, boolean likely) {}

    private final Endpoints endpoints;
    private final Runbooks runbooks;
    private final Kinds kinds;
    private final Clock clock;

    private final InterfaceWork work;

    LabelController(Endpoints endpoints, Runbooks runbooks, Kinds kinds, Clock clock, InterfaceWork work) {
        this.work = work;
        this.endpoints = endpoints;
        this.runbooks = runbooks;
        this.kinds = kinds;
        this.clock = clock;
    }

    /** What is still to be read of an endpoint and where, what is hidden first in front. */
    @GetMapping("/api/endpoints/{id}/labels")
    List<LabelOrder.ToRead> order(@PathVariable long id) {
        var e = endpoints.get(id);
        var known = EnumSet.noneOf(Label.Read.class);
        if (e.mac() != null) known.add(Label.Read.MAC);
        if (!e.serial().isEmpty()) known.add(Label.Read.SERIAL);
        if (!e.model().isEmpty()) known.add(Label.Read.MODEL);
        var done = runbooks.runbook(e).records().stream()
                .filter(r -> r.done())
                .map(r -> r.key())
                .collect(Collectors.toSet());
        return LabelOrder.of(kinds.get(e.kind()), known, done);
    }

    @PostMapping("/api/endpoints/{id}/label-text")
    LabelView text(@PathVariable long id, @Valid @RequestBody LabelTextRequest b) {
        if (b.text().length() > MOST_TEXT)
            throw Problem.field("text", "too-long", "That is more than a label holds. Scan or paste the label alone.");
        return sorted(endpoints.get(id), b.text());
    }

    @PostMapping(
            path = "/api/endpoints/{id}/label-picture",
            consumes = {MediaType.IMAGE_JPEG_VALUE, MediaType.IMAGE_PNG_VALUE, MediaType.APPLICATION_OCTET_STREAM_VALUE
            })
    LabelView picture(@PathVariable long id, @RequestBody byte[] body) {
        var e = endpoints.get(id);
        try {
            return sorted(e, String.join("\n", CodePicture.texts(body)));
        } catch (ReadingException refused) {
            throw Problem.field("picture", "no-picture", refused.getMessage());
        }
    }

    private LabelView sorted(EndpointStore.Row e, String text) {
        var label = LabelText.of(text, kinds.get(e.kind()).serialPattern());
        return new LabelView(
                label.macs().stream()
                        .map(m -> new ReadText(m, endpoints.readMac(e.siteId(), e.id(), m)))
                        .toList(),
                label.serial()
                        .map(s -> new ReadText(s, endpoints.readSerial(e.siteId(), e.kind(), e.id(), s)))
                        .orElse(null),
                label.model().orElse(null),
                label.rest());
    }

    /** Finds the endpoint in a table that a switch or a machine printed. */
    @PostMapping("/api/endpoints/{id}/neighbour-table")
    List<Candidate> table(@PathVariable long id, @Valid @RequestBody LabelTextRequest b) {
        var e = endpoints.get(id);
        if (b.text().length() > MOST_TEXT)
            throw Problem.field("text", "too-long", "That table is too long. Paste the lines of this segment alone.");
        var read = TextReader.read(b.text(), clock.instant());
        if (read instanceof Recognised.Table t && !t.problems().isEmpty())
            throw Problem.field(
                    "text",
                    "unreadable",
                    "Line " + t.problems().get(0).line() + ": "
                            + t.problems().get(0).message());
        var own = work.of(id).stream().map(InterfaceRow::plain).toList();
        var macs = read.rows().stream().flatMap(d -> d.mac().stream()).collect(Collectors.toSet());
        var others = endpoints.holders(e.siteId(), id, macs);
        var found = new ArrayList<Candidate>();
        for (var d : read.rows()) {
            if (d.mac().isEmpty()) continue;
            Mac mac = d.mac().get();
            boolean there = e.address() != null
                    && d.address().filter(e.address()::equals).isPresent();
            // Units from one carton are next to one another: whose it is comes before what it is next to.
            var explained = others.containsKey(mac) ? Optional.<String>empty() : InterfaceChoice.explain(mac, own);
            String said = explained.orElseGet(() -> others.containsKey(mac)
                    ? "It belongs to " + others.get(mac) + "."
                    : there ? "It answers at the planned address." : "Nobody on record has it.");
            found.add(new Candidate(
                    mac, d.address().orElse(null), said, explained.isPresent() || (there && !others.containsKey(mac))));
        }
        if (found.isEmpty())
            throw Problem.field("text", "no-mac", "There is no MAC in this text. Paste the lines of the table itself.");
        found.sort(Comparator.comparing((Candidate c) -> !c.likely())
                .thenComparing(c ->
                        Optional.ofNullable(c.address()).map(Ipv4Address::bits).orElse(0)));
        return found.stream().limit(60).toList();
    }
}
