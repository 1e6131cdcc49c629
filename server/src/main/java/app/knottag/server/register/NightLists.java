package app.knottag.server.register;

import app.knottag.core.intake.PlainText;
import app.knottag.core.register.RegistryCompare.Compared;
import app.knottag.core.register.RegistryCompare.Outcome;
import app.knottag.core.register.RegistryFile;
import app.knottag.core.register.RegistryForm;
import app.knottag.core.register.RegistryReader;
import app.knottag.core.time.SiteClock;
import app.knottag.core.watch.Seen;
import app.knottag.server.record.NightLook;
import app.knottag.server.record.RegistrationStore;
import app.knottag.server.record.RegistrationStore.RegistryRow;
import app.knottag.server.record.Sites;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.LinkOption;
import java.nio.file.Path;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;

/**
 * What registries really hold, by the list of each that somebody drops into the folder of the site: the folder is named by the
 * site's code, the file as the list that is handed over. Nothing is taken over from it.
 */
@Component
@Order(4)
class NightLists implements NightLook {

    /** A list that is older says little of what stands there now. */
    private static final Duration OLD = Duration.ofDays(31);

    private final RegistrationStore store;
    private final RegistryLists lists;
    private final Sites sites;
    private final String folder;

    NightLists(
            RegistrationStore store, RegistryLists lists, Sites sites, @Value("${knot.lists.folder:}") String folder) {
        this.store = store;
        this.lists = lists;
        this.sites = sites;
        this.folder = folder;
    }

    private record Dropped(Path file, List<RegistryForm> forms) {}

    @Override
    public List<Errand> errands(long siteId) {
        if (folder.isEmpty()) return List.of();
        var errands = new ArrayList<Errand>();
        for (var registry : store.registries(siteId))
            dropped(siteId, registry)
                    .ifPresent(d -> errands.add(new Errand(
                            "list " + registry.id(),
                            "List of “" + registry.name() + "”",
                            0,
                            false,
                            gently -> look(siteId, registry, d))));
        return errands;
    }

    @Override
    public List<String> hints(long siteId) {
        if (folder.isEmpty()) return List.of();
        String code = sites.site(siteId).code();
        var missing = store.registries(siteId).stream()
                .filter(r -> dropped(siteId, r).isEmpty())
                .map(r -> RegistryFile.name(code, r.name(), RegistryForm.CSV, false))
                .toList();
        return missing.isEmpty()
                ? List.of()
                : List.of("What a registry really holds is compared when its list lies in " + Path.of(folder, code)
                        + ": " + String.join(", ", missing) + ".");
    }

    /** The file of a registry, whatever its form; links out of the folder are not followed. */
    private Optional<Dropped> dropped(long siteId, RegistryRow registry) {
        String code = sites.site(siteId).code();
        for (var form : RegistryForm.values()) {
            var file = Path.of(folder, code, RegistryFile.name(code, registry.name(), form, false));
            if (Files.isRegularFile(file, LinkOption.NOFOLLOW_LINKS))
                return Optional.of(new Dropped(
                        file,
                        Arrays.stream(RegistryForm.values())
                                .filter(f -> f.ending().equals(form.ending()))
                                .toList()));
        }
        return Optional.empty();
    }

    private Told look(long siteId, RegistryRow registry, Dropped dropped) {
        try {
            if (Files.size(dropped.file()) > PlainText.MOST_BYTES)
                return Told.not("Its file is too large: split the list and paste the parts.");
            var of = Files.getLastModifiedTime(dropped.file(), LinkOption.NOFOLLOW_LINKS)
                    .toInstant();
            return PlainText.decode(Files.readAllBytes(dropped.file()))
                    .match(text -> compared(siteId, registry, dropped.forms(), text, of), Told::not);
        } catch (IOException e) {
            return Told.not("Its file cannot be read. May Knot Tag read it?");
        }
    }

    private Told compared(long siteId, RegistryRow registry, List<RegistryForm> forms, String text, Instant of) {
        for (var form : forms) {
            var held = lists.holdings(registry.id(), form, text, true, BY);
            if (held.problems().isEmpty()) return Told.saw(seen(registry, held.lines(), of, sites.clock(siteId)));
        }
        var first = RegistryReader.read(forms.get(0), text).problems().get(0);
        return Told.not("Line " + first.line() + " of its file: " + first.message());
    }

    private static List<Seen> seen(RegistryRow registry, List<Compared> lines, Instant of, SiteClock clock) {
        var seen = new ArrayList<Seen>();
        String day = clock.day(of);
        if (of.isBefore(clock.now().minus(OLD)))
            seen.add(new Seen(
                    "age",
                    "OLD",
                    0,
                    "The list of “" + registry.name() + "” is of " + day,
                    "It says little of what stands there now. Drop a new one into the folder."));
        for (var line : lines) {
            var unit = Optional.ofNullable(line.unit());
            if (line.outcome() != Outcome.AS_WANTED)
                seen.add(new Seen(
                        unit.map(u -> "unit " + u).orElse(line.name()),
                        line.outcome().name(),
                        unit.orElse(0L),
                        line.name() + " in “" + registry.name() + "”",
                        line.said() + " (By the list of " + day + ".)"));
        }
        return seen;
    }
}
