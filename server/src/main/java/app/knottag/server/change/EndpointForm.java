package app.knottag.server.change;

import app.knottag.core.address.AddressReader;
import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Purpose;
import app.knottag.core.hardware.Mac;
import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kinds;
import app.knottag.core.plan.Method;
import app.knottag.core.reading.Reading;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.Endpoints;
import app.knottag.server.record.SiteStore.SegmentRow;
import app.knottag.server.record.SiteStore.SeriesRow;
import app.knottag.server.record.Sites;
import app.knottag.server.web.Problem;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Function;
import org.springframework.stereotype.Component;

/** Where what somebody typed about an endpoint ends: it is read here, by core's readers, or refused with the place of each mistake. */
@Component
public class EndpointForm {

    /**
     * An endpoint to add, as it was read and found usable.
     *
     * @param series where its number is counted; empty when it has none
     * @param servicePort where its service is asked, when that is not by its kind and number
     * @param testPort port at which its partner is tested
     */
    public record NewEndpoint(
            SegmentRow segment,
            Kind kind,
            Optional<SeriesRow> series,
            Optional<Integer> number,
            Optional<Integer> servicePort,
            Optional<Integer> testPort,
            EndpointFacts facts) {}

    /**
     * What an endpoint is to be, as it was read and found usable.
     *
     * @param method who keeps its address; empty leaves that as it is, or to its segment
     * @param partnerStays whether the partner stays as it is; else {@code partner} is the new one, or none
     * @param reason why, where somebody said so; may be empty
     */
    public record EndpointFacts(
            String name,
            Optional<Ipv4Address> address,
            Optional<Mac> mac,
            String serial,
            String model,
            Ends ends,
            String hostName,
            Optional<Method> method,
            boolean partnerStays,
            Optional<Partner> partner,
            String reason) {

        /** What it works with, and the port at which that is tested. */
        public record Partner(String name, Ipv4Address address) {}

        /** Where it is plugged in, in the words of the site sheet; empty where nobody knows. */
        public record Ends(String place, String outlet, String port) {}
    }

    private static final int HIGHEST_NUMBER = 9999;

    private final Endpoints endpoints;
    private final Numbering numbering;
    private final Sites sites;
    private final Kinds kinds;

    EndpointForm(Endpoints endpoints, Numbering numbering, Sites sites, Kinds kinds) {
        this.endpoints = endpoints;
        this.numbering = numbering;
        this.sites = sites;
        this.kinds = kinds;
    }

    /** Reads what is wanted of a new endpoint of a site. */
    public NewEndpoint read(long siteId, EndpointRequest wanted) {
        var kind = kinds.find(wanted.kind())
                .orElseThrow(() -> Problem.field("kind", "no-such-kind", "There is no kind “" + wanted.kind() + "”."));
        var segment = sites.segmentOf(siteId, wanted.segmentId());
        var number = Optional.ofNullable(wanted.number());
        var series = numbering.seriesOf(siteId, kind, wanted.seriesId()).filter(s -> number.isPresent());
        var form = new EndpointReader(wanted.reason());
        var facts = new EndpointFacts(
                form.text("name", wanted.name(), true),
                form.read("address", wanted.address(), addressReader(siteId, wanted.segmentId(), 0))
                        .map(Ipv4Address::parse),
                form.read("mac", wanted.mac(), t -> endpoints.readMac(siteId, 0, t))
                        .map(Mac::parse),
                form.read("serial", wanted.serial(), t -> endpoints.readSerial(siteId, kind.id(), 0, t))
                        .orElse(""),
                form.text("model", wanted.model(), false),
                form.ends(wanted.place(), wanted.outlet(), wanted.switchPort()),
                form.hostName(wanted.hostName()),
                Optional.ofNullable(wanted.method()),
                false,
                form.partner(wanted.partnerName(), wanted.partnerAddress()),
                form.reason());
        if (number.filter(n -> n < 1 || n > HIGHEST_NUMBER).isPresent())
            form.add("number", "out-of-range", "A number runs from 1 to " + HIGHEST_NUMBER + ".");
        form.refuse();
        return new NewEndpoint(
                segment,
                kind,
                series,
                number,
                Optional.ofNullable(wanted.servicePort()),
                Optional.ofNullable(wanted.partnerTestPort()),
                facts);
    }

    /** Reads what is to change about an endpoint; what is not named stays. */
    public EndpointFacts read(EndpointStore.Row was, ChangeRequest change) {
        var form = new EndpointReader(change.reason());
        long site = was.siteId(), id = was.id();
        var facts = new EndpointFacts(
                change.name() == null ? was.name() : form.text("name", change.name(), true),
                form.changed("address", change.address(), was.address(), addressReader(site, was.segmentId(), id))
                        .map(Ipv4Address::parse),
                form.changed("mac", change.mac(), was.mac(), t -> endpoints.readMac(site, id, t))
                        .map(Mac::parse),
                form.changed(
                                "serial",
                                change.serial(),
                                was.serial(),
                                t -> endpoints.readSerial(site, was.kind(), id, t))
                        .orElse(""),
                change.model() == null ? was.model() : form.text("model", change.model(), false),
                form.ends(
                        kept(change.place(), was.place()),
                        kept(change.outlet(), was.outlet()),
                        kept(change.switchPort(), was.switchPort())),
                change.hostName() == null ? was.hostName() : form.hostName(change.hostName()),
                Optional.ofNullable(change.method()),
                change.partnerName() == null,
                form.partner(change.partnerName(), change.partnerAddress()),
                form.reason());
        form.refuse();
        return facts;
    }

    private Function<String, Reading> addressReader(long siteId, long segmentId, long id) {
        return t -> AddressReader.read(t, Purpose.ADDRESS, endpoints.context(siteId, segmentId, id));
    }

    private static String kept(String wanted, String was) {
        return Objects.requireNonNullElse(wanted, was);
    }
}
