package app.knottag.core.visit;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kinds;
import app.knottag.core.runbook.Board;
import app.knottag.core.runbook.Runbook;
import app.knottag.core.runbook.StepRecord;
import app.knottag.core.status.Status;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What goes along, reckoned by hand from what stands on the boxes. */
class PackingTest {

    private static Board.Job job(long id, String name, String kind) {
        return new Board.Job(id, name, "", Runbook.of(Kinds.shipped().get(kind), Map.of()));
    }

    /** One of which everything is done up to a step. */
    private static Board.Job upTo(long id, String name, String kind, String step) {
        Map<String, StepRecord> records = new HashMap<>();
        Kind k = Kinds.shipped().get(kind);
        for (var s : k.steps()) {
            if (s.key().equals(step)) break;
            records.put(
                    s.key(),
                    new StepRecord(
                            s.key(),
                            Status.PASSED,
                            Optional.empty(),
                            Optional.of(Instant.EPOCH),
                            Map.of(),
                            List.of(),
                            "",
                            "Imke",
                            0,
                            0));
        }
        return new Board.Job(id, name, "", Runbook.of(k, records));
    }

    private static final List<Board.Job> SHOP = List.of(
            job(1, "Till 1", "counter-payment-terminal"),
            job(2, "Till 2", "counter-payment-terminal"),
            job(3, "Till 3", "counter-payment-terminal"),
            job(4, "Clock", "time-clock"),
            job(5, "Store", "storage-box"));

    @DisplayName("What is used up is counted for each device, however many hands there are, and a tenth more")
    @ParameterizedTest(name = "{0} kiosks and {1} hubs: {2} seals, {3} leads")
    @CsvSource({"1, 0, 3, 0", "5, 1, 11, 2", "6, 11, 14, 13"})
    void usedUp(int kiosks, int hubs, int seals, int leads) {
        var jobs = new ArrayList<Board.Job>();
        for (int i = 0; i < kiosks + hubs; i++)
            jobs.add(job(i, "No " + i, i < kiosks ? "kiosk-set" : "meeting-room-hub"));
        var counts = new HashMap<String, Integer>();
        Packing.of(jobs, 1).supplies().forEach(s -> counts.put(s.name(), s.count()));
        assertThat(counts.getOrDefault("New seals", 0)).isEqualTo(seals);
        assertThat(counts.getOrDefault("Network lead 3 m", 0)).isEqualTo(leads);
        assertThat(Packing.carry(jobs.get(0).runbook())).contains("its box", "2 × New seals");
    }

    @DisplayName("Nobody needs more of a tool than there are hands, nor more than devices that want it")
    @ParameterizedTest(name = "{0} people: {1} small screwdrivers, {2} screwdrivers")
    @CsvSource({"1, 1, 1", "2, 2, 2", "4, 3, 2"})
    void tools(int people, int small, int usual) {
        var counts = new HashMap<String, Integer>();
        Packing.of(SHOP, people).tools().forEach(t -> counts.put(t.name(), t.count()));
        assertThat(counts)
                .containsEntry("Small screwdriver", small)
                .containsEntry("Screwdriver", usual)
                .containsEntry("Tester for polarity", 1);
    }

    @Test
    void boxesAreCountedByKindAndWhatIsHalfDoneIsThereAlready() {
        var packing = Packing.of(SHOP, 2);
        assertThat(packing.boxes())
                .extracting(b -> b.units().size() + " " + b.kind())
                .containsExactly("3 Counter payment terminal", "1 Time clock", "1 Storage box");
        assertThat(packing.boxes().get(0).kit()).contains("Holder", "Multi-cable with three plugs");
        assertThat(packing.boxes().get(0).leave()).contains("Serial lead");
        assertThat(packing.labels()).as("five tags, and one to spare").isEqualTo(6);
        assertThat(packing.bench()).containsExactly("Store");
        assertThat(packing.sticks()).extracting(Packing.Stick::kind).contains("Counter payment terminal");
        assertThat(packing.ask())
                .anySatisfy(a -> {
                    assertThat(a.who()).isEqualTo("qualified electrician");
                    assertThat(a.units()).containsExactly("Clock");
                    assertThat(a.minutes()).isEqualTo(20);
                })
                .anySatisfy(
                        a -> assertThat(a.who() + ": " + a.units().size()).isEqualTo("Whoever works at this till: 3"));
        var begun = upTo(1, "Till 1", "counter-payment-terminal", "address");
        var rest = Packing.of(List.of(begun), 1);
        assertThat(rest.boxes()).isEmpty();
        assertThat(rest.sticks()).as("it was fetched already").isEmpty();
        assertThat(rest.tools()).isNotEmpty();
        assertThat(Packing.needs(List.of(begun))).isEmpty();
        assertThat(Packing.carry(begun.runbook())).containsExactly("Small screwdriver", "Cable tape");
        assertThat(Packing.carry(SHOP.get(0).runbook())).containsExactly("its box", "Small screwdriver", "Cable tape");
        assertThat(Packing.of(List.of(), 0).labels()).isZero();
    }

    @Test
    void whatTakesLongestIsOrderedFirst() {
        assertThat(Packing.needs(SHOP))
                .extracting(n -> n.order().days() + " " + n.order().name() + " " + n.units())
                .containsExactly("10 Supply point at the wall [4]", "5 Payment key file [1, 2, 3]");
    }
}
