package app.knottag.server.handover;

import app.knottag.core.handover.TagCode;
import app.knottag.core.handover.TagCode.Meant;
import app.knottag.server.handover.HandoverStore.TaggedEndpoint;
import app.knottag.server.web.Problem;
import app.knottag.server.web.Scope;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;

/** Finds the endpoint that a tag belongs to; of a code that does not hold, those that may have been meant. */
@Service
class TagLookup {

    /** One that may have been meant, and what is then different in what was typed. */
    record Near(TaggedEndpoint row, String how) {}

    private final HandoverStore store;

    TagLookup(HandoverStore store) {
        this.store = store;
    }

    TaggedEndpoint find(String text) {
        var read = TagCode.read(text);
        if (read.bare().isEmpty()) throw near(read);
        return coded(List.of(read.bare().get())).stream()
                .findFirst()
                .orElseThrow(
                        () -> Problem.notFound(
                                "This code is whole, but nothing living has it: the tag may be that of a device that is retired."));
    }

    private List<TaggedEndpoint> coded(Collection<String> bare) {
        return Scope.now().seen(store.coded(bare), TaggedEndpoint::siteId);
    }

    /** Of several codes in a picture, such as those of the device's own label beside it, the one that is a tag's. */
    String best(List<String> texts) {
        return texts.stream()
                .filter(t -> TagCode.read(t).bare().isPresent())
                .findFirst()
                .orElse(texts.get(0));
    }

    private Problem near(TagCode.Read read) {
        if (read.meant().isEmpty()) return Problem.of(HttpStatus.NOT_FOUND, "no-code", read.said());
        Map<String, Meant> meant =
                read.meant().stream().collect(Collectors.toMap(Meant::bare, Function.identity(), (a, b) -> a));
        var near = coded(meant.keySet()).stream()
                .map(row -> new Near(
                        row,
                        Optional.ofNullable(meant.get(TagCode.bare(row.tagCode())))
                                .map(m -> "at place " + (m.position() + 1) + ", " + m.how())
                                .orElse("")))
                .toList();
        String said = near.isEmpty()
                ? " Nothing on record is near it: read the tag once more."
                : near.stream()
                        .map(n -> " " + n.row().tagCode() + " of " + n.row().name() + "? Then " + n.how() + ".")
                        .collect(Collectors.joining("", " Did you mean", ""));
        return Problem.conflict("code", "code-does-not-hold", read.said() + said, Map.of("meant", near));
    }
}
