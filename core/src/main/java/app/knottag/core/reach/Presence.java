package app.knottag.core.reach;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.core.intake.Recognised;
import app.knottag.core.reach.Probes.Connection;
import java.util.Optional;
import java.util.Set;

/**
 * How somebody at an address showed that it is there, in this run: any answer counts, an old entry of the neighbour table
 * never does. Firewalls drop echoes of devices that work.
 *
 * @param macs who answered the question for its MAC; none when that cannot be asked from here
 * @param toldBy who said that it cannot be reached, when somebody did
 */
record Presence(Kind kind, Set<Mac> macs, Recognised.Answer echo, Whois.How asked, Optional<Ipv4Address> toldBy) {

    /** What the best answer was. */
    public enum Kind {
        /** It answered an echo. */
        ECHO,
        /** It opened, refused or barred its port. */
        PORT,
        /** It answered only to the question for its MAC. */
        MAC,
        /** Nothing came back. */
        NONE,
        /** Somebody on the way, or this machine, says that there is no way. */
        UNREACHABLE
    }

    /** Whether anything at all came back from it. */
    public boolean there() {
        return kind == Kind.ECHO || kind == Kind.PORT || kind == Kind.MAC;
    }

    /** Whether more than the question for its MAC was answered. */
    public boolean heard() {
        return kind == Kind.ECHO || kind == Kind.PORT;
    }

    /** Looks for any answer of an address: to an echo, to the question for its MAC, at a port if there is one to try. */
    static Presence of(Ipv4Address address, Optional<Integer> port, Probes probes) {
        var echo = probes.echo(address);
        var who = probes.whois(address);
        var told = echo.toldBy();
        if (echoed(echo)) return new Presence(Kind.ECHO, who.macs(), echo.answer(), who.how(), told);
        // What the address itself says by a refusal, it says while it is there.
        if (told.filter(address::equals).isPresent())
            return new Presence(Kind.PORT, who.macs(), echo.answer(), who.how(), told);
        var tried = port.map(p -> probes.connect(address, p)).orElse(Connection.SILENT);
        boolean direct = who.how() != Whois.How.NOT_FROM_HERE;
        if (tried == Connection.OPEN || tried == Connection.REFUSED)
            return new Presence(Kind.PORT, who.macs(), echo.answer(), who.how(), told);
        if (!who.macs().isEmpty())
            return new Presence(
                    tried == Connection.UNREACHABLE ? Kind.PORT : Kind.MAC, who.macs(), echo.answer(), who.how(), told);
        boolean noWay = tried == Connection.UNREACHABLE
                || echo.answer() == Recognised.Answer.UNREACHABLE
                || echo.answer() == Recognised.Answer.OWN_NETWORK;
        // On its own link “no way” only says that nobody answered for the address.
        return new Presence(noWay && !direct ? Kind.UNREACHABLE : Kind.NONE, Set.of(), echo.answer(), who.how(), told);
    }

    private static boolean echoed(Recognised.Echo echo) {
        return switch (echo.answer()) {
            case ANSWERED, LOSS, TWICE -> true;
            default -> false;
        };
    }
}
