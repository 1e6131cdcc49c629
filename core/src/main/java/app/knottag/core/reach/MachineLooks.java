package app.knottag.core.reach;

import app.knottag.core.hardware.Mac;
import app.knottag.core.reach.Diagnosis.Made;
import app.knottag.core.reach.Probes.Connection;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.CompletableFuture;
import java.util.concurrent.Executor;
import java.util.function.Supplier;

/** The looks that a machine makes by itself, all at once, since none rests on another. */
public final class MachineLooks {

    private final Target target;
    private final Probes probes;
    private final Vantage vantage;
    private final Executor executor;

    /** Prepares the looks at one endpoint. */
    public MachineLooks(Target target, Probes probes, Vantage vantage, Executor executor) {
        this.target = target;
        this.probes = probes;
        this.vantage = vantage;
        this.executor = executor;
    }

    /** Makes every look that can be made from here. */
    public List<Made> make() {
        boolean inside = vantage.within(target.segment().prefix());
        var presence = soon(() -> Presence.of(target.address(), Optional.of(target.port()), probes));
        var port = soon(() -> probes.connect(target.address(), target.port()));
        var gateway = target.segment()
                .gateway()
                .map(g -> soon(() -> Presence.of(g, Optional.empty(), probes).there() ? "answers" : "silent"));
        var serial = soon(() -> target.service().tellsSerial()
                ? Optional.of(serial(
                        probes.connect(target.address(), target.port()) == Connection.OPEN
                                ? Ladder.answer(target, probes)
                                : Optional.empty()))
                : Optional.<String>empty());
        var resolver = soon(() -> target.resolvers().stream()
                .findFirst()
                .map(r -> probes.talk(Ladder.names(target, r)))
                .map(h -> h.ending() == Heard.Ending.ANSWERED ? "answers" : "silent"));
        var partner = soon(this::partner);
        var made = new ArrayList<Made>();
        made.add(new Made(Look.VANTAGE, inside ? "own" : "elsewhere"));
        // With a wrong mask it answers for its MAC, and its answers to all else go astray.
        made.add(new Made(Look.PING, presence.join().heard() ? "answers" : "silent"));
        gateway.ifPresent(g -> made.add(new Made(Look.GATEWAY, g.join())));
        made.add(new Made(Look.PORT, words(port.join())));
        serial.join().ifPresent(s -> made.add(new Made(Look.SERIAL, s)));
        // Whoever answered the ping stands in the table only afterwards.
        if (inside) neighbours(presence.join(), made);
        resolver.join().ifPresent(r -> made.add(new Made(Look.RESOLVER, r)));
        partner.join().ifPresent(p -> made.add(new Made(Look.PARTNER_TEST, p)));
        return List.copyOf(made);
    }

    private <T> CompletableFuture<T> soon(Supplier<T> look) {
        return CompletableFuture.supplyAsync(look, executor);
    }

    private static String words(Connection connection) {
        return switch (connection) {
            case OPEN -> "open";
            case REFUSED -> "refused";
            case SILENT, UNREACHABLE -> "silent";
        };
    }

    private void neighbours(Presence presence, List<Made> made) {
        made.add(new Made(Look.NEIGHBOUR, who(presence.macs())));
        boolean leased = Ladder.elsewhere(target, probes.neighbours())
                .flatMap(target.segment()::poolOf)
                .isPresent();
        made.add(new Made(Look.LEASES, leased ? "leased" : "absent"));
    }

    private String who(Set<Mac> macs) {
        if (macs.isEmpty()) return "nobody";
        if (macs.size() > 1) return "two";
        var mac = macs.iterator().next();
        return mac.equals(target.mac()) ? "right" : target.sibling(mac) ? "sibling" : "other";
    }

    private String serial(Optional<String> answer) {
        if (answer.isEmpty()) return "none";
        String[] around = target.service().answer().split("\\{serial}", -1);
        if (!answer.get().startsWith(around[0]) || !answer.get().endsWith(around[1])) return "strange";
        return answer.get().equals(around[0] + target.serial() + around[1]) ? "right" : "other";
    }

    private Optional<String> partner() {
        if (target.partner().isEmpty()
                || target.partner().get().testPort().isEmpty()
                || target.service().partnerAsk().isEmpty()) return Optional.empty();
        var partner = target.partner().get();
        String line = target.service()
                .partnerAsk()
                .replace("{address}", target.address().toString())
                .replace("{port}", "" + target.port());
        String said =
                probes.ask(partner.address(), partner.testPort().get(), line).orElse("");
        if (said.equals("REACHED " + target.serial())) return Optional.of("reaches");
        return Optional.of(said.startsWith("REACHED ") ? "other" : said.startsWith("REFUSED") ? "refused" : "none");
    }
}
