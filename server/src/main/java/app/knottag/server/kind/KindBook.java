package app.knottag.server.kind;

import app.knottag.core.kind.Kind;
import app.knottag.core.kind.KindReader;
import app.knottag.core.kind.KindReader.KindFinding;
import app.knottag.core.kind.Kinds;
import app.knottag.server.log.Log;
import app.knottag.server.web.Problem;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Keeps people's own kinds and every version of all of them. */
@Service
class KindBook {

    private final KindFileStore store;
    private final Kinds kinds;
    private final Log log;

    KindBook(KindFileStore store, Kinds kinds, Log log) {
        this.store = store;
        this.kinds = kinds;
        this.log = log;
    }

    /** Puts what the database holds beside what is shipped, at the start. */
    record Shelf(KindFileStore store, Kinds kinds) {

        void fill() {
            for (String id : Kinds.SHIPPED) {
                var kind = kinds.get(id);
                if (store.add(id, kind.version(), Kinds.shippedText(id), true, "Knot Tag") == 1)
                    store.follow(id, kind.version());
            }
            for (var row : store.all()) {
                var reading = KindReader.read(row.yaml());
                // A file that an earlier release took must not keep this one from starting.
                if (reading.kind() == null)
                    LoggerFactory.getLogger(KindBook.class)
                            .warn("kind {} version {} cannot be read: {}", row.id(), row.version(), reading.findings());
                else kinds.add(reading.kind());
            }
        }
    }

    /** What stands against keeping a file, by line. */
    List<KindFinding> check(String yaml) {
        var reading = KindReader.read(yaml);
        if (reading.kind() == null) return reading.findings();
        var findings = new ArrayList<KindFinding>();
        var kind = reading.kind();
        if (Kinds.SHIPPED.contains(kind.id()))
            findings.add(new KindFinding(
                    line(yaml, "id:"),
                    1,
                    "“" + kind.id() + "” comes with Knot Tag. Give yours an id of its own, such as " + kind.id()
                            + "-own."));
        else
            kinds.find(kind.id())
                    .filter(k -> kind.version() <= k.version())
                    .ifPresent(k -> findings.add(new KindFinding(
                            line(yaml, "version:"),
                            1,
                            "Version " + k.version() + " is there already: count up to " + (k.version() + 1) + ".")));
        return findings;
    }

    private static int line(String yaml, String key) {
        var lines = yaml.lines().toList();
        for (int i = 0; i < lines.size(); i++) if (lines.get(i).startsWith(key)) return i + 1;
        return 0;
    }

    @Transactional
    Kind keep(String yaml, String by) {
        var findings = check(yaml);
        if (!findings.isEmpty())
            throw Problem.conflict(
                    "yaml",
                    "faulty-kind",
                    (findings.get(0).line() > 0 ? "Line " + findings.get(0).line() + ": " : "")
                            + findings.get(0).message(),
                    Map.of("findings", findings));
        var kind = KindReader.read(yaml).kind();
        if (store.add(kind.id(), kind.version(), yaml, false, by) == 0)
            throw Problem.conflict(
                    "yaml",
                    "version-taken",
                    "Somebody kept version " + kind.version() + " just now. Look at theirs first.",
                    Map.of());
        store.follow(kind.id(), kind.version());
        kinds.add(kind);
        log.write(Log.entry(by, "kind kept: " + kind.id() + " version " + kind.version())
                .after(kind.name()));
        return kind;
    }

    /** Returns the text of a kind, the latest when no version is named. */
    String text(String id, Integer version) {
        return store.versions(id).stream()
                .filter(r -> version == null || r.version() == version)
                .findFirst()
                .orElseThrow(() -> Problem.of(HttpStatus.NOT_FOUND, "not-found", "There is no such kind."))
                .yaml();
    }

    List<Integer> versions(String id) {
        return store.versions(id).stream().map(KindFileStore.FileRow::version).toList();
    }
}
