package app.knottag.core.register;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Interface;
import app.knottag.core.hardware.Interface.Medium;
import app.knottag.core.hardware.Mac;
import app.knottag.core.register.Registry.Rules;
import app.knottag.core.register.Registry.Type;
import java.time.Instant;
import java.util.Arrays;
import java.util.Optional;
import java.util.Set;

/** Made-up registries, units and entries, as short as can be. */
final class RegisterSamples {

    static final Instant NOW = Instant.parse("2026-11-25T12:00:00Z");

    private RegisterSamples() {}

    static Rules rules(Type type, String waitsFor, int leadDays) {
        var u = Rules.usual(type);
        return new Rules(
                u.naming(),
                u.longestName(),
                u.ownerNeeded(),
                u.sharing(),
                u.most(),
                u.lifetime(),
                u.restart(),
                u.facts(),
                u.models(),
                waitsFor,
                leadDays,
                u.form());
    }

    static Registry registry(long id, String name, Type type, Rules rules) {
        return new Registry(id, name, type, Optional.empty(), Optional.empty(), Set.of(), rules);
    }

    static Registry registry(long id, String name, Type type) {
        return registry(id, name, type, Rules.usual(type));
    }

    static RegistryEntry entry(String name, String mac) {
        return RegistryEntry.of(name, Optional.of(Mac.parse(mac)), Optional.empty());
    }

    static RegistryEntry entry(String name, String mac, String address) {
        return RegistryEntry.of(name, Optional.of(Mac.parse(mac)), Optional.of(Ipv4Address.parse(address)));
    }

    /** Interfaces as "WIRED 10*, WIRELESS 11": medium, last pair of the MAC, a star on the one that counts. */
    static Unit unit(long id, String name, String interfaces) {
        var list = Arrays.stream(interfaces.split(", "))
                .filter(t -> !t.isBlank())
                .map(t -> t.replace("*", "").split(" "))
                .map(p -> new Interface(
                        Medium.valueOf(p[0]),
                        Mac.parse(p[1].length() > 2 ? p[1] : "00:00:5E:00:53:" + p[1]),
                        "",
                        interfaces.contains(p[1] + "*")))
                .toList();
        return new Unit(
                id,
                name,
                name.toLowerCase().replace(' ', '-'),
                "copier",
                false,
                1,
                list,
                Optional.of(Ipv4Address.parse("10.7.0." + (50 + id))),
                "KX000000" + id,
                "",
                true,
                false,
                false);
    }

    static Unit with(Unit u, boolean personal, boolean away, boolean retired, String model) {
        return new Unit(
                u.id(),
                u.name(),
                u.hostName(),
                u.kind(),
                personal,
                u.segmentId(),
                u.interfaces(),
                u.address(),
                u.serial(),
                model,
                u.reserved(),
                away,
                retired);
    }

    static Registration entered(long id, long registry, long unit, RegistryEntry held) {
        var since = Optional.of(NOW.minusSeconds(86_400));
        return new Registration(id, registry, unit, held, since, since, since, Optional.empty(), Optional.empty());
    }
}
