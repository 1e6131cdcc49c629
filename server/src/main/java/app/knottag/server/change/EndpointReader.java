package app.knottag.server.change;

import app.knottag.core.address.AddressContext;
import app.knottag.core.address.AddressReader;
import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Purpose;
import app.knottag.core.plan.NameRule;
import app.knottag.core.reading.Finding.Code;
import app.knottag.core.reading.Reading;
import app.knottag.server.change.EndpointForm.EndpointFacts.Ends;
import app.knottag.server.change.EndpointForm.EndpointFacts.Partner;
import app.knottag.server.record.Wires;
import app.knottag.server.web.FormReader;
import app.knottag.server.web.Problem;
import java.util.EnumSet;
import java.util.Locale;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;

/** Reads the texts of an endpoint's form. */
final class EndpointReader extends FormReader {

    // Not judged here: the database decides who wins, and the loser is told by whom it was taken.
    private static final Set<Code> CLASHES = EnumSet.of(Code.TAKEN, Code.KNOWN);
    private final String reason;

    EndpointReader(String reason) {
        this.reason = text("reason", reason, false);
    }

    String reason() {
        return reason;
    }

    Optional<Partner> partner(String name, String address) {
        String words = text("partnerName", name, false);
        var read = read("partnerAddress", address, t -> AddressReader.read(t, Purpose.RESOLVER, AddressContext.NONE));
        if (words.isEmpty()) return Optional.empty();
        if (read.isEmpty()) {
            if (clean()) add("partnerAddress", "missing", "Type the partner's address.");
            return Optional.empty();
        }
        return Optional.of(new Partner(words, Ipv4Address.parse(read.get())));
    }

    Ends ends(String place, String outlet, String port) {
        var ends =
                new Ends(text("place", place, false), text("outlet", outlet, false), text("switchPort", port, false));
        Wires.portProblem(ends.port()).ifPresent(p -> add("switchPort", "bad-port", p));
        return ends;
    }

    String hostName(String text) {
        String name = text == null ? "" : text.strip().toLowerCase(Locale.ROOT);
        NameRule.problem(name).ifPresent(p -> add("hostName", "bad-host-name", p));
        return name;
    }

    Optional<String> read(String field, String text, Function<String, Reading> reader) {
        if (text == null || text.isBlank()) return Optional.empty();
        var reading = reader.apply(text);
        boolean usable = reading.value() != null
                && reading.findings().stream().noneMatch(f -> f.code().refuses() && !settled(f.code()));
        if (usable
                && !(field.toLowerCase(Locale.ROOT).endsWith("address")
                        && reading.value().contains(":"))) return Optional.of(reading.value());
        var finding = reading.findings().stream()
                .filter(f -> reading.value() == null || f.code().refuses())
                .findFirst();
        String wayOut =
                finding.filter(f -> f.code() == Code.IN_POOL).isPresent() ? " To keep it all the same, say why." : "";
        add(
                field,
                finding.map(f -> Problem.word(f.code())).orElse("ipv6"),
                finding.map(f -> f.message()).orElse("Only IPv4 can be fixed here.") + wayOut);
        return Optional.empty();
    }

    /** Clashes are for the database; an address in the pool may be kept by whoever says why. */
    private boolean settled(Code code) {
        return CLASHES.contains(code) || (code == Code.IN_POOL && !reason.isEmpty());
    }

    /** Reads a changed text; null keeps what was, and a text equal to what was is not judged again. */
    Optional<String> changed(String field, String text, Object was, Function<String, Reading> reader) {
        var before = Optional.ofNullable(was).map(Object::toString).filter(w -> !w.isEmpty());
        return text == null || before.filter(text::equals).isPresent() ? before : read(field, text, reader);
    }
}
