package app.knottag.core.practice;

import app.knottag.core.address.AddressContext;
import app.knottag.core.address.AddressRange;
import app.knottag.core.address.AddressReader;
import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Purpose;
import app.knottag.core.address.Segment;
import app.knottag.core.plan.Placement;
import app.knottag.core.reading.Finding;
import app.knottag.core.reading.ReadingException;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.IntStream;

/**
 * Rows of devices, each with its addresses one after the other and room to grow, in what an odd pool leaves free. Counted are the
 * addresses that the rows have, now and for later; a row that does not hold what is there now has none.
 *
 * @param held addresses that somebody has already, with their names
 */
public record LayOut(Segment segment, Map<Ipv4Address, String> held, List<Row> rows) implements PlanTask {

    public LayOut {
        held = Map.copyOf(held);
        rows = List.copyOf(rows);
    }

    /**
     * A row of devices.
     *
     * @param now how many there are
     * @param later how many there may be one day, not fewer
     */
    public record Row(String name, int now, int later) {}

    @Override
    public String ask() {
        return "Each row gets addresses one after the other, and room to grow. Where does each begin?";
    }

    @Override
    public List<PlanFact> facts() {
        var facts = new ArrayList<PlanFact>();
        facts.add(new PlanFact(
                "Network", segment.prefix() + ", mask " + segment.prefix().mask()));
        segment.gateway().ifPresent(g -> facts.add(new PlanFact("Gateway", g.toString())));
        segment.pools().forEach(p -> facts.add(new PlanFact("Handed out", p.toString())));
        new TreeMap<>(held).forEach((a, name) -> facts.add(new PlanFact(name, a.toString())));
        rows.forEach(r -> facts.add(new PlanFact(r.name(), r.now() + " now, up to " + r.later() + " one day")));
        return List.copyOf(facts);
    }

    @Override
    public List<PlanBlank> blanks() {
        return rows.stream()
                .map(r -> new PlanBlank(r.name() + " from", List.of()))
                .toList();
    }

    @Override
    public PlanStand stand(List<String> moves) {
        throw new ReadingException("Here addresses are filled in.");
    }

    @Override
    public PlanJudged judge(List<String> answer) {
        if (answer.size() != rows.size()) throw new ReadingException("Say for each row where it begins.");
        var remarks = new ArrayList<String>();
        var starts = new ArrayList<Optional<Ipv4Address>>();
        for (int r = 0; r < rows.size(); r++) starts.add(read(rows.get(r), answer.get(r), remarks));
        int room = 0;
        for (int r = 0; r < rows.size(); r++)
            if (starts.get(r).isPresent())
                room += room(rows.get(r), starts.get(r).get(), others(starts, r), remarks);
        var best = best();
        int most = IntStream.of(best.rooms()).sum();
        String says = "Your rows have room for " + room + ". The best lay-out has room for " + most + ".";
        return new PlanJudged((double) room / most, says, remarks, lines(best), true);
    }

    private Optional<Ipv4Address> read(Row row, String typed, List<String> remarks) {
        var context = new AddressContext(Optional.of(segment), held.keySet(), Optional.empty());
        var reading = AddressReader.read(typed, Purpose.ADDRESS, context);
        var value = Optional.ofNullable(reading.value()).map(Ipv4Address::parse);
        if (value.isEmpty())
            remarks.add(row.name() + ": "
                    + reading.findings().stream()
                            .map(Finding::message)
                            .findFirst()
                            .orElse("This is no address."));
        return value;
    }

    private static List<Ipv4Address> others(List<Optional<Ipv4Address>> starts, int row) {
        return IntStream.range(0, starts.size())
                .filter(r -> r != row)
                .boxed()
                .flatMap(r -> starts.get(r).stream())
                .toList();
    }

    /** A row grows until something else begins. */
    private int room(Row row, Ipv4Address from, List<Ipv4Address> others, List<String> remarks) {
        for (int n = 0; n < row.later(); n++) {
            var at = from.plus(n);
            var taken = taken(at, others);
            if (taken.isEmpty()) continue;
            if (n >= row.now()) {
                remarks.add(row.name() + ": room for " + n + " of " + row.later() + ". " + taken.get());
                return n;
            }
            remarks.add(row.name() + " do not fit: " + taken.get());
            return 0;
        }
        return row.later();
    }

    private Optional<String> taken(Ipv4Address at, List<Ipv4Address> others) {
        if (others.contains(at)) return Optional.of("At " + at + " another row begins.");
        if (held.containsKey(at)) return Optional.of(at + " is held by " + held.get(at) + ".");
        if (!segment.prefix().contains(at)) return Optional.of(at + " lies outside of " + segment.prefix() + ".");
        if (!segment.prefix().usable(at)) return Optional.of(at + " is no device's: it means the whole network.");
        if (segment.gateway().filter(at::equals).isPresent()) return Optional.of(at + " is the gateway.");
        return segment.poolOf(at)
                .map(p -> at + " is handed out: the router may give it to a phone at any time. The pool is " + p + ".");
    }

    /** Whether there is something to think about: all fit, but not as they come, each with its room behind the last. */
    boolean hard() {
        var free = new Placement(segment, held).freeStretches();
        int[] best = bestIn(free);
        if (best.length == 0) return false;
        long[] left = free.stream().mapToLong(AddressRange::count).toArray();
        for (var row : rows) {
            int s = 0;
            while (s < left.length && left[s] < row.later()) s++;
            if (s == left.length) return true;
            left[s] -= row.later();
        }
        return false;
    }

    /** Where each row begins, and how many addresses it has there. */
    private record Laid(Ipv4Address[] starts, int[] rooms) {}

    private Laid best() {
        var free = new Placement(segment, held).freeStretches();
        return laid(free, bestIn(free));
    }

    /** By trying for each row each free stretch: what fits into one stretch fits one after the other. */
    private int[] bestIn(List<AddressRange> free) {
        int[] best = new int[0];
        long most = -1;
        int ways = (int) Math.pow(free.size(), rows.size());
        for (int way = 0; way < ways; way++) {
            int[] in = new int[rows.size()];
            for (int r = 0, w = way; r < in.length; r++, w /= free.size()) in[r] = w % free.size();
            long room = roomOf(free, in);
            if (room > most) {
                most = room;
                best = in;
            }
        }
        return best;
    }

    private long roomOf(List<AddressRange> free, int[] in) {
        long sum = 0;
        for (int s = 0; s < free.size(); s++) {
            int stretch = s;
            long now = rowsIn(in, stretch).mapToLong(r -> rows.get(r).now()).sum();
            long later = rowsIn(in, stretch).mapToLong(r -> rows.get(r).later()).sum();
            if (now > free.get(s).count()) return -1;
            sum += Math.min(free.get(s).count(), later);
        }
        return sum;
    }

    private static IntStream rowsIn(int[] in, int stretch) {
        return IntStream.range(0, in.length).filter(r -> in[r] == stretch);
    }

    private Laid laid(List<AddressRange> free, int[] in) {
        var starts = new Ipv4Address[in.length];
        int[] rooms = new int[in.length];
        for (int s = 0; s < free.size(); s++) {
            var at = free.get(s).from();
            long spare = free.get(s).count()
                    - rowsIn(in, s).mapToLong(r -> rows.get(r).now()).sum();
            for (int r : rowsIn(in, s).toArray()) {
                var row = rows.get(r);
                long more = Math.min(spare, row.later() - row.now());
                spare -= more;
                starts[r] = at;
                rooms[r] = (int) (row.now() + more);
                at = at.plus(rooms[r]);
            }
        }
        return new Laid(starts, rooms);
    }

    private List<String> lines(Laid best) {
        return IntStream.range(0, rows.size())
                .boxed()
                .sorted(Comparator.comparing(r -> best.starts()[r]))
                .map(r -> rows.get(r).name() + " from " + best.starts()[r] + ": room for " + best.rooms()[r])
                .toList();
    }
}
