package app.knottag.core.reading;

import com.fasterxml.jackson.annotation.JsonProperty;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;

/**
 * The answer of a reader.
 *
 * @param value canonical text, or null when the text cannot be read in exactly one way; a value may come with
 *     findings (read, but it cannot be used here), never with candidates
 * @param slip how the expected text became this one, or null when nothing was expected or both are equal
 */
public record Reading(
        @Nullable String value,
        List<Note> notes,
        List<Finding> findings,
        @Nullable Slip slip) {

    public Reading {
        notes = List.copyOf(notes);
        findings = List.copyOf(findings);
        if (value != null && findings.stream().anyMatch(f -> !f.candidates().isEmpty()))
            throw new IllegalArgumentException("a value was returned beside candidates for " + value);
    }

    /** Makes the answer of a reader that takes nothing. */
    public static Reading refused(Finding finding) {
        return new Reading(null, List.of(), List.of(finding), null);
    }

    /** Makes the answer of a reader that takes it, where nothing was expected. */
    public static Reading taken(String value, List<Note> notes) {
        return new Reading(value, notes, List.of(), null);
    }

    /** Returns whether the text was read and nothing forbids keeping it; warnings may remain. */
    @JsonProperty("usable")
    public boolean usable() {
        return value != null && findings.stream().noneMatch(f -> f.code().refuses());
    }

    /** Returns why a list cannot take it over, or empty; lists have IPv4 addresses so far. */
    public Optional<String> refusal() {
        if (usable())
            return ipv6()
                    ? Optional.of(value + " is an IPv6 address; lists have IPv4 addresses here.")
                    : Optional.empty();
        return findings.stream()
                .filter(f -> f.code().refuses() || value == null)
                .map(Finding::message)
                .findFirst()
                .or(() -> Optional.of("This cannot be read."));
    }

    /** Returns the value when nothing forbids keeping it in a list. */
    public Optional<String> kept() {
        return refusal().isPresent() ? Optional.empty() : Optional.of(value);
    }

    private boolean ipv6() {
        return notes.stream().anyMatch(n -> n.code() == Note.Code.IPV6);
    }
}
