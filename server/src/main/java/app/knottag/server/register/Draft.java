package app.knottag.server.register;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.core.register.RegistryEntry;
import app.knottag.server.record.RegistrationStore.RegistrationRow;
import java.time.Instant;

/** A registration that is being changed; what is not touched stays as it was. */
final class Draft {

    private final RegistrationRow was;
    private long endpointId;
    private String name;
    private Mac mac;
    private Ipv4Address address;
    private String serial;
    private String model;
    private String owner;
    private String sharedWith;
    private String issued;
    private String issuedUsed;
    private Instant askedAt;
    private Instant enteredAt;
    private Instant restartedAt;
    private Instant endsAt;
    private Instant endedAt;
    private String endedWhy;

    Draft(RegistrationRow was) {
        this.was = was;
        endpointId = was.endpointId();
        name = was.name();
        mac = was.mac();
        address = was.address();
        serial = was.serial();
        model = was.model();
        owner = was.owner();
        sharedWith = was.sharedWith();
        issued = was.issued();
        issuedUsed = was.issuedUsed();
        askedAt = was.askedAt();
        enteredAt = was.enteredAt();
        restartedAt = was.restartedAt();
        endsAt = was.endsAt();
        endedAt = was.endedAt();
        endedWhy = was.endedWhy();
    }

    /** It holds these facts now. */
    Draft holds(RegistryEntry entry) {
        name = entry.name();
        mac = entry.mac().orElse(null);
        address = entry.address().orElse(null);
        serial = entry.serial();
        model = entry.model();
        return this;
    }

    /** A list says that it holds these; what the list does not tell stays. */
    void foundThere(RegistryEntry entry) {
        if (!entry.name().isEmpty()) name = entry.name();
        entry.mac().ifPresent(m -> mac = m);
        entry.address().ifPresent(a -> address = a);
        if (!entry.serial().isEmpty()) serial = entry.serial();
        if (!entry.model().isEmpty()) model = entry.model();
    }

    /** It is called so and belongs to these people now. */
    Draft people(RegistryEntry entry) {
        name = entry.name();
        owner = entry.owner();
        sharedWith = String.join("\n", entry.sharedWith());
        return this;
    }

    /** Handed in; nobody has seen it there since. */
    Draft asked(Instant at) {
        askedAt = at;
        enteredAt = null;
        endsAt = null;
        return this;
    }

    /** Seen standing there; the device has to restart unless it never left. */
    Draft entered(Instant at, boolean neverLeft) {
        enteredAt = at;
        restartedAt = neverLeft ? at : null;
        return this;
    }

    Draft ends(Instant at) {
        endsAt = at;
        return this;
    }

    void restarted(Instant at) {
        restartedAt = at;
    }

    void issued(String address, String used) {
        issued = address;
        issuedUsed = used;
    }

    Draft ended(Instant at, String why) {
        endedAt = at;
        endedWhy = why;
        return this;
    }

    /** It was thought to stand there and does not. */
    void missing() {
        askedAt = null;
        enteredAt = null;
        endsAt = null;
    }

    /** It goes along with an adapter to another endpoint. */
    Draft of(long endpoint) {
        endpointId = endpoint;
        return this;
    }

    RegistrationRow row() {
        return new RegistrationRow(
                was.id(),
                was.registryId(),
                was.siteId(),
                endpointId,
                name,
                mac,
                address,
                serial,
                model,
                owner,
                sharedWith,
                issued,
                issuedUsed,
                askedAt,
                enteredAt,
                restartedAt,
                endsAt,
                endedAt,
                endedWhy,
                was.version());
    }
}
