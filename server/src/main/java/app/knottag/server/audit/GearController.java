package app.knottag.server.audit;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.gear.GearAccess;
import app.knottag.core.gear.GearReading;
import app.knottag.core.gear.PortLine;
import app.knottag.core.hardware.Gear;
import app.knottag.server.audit.GearReadings.Told;
import app.knottag.server.web.FormReader;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.security.Principal;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** What routers and switches tell of themselves. */
@RestController
class GearController {

    /** @param endpointId 0 for a MAC that is on no record */
    record HungView(long endpointId, String name, String mac) {}

    /** @param wrong whether somebody must do something about it */
    record PortRemarkView(boolean wrong, String says, String act) {}

    /**
     * One port.
     *
     * @param told whether the gear told of it; else the rest says nothing
     * @param megabits 0 when it has no link or does not say
     * @param power how it feeds power; empty when it does not say
     * @param other who is at the other end, by its own word
     * @param through whether it leads to other gear
     * @param right whether everybody on record there was heard there
     */
    record PortLineView(
            String label,
            boolean told,
            GearReading.Link link,
            long megabits,
            String power,
            String other,
            boolean through,
            boolean right,
            List<HungView> hung,
            List<PortRemarkView> remarks) {}

    /** @param ownName as it calls itself */
    record GearReadView(
            Instant at, String by, String ownName, int wrong, List<String> remarks, List<PortLineView> ports) {}

    /**
     * @param address where it was read last, or where it is taken to be; empty when nobody knows
     * @param reads what it told when it was read last; none when it never was
     */
    record GearToldView(long id, String name, Gear.Type type, String address, List<GearReadView> reads) {}

    record GearReadRequest(
            @NotNull String address,
            GearAccess.@NotNull Version version,
            @NotNull String name,
            GearAccess.@NotNull Auth auth,
            @NotNull String authKey,
            GearAccess.@NotNull Privacy privacy,
            @NotNull String privacyKey) {

        @Override
        public String toString() {
            return "GearReadRequest[" + address + "]";
        }
    }

    private final GearReadings readings;

    GearController(GearReadings readings) {
        this.readings = readings;
    }

    @GetMapping("/api/sites/{siteId}/gear-readings")
    List<GearToldView> all(@PathVariable long siteId) {
        return readings.all(siteId).stream().map(GearController::view).toList();
    }

    @PostMapping("/api/gear/{gearId}/reading")
    void read(@PathVariable long gearId, @Valid @RequestBody GearReadRequest b, Principal by) {
        readings.read(
                gearId,
                Ipv4Address.parse(FormReader.words("address", b.address(), true)),
                new GearAccess(b.version(), b.name(), b.auth(), b.authKey(), b.privacy(), b.privacyKey()),
                by.getName());
    }

    private static GearToldView view(Told told) {
        return new GearToldView(
                told.gear().id(),
                told.gear().name(),
                told.gear().type(),
                told.address().map(Ipv4Address::toString).orElse(""),
                told.read().map(r -> view(r, told)).stream().toList());
    }

    private static GearReadView view(GearReadings.Read read, Told told) {
        var remarks = new ArrayList<>(read.reading().remarks());
        if (!told.why().isEmpty()) remarks.add(told.why());
        return new GearReadView(
                read.at(),
                read.by(),
                read.reading().name(),
                (int) told.lines().stream().filter(PortLine::wrong).count(),
                remarks,
                told.lines().stream().map(GearController::view).toList());
    }

    private static PortLineView view(PortLine line) {
        var port = line.read();
        return new PortLineView(
                line.label(),
                port.isPresent(),
                port.map(GearReading.Port::link).orElse(GearReading.Link.UNKNOWN),
                port.map(GearReading.Port::megabits).orElse(0L),
                port.flatMap(GearReading.Port::power).map(Enum::name).orElse(""),
                port.map(GearReading.Port::other).orElse(""),
                line.through(),
                line.right(),
                line.who().stream()
                        .map(w -> new HungView(w.endpoint(), w.name(), w.mac().toString()))
                        .toList(),
                line.remarks().stream()
                        .map(r -> new PortRemarkView(r.wrong(), r.says(), r.act()))
                        .toList());
    }
}
