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
public final class MachineQuestions {

    private static final int NO_SUCH_NAME = 3;

    /** Pages and relays say so of themselves (RFC 9110, RFC 5321). */
    private static final int FIRST_ERROR = 500;

    private final Target target;
    private final Probes probes;
    private final Vantage vantage;
    private final Executor executor;

    /** Prepares the looks at one endpoint. */
    public MachineQuestions(Target target, Probes probes, Vantage vantage, Executor executor) {
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
                .map(g -> soon(
                        () -> Presence.of(g, Optional.empty(), probes).there() ? Outcome.ANSWERS : Outcome.SILENT));
        var serial = soon(() -> target.service().tellsSerial() ? Optional.of(serial()) : Optional.<Outcome>empty());
        var resolver = soon(() -> target.resolvers().stream()
                .findFirst()
                .map(r -> probes.talk(CheckRunner.names(target, r)))
                .map(MachineQuestions::resolved));
        var far = soon(this::far);
        var partner = soon(this::partner);
        var made = new ArrayList<Made>();
        made.add(new Made(
                Question.VANTAGE,
                inside ? Outcome.OWN : probes.here().links().isEmpty() ? Outcome.NO_NETWORK : Outcome.ELSEWHERE));
        // With a wrong mask it answers for its MAC, and its answers to all else go astray.
        made.add(new Made(Question.PING, echoed(presence.join())));
        gateway.ifPresent(g -> made.add(new Made(Question.GATEWAY, g.join())));
        made.add(new Made(Question.PORT, words(port.join())));
        serial.join().ifPresent(s -> made.add(new Made(Question.SERIAL, s)));
        // Whoever answered the ping stands in the table only afterwards.
        if (inside) neighbours(presence.join(), made);
        resolver.join().ifPresent(r -> made.add(new Made(Question.RESOLVER, r)));
        far.join().ifPresent(f -> made.add(new Made(Question.FAR, f)));
        partner.join().ifPresent(p -> made.add(new Made(Question.PARTNER_TEST, p)));
        return List.copyOf(made);
    }

    private <T> CompletableFuture<T> soon(Supplier<T> question) {
        return CompletableFuture.supplyAsync(question, executor);
    }

    private static Outcome words(Connection connection) {
        return switch (connection) {
            case OPEN -> Outcome.OPEN;
            case REFUSED -> Outcome.REFUSED;
            case SILENT -> Outcome.SILENT;
            case UNREACHABLE -> Outcome.UNREACHABLE;
        };
    }

    private static Outcome echoed(Presence presence) {
        if (presence.kind() == Presence.Kind.UNREACHABLE) return Outcome.UNREACHABLE;
        if (!presence.heard()) return Outcome.SILENT;
        return presence.echo() == Recognised.Answer.LOSS ? Outcome.LOSSY : Outcome.ANSWERS;
    }

    /** A resolver that answers and finds nothing has lost its own line, or serves others only. */
    private static Outcome resolved(ServiceReply heard) {
        if (heard.ending() != ServiceReply.Ending.ANSWERED) return Outcome.SILENT;
        // A device asks over UDP, so a resolver that answers over TCP only is silent to it.
        if (heard.told(ServiceReply.Names.class).filter(n -> !n.overUdp()).isPresent()) return Outcome.SILENT;
        return heard.code() == 0 || heard.code() == NO_SUCH_NAME ? Outcome.ANSWERS : Outcome.EMPTY;
    }

    /**
     * The first service that it calls and that does not answer well; empty when none is listed. One of which only the port fits
     * shows no more than that the line is good.
     */
    private Optional<Outcome> far() {
        var worst = Optional.<Outcome>empty();
        for (var listed : target.far()) {
            Outcome one = far(probes.talk(CheckRunner.farCall(target, listed)));
            if (!listed.certain() && one != Outcome.ANSWERS) continue;
            if (worst.filter(w -> w != Outcome.ANSWERS).isEmpty()) worst = Optional.of(one);
        }
        return worst;
    }

    private static Outcome far(ServiceReply heard) {
        boolean distrusted =
                heard.certificate().filter(c -> !c.problem().isEmpty()).isPresent();
        return switch (heard.ending()) {
            case ANSWERED ->
                distrusted ? Outcome.CERTIFICATE : heard.code() >= FIRST_ERROR ? Outcome.REFUSED : Outcome.ANSWERS;
            case REFUSED, UNREACHABLE -> Outcome.REFUSED;
            case NAME_UNKNOWN -> Outcome.NO_NAME;
            case STRANGE -> Outcome.CERTIFICATE;
            case SILENT, FOREIGN -> Outcome.SILENT;
        };
    }

    private void neighbours(Presence presence, List<Made> made) {
        made.add(new Made(Question.NEIGHBOUR, who(presence.macs())));
        made.add(new Made(Question.LEASES, presence.macs().contains(target.mac()) ? Outcome.ABSENT : elsewhere()));
    }

    private Outcome elsewhere() {
        return CheckRunner.elsewhere(target, probes)
                .map(a -> target.segment().poolOf(a).isPresent() ? Outcome.LEASED : Outcome.ELSEWHERE)
                .orElse(Outcome.ABSENT);
    }

    private Outcome who(Set<Mac> macs) {
        if (macs.isEmpty()) return Outcome.NOBODY;
        if (macs.size() > 1) return Outcome.TWO;
        var mac = macs.iterator().next();
        return mac.equals(target.mac()) ? Outcome.RIGHT : target.sibling(mac) ? Outcome.SIBLING : Outcome.OTHER;
    }

    private Outcome serial() {
        if (probes.connect(target.address(), target.port()) != Connection.OPEN) return Outcome.NONE;
        var service = target.service();
        if (service.protocol() != Protocol.LINE
                && probes.talk(CheckRunner.call(target)).code() == ServiceJudge.FORBIDDEN) return Outcome.BARRED;
        var answer = CheckRunner.answer(target, probes);
        if (answer.isEmpty()) return Outcome.NONE;
        String[] around = service.answer().split("\\{serial}", -1);
        if (!answer.get().startsWith(around[0]) || !answer.get().endsWith(around[1])) return Outcome.STRANGE;
        return answer.get().equals(around[0] + target.serial() + around[1]) ? Outcome.RIGHT : Outcome.OTHER;
    }

    private Optional<Outcome> partner() {
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
        if (said.equals("REACHED " + target.serial())) return Optional.of(Outcome.REACHES);
        return Optional.of(
                said.startsWith("REACHED ")
                        ? Outcome.OTHER
                        : said.startsWith("REFUSED") ? Outcome.REFUSED : Outcome.NONE);
    }
}
