package app.knottag.server.plan;

import app.knottag.core.address.AddressContext;
import app.knottag.core.address.AddressReader;
import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Pool;
import app.knottag.core.address.Purpose;
import app.knottag.core.address.Segment;
import app.knottag.core.hardware.Mac;
import app.knottag.core.hardware.MacReader;
import app.knottag.core.plan.ResolverChoice;
import app.knottag.core.reading.Reading;
import app.knottag.server.record.Endpoints;
import app.knottag.server.record.Sites;
import app.knottag.server.web.FormReader;
import app.knottag.server.web.Scope;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** The readers that every field asks while it is typed in. They change nothing. */
@RestController
class ReaderController {

    record SegmentSketch(@NotNull Ipv4Prefix prefix, Ipv4Address gateway, List<Pool> pools) {}

    record AddressReadRequest(
            String text,

            @NotNull(message = "Say what the text is meant to be.")
            Purpose purpose,

            @Valid SegmentSketch segment,
            List<Ipv4Address> taken,
            String expected,
            Long segmentId,
            Long endpointId) {}

    record MacReadRequest(String text, List<Mac> known, Mac expected, Long siteId, Long endpointId) {}

    record SerialReadRequest(
            String text, @NotNull String kind, @NotNull Long siteId, Long endpointId) {}

    /** The resolvers at hand, as they are typed, and what is known of the site. */
    record ResolverRequest(
            @Size(max = 4) List<String> site,
            @Size(max = 4) List<String> provider,
            @Size(max = 4) List<String> open,
            boolean insideNames,
            boolean outsideAllowed) {}

    private final Endpoints endpoints;
    private final Sites sites;

    ReaderController(Endpoints endpoints, Sites sites) {
        this.endpoints = endpoints;
        this.sites = sites;
    }

    @PostMapping("/api/address/read")
    Reading address(@Valid @RequestBody AddressReadRequest body) {
        var context = body.endpointId() != null || body.segmentId() != null ? onRecord(body) : spelledOut(body);
        return AddressReader.read(body.text(), body.purpose(), context);
    }

    private AddressContext onRecord(AddressReadRequest body) {
        long endpointId = body.endpointId() == null ? 0 : body.endpointId();
        long segmentId = body.segmentId() != null
                ? body.segmentId()
                : endpoints.get(endpointId).segmentId();
        var context = endpoints.context(sites.segment(segmentId).siteId(), segmentId, endpointId);
        return body.expected() == null ? context : context.expecting(body.expected());
    }

    private static AddressContext spelledOut(AddressReadRequest body) {
        var segment = Optional.ofNullable(body.segment())
                .map(s -> new Segment(
                        s.prefix(), Optional.ofNullable(s.gateway()), s.pools() == null ? List.of() : s.pools()));
        return new AddressContext(
                segment,
                body.taken() == null ? Set.of() : new HashSet<>(body.taken()),
                Optional.ofNullable(body.expected()));
    }

    /** Which pair of resolvers to use, and why; what is not typed yet is not at hand. */
    @PostMapping("/api/resolvers/choice")
    ResolverChoice resolvers(@Valid @RequestBody ResolverRequest body) {
        var form = new FormReader();
        var known = new ResolverChoice.Known(
                addresses(form, "site", body.site()),
                addresses(form, "provider", body.provider()),
                addresses(form, "open", body.open()));
        form.refuse();
        return ResolverChoice.choose(known, body.insideNames(), body.outsideAllowed());
    }

    private static List<Ipv4Address> addresses(FormReader form, String field, @Nullable List<String> typed) {
        var read = new ArrayList<Ipv4Address>();
        if (typed != null)
            for (String text : typed)
                if (!text.isBlank())
                    form.value(field, AddressReader.read(text, Purpose.RESOLVER, AddressContext.NONE))
                            .ifPresent(value -> {
                                if (value.contains(":"))
                                    form.add(
                                            field,
                                            "not-ipv4",
                                            value + " is an IPv6 address; a pair of IPv4 is chosen here.");
                                else read.add(Ipv4Address.parse(value));
                            });
        return read;
    }

    @PostMapping("/api/mac/read")
    Reading mac(@Valid @RequestBody MacReadRequest body) {
        if (body.siteId() != null) {
            Scope.check(body.siteId());
            return endpoints.readMac(body.siteId(), body.endpointId() == null ? 0 : body.endpointId(), body.text());
        }
        return MacReader.read(
                body.text(), body.known() == null ? List.of() : body.known(), Optional.ofNullable(body.expected()));
    }

    @PostMapping("/api/serial/read")
    Reading serial(@Valid @RequestBody SerialReadRequest body) {
        Scope.check(body.siteId());
        return endpoints.readSerial(
                body.siteId(), body.kind(), body.endpointId() == null ? 0 : body.endpointId(), body.text());
    }
}
