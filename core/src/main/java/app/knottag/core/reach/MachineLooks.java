package app.knottag.core.reach;

import app.knottag.core.hardware.Mac;
import app.knottag.core.intake.Recognised;
import app.knottag.core.kind.Protocol;
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

    private static final int NO_SUCH_NAME = 3;

    /** Pages and relays say so of themselves (RFC 9110, RFC 5321). */
    private static final int FIRST_ERROR = 500;

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
        var serial = soon(() -> target.service().tellsSerial() ? Optional.of(serial()) : Optional.<String>empty());
        var resolver = soon(() -> target.resolvers().stream()
                .findFirst()
                .map(r -> probes.talk(Ladder.names(target, r)))
                .map(MachineLooks::resolved));
        var far = soon(this::far);
        var partner = soon(this::partner);
        var made = new ArrayList<Made>();
        made.add(new Made(Look.VANTAGE, inside ? "own" : probes.here().links().isEmpty() ? "no-network" : "elsewhere"));
        // With a wrong mask it answers for its MAC, and its answers to all else go astray.
        made.add(new Made(Look.PING, echoed(presence.join())));
        gateway.ifPresent(g -> made.add(new Made(Look.GATEWAY, g.join())));
        made.add(new Made(Look.PORT, words(port.join())));
        serial.join().ifPresent(s -> made.add(new Made(Look.SERIAL, s)));
        // Whoever answered the ping stands in the table only afterwards.
        if (inside) neighbours(presence.join(), made);
        resolver.join().ifPresent(r -> made.add(new Made(Look.RESOLVER, r)));
        far.join().ifPresent(f -> made.add(new Made(Look.FAR, f)));
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
            case SILENT -> "silent";
            case UNREACHABLE -> "unreachable";
        };
    }

    private static String echoed(Presence presence) {
        if (presence.kind() == Presence.Kind.UNREACHABLE) return "unreachable";
        if (!presence.heard()) return "silent";
        return presence.echo() == Recognised.Answer.LOSS ? "lossy" : "answers";
    }

    /** A resolver that answers and finds nothing has lost its own line, or serves others only. */
    private static String resolved(Heard heard) {
        if (heard.ending() != Heard.Ending.ANSWERED) return "silent";
        // A device asks over UDP, so a resolver that answers over TCP only is silent to it.
        if (heard.told(Heard.Names.class).filter(n -> !n.overUdp()).isPresent()) return "silent";
        return heard.code() == 0 || heard.code() == NO_SUCH_NAME ? "answers" : "empty";
    }

    /**
     * The first service that it calls and that does not answer well; empty when none is listed. One of which only the port fits
     * shows no more than that the line is good.
     */
    private Optional<String> far() {
        String worst = "";
        for (var listed : target.far()) {
            String one = far(probes.talk(Ladder.farCall(target, listed)));
            if (!listed.certain() && !one.equals("answers")) continue;
            if (worst.isEmpty() || worst.equals("answers")) worst = one;
        }
        return worst.isEmpty() ? Optional.empty() : Optional.of(worst);
    }

    private static String far(Heard heard) {
        boolean distrusted =
                heard.certificate().filter(c -> !c.fault().isEmpty()).isPresent();
        return switch (heard.ending()) {
            case ANSWERED -> distrusted ? "certificate" : heard.code() >= FIRST_ERROR ? "refused" : "answers";
            case REFUSED, UNREACHABLE -> "refused";
            case NAME_UNKNOWN -> "no-name";
            case STRANGE -> "certificate";
            case SILENT, FOREIGN -> "silent";
        };
    }

    private void neighbours(Presence presence, List<Made> made) {
        made.add(new Made(Look.NEIGHBOUR, who(presence.macs())));
        made.add(new Made(Look.LEASES, presence.macs().contains(target.mac()) ? "absent" : elsewhere()));
    }

    private String elsewhere() {
        return Ladder.elsewhere(target, probes)
                .map(a -> target.segment().poolOf(a).isPresent() ? "leased" : "elsewhere")
                .orElse("absent");
    }

    private String who(Set<Mac> macs) {
        if (macs.isEmpty()) return "nobody";
        if (macs.size() > 1) return "two";
        var mac = macs.iterator().next();
        return mac.equals(target.mac()) ? "right" : target.sibling(mac) ? "sibling" : "other";
    }

    private String serial() {
        if (probes.connect(target.address(), target.port()) != Connection.OPEN) return "none";
        var service = target.service();
        if (service.protocol() != Protocol.LINE
                && probes.talk(Ladder.call(target)).code() == ServiceJudge.FORBIDDEN) return "barred";
        var answer = Ladder.answer(target, probes);
        if (answer.isEmpty()) return "none";
        String[] around = service.answer().split("\\{serial}", -1);
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
