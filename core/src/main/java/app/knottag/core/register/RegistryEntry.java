package app.knottag.core.register;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import java.util.List;
import java.util.Optional;

/** One line of a registry, with as much as it knows. */
public record RegistryEntry(
        String name,
        Optional<Mac> mac,
        Optional<Ipv4Address> address,
        String serial,
        String model,
        String owner,
        List<String> sharedWith) {

    public RegistryEntry {
        sharedWith = List.copyOf(sharedWith);
    }

    /** Makes an entry of a list that knows no more than these. */
    public static RegistryEntry of(String name, Optional<Mac> mac, Optional<Ipv4Address> address) {
        return new RegistryEntry(name, mac, address, "", "", "", List.of());
    }

    /** Returns one fact as text, empty when it is not known. */
    public String value(Registry.Fact fact) {
        return switch (fact) {
            case MAC -> mac.map(Mac::toString).orElse("");
            case SERIAL -> serial;
            case MODEL -> model;
            case NAME -> name;
            case ADDRESS -> address.map(Ipv4Address::toString).orElse("");
            case ISSUED -> "";
        };
    }
}
