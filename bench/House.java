import com.sun.source.tree.ClassTree;
import com.sun.source.tree.CompilationUnitTree;
import com.sun.source.tree.ImportTree;
import com.sun.source.tree.LineMap;
import com.sun.source.tree.LiteralTree;
import com.sun.source.tree.MethodTree;
import com.sun.source.tree.Tree;
import com.sun.source.tree.VariableTree;
import com.sun.source.util.JavacTask;
import com.sun.source.util.SourcePositions;
import com.sun.source.util.TreeScanner;
import com.sun.source.util.Trees;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayDeque;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import javax.lang.model.element.Modifier;
import javax.tools.ToolProvider;

/**
 * Measures how the house is built: lines, methods, cycles, records, parameters, absence, text and copies. Run by {@code ./knot
 * measure}; with {@code --check} it fails when a figure is worse than its limit. {@code --list NAME} prints where a figure comes from.
 */
public final class House {

    private static final Path ROOT = Path.of("").toAbsolutePath();
    private static final int LONG_LINE = 140, COPY = 6;

    /** Names of things that are an enum wherever they are inside the program. */
    private static final Set<String> ENUMS = Set.of(
            "outcome", "state", "method", "role", "check", "question", "fault", "evidence", "station",
            "status", "protocol", "purpose", "shape");

    private record Figure(String name, double value, double goal, double limit) {
        boolean kept() {
            return value <= limit;
        }
    }

    private record Place(String what, String where) {}

    /** What one part of the program, such as core, is made of. */
    private static final class Part {
        final List<Integer> files = new ArrayList<>(), methods = new ArrayList<>(), records = new ArrayList<>();
        final Map<String, Set<String>> uses = new TreeMap<>();
        int types, open;
        final List<Place> nulls = new ArrayList<>(), wide = new ArrayList<>(), text = new ArrayList<>(), big = new ArrayList<>();
    }

    private final Map<String, Part> parts = new TreeMap<>();
    private final Map<String, List<Place>> lists = new TreeMap<>();
    private final List<Figure> figures = new ArrayList<>();

    public static void main(String[] args) throws IOException {
        var house = new House();
        house.read();
        var limits = limits();
        house.figures(limits);
        if (args.length == 2 && args[0].equals("--list")) {
            house.lists.getOrDefault(args[1], List.of()).forEach(p -> System.out.println(p.where() + "  " + p.what()));
            return;
        }
        System.out.printf("%-44s %8s %8s %8s%n", "", "now", "goal", "limit");
        for (var f : house.figures)
            System.out.printf(Locale.ROOT, "%-44s %8s %8s %8s%s%n", f.name(), n(f.value()), n(f.goal()), n(f.limit()),
                    f.kept() ? "" : "   WORSE THAN ITS LIMIT");
        var worse = house.figures.stream().filter(f -> !f.kept()).map(Figure::name).toList();
        if (args.length > 0 && args[0].equals("--check") && !worse.isEmpty()) {
            System.out.println("worse than the limit in bench/house.limits: " + String.join(", ", worse));
            System.exit(1);
        }
    }

    private static String n(double value) {
        return value == Math.rint(value) ? "" + (long) value : String.format(Locale.ROOT, "%.1f", value);
    }

    /** Lines of name, goal and limit; the limit stands apart only while the goal is not reached. */
    private static Map<String, double[]> limits() throws IOException {
        var limits = new HashMap<String, double[]>();
        for (var line : Files.readAllLines(ROOT.resolve("bench/house.limits"))) {
            if (line.isBlank() || line.startsWith("#")) continue;
            var words = line.strip().split("\\s*\\|\\s*");
            double goal = Double.parseDouble(words[1]);
            limits.put(words[0], new double[] {goal, words.length > 2 ? Double.parseDouble(words[2]) : goal});
        }
        return limits;
    }

    // ------------------------------------------------------------ reading

    private void read() throws IOException {
        for (var part : List.of("core", "server", "standins")) {
            var it = parts.computeIfAbsent(part, k -> new Part());
            var sources = files(ROOT.resolve(part + "/src/main/java"), ".java");
            var compiler = ToolProvider.getSystemJavaCompiler();
            try (var manager = compiler.getStandardFileManager(null, null, null)) {
                var units = manager.getJavaFileObjectsFromPaths(sources);
                var task = (JavacTask) compiler.getTask(null, manager, d -> {}, List.of("-proc:none"), null, units);
                var positions = Trees.instance(task).getSourcePositions();
                for (var unit : task.parse()) new Reader(it, unit, positions).scan(unit, null);
            }
            for (var source : sources) it.files.add(Files.readAllLines(source).size());
        }
    }

    private static List<Path> files(Path below, String end) throws IOException {
        try (Stream<Path> all = Files.walk(below)) {
            return all.filter(p -> p.toString().endsWith(end)).sorted().toList();
        }
    }

    private static final class Reader extends TreeScanner<Void, Void> {
        private final Part part;
        private final CompilationUnitTree unit;
        private final SourcePositions positions;
        private final LineMap lines;
        private final String own, file;
        private final ArrayDeque<ClassTree> within = new ArrayDeque<>();

        Reader(Part part, CompilationUnitTree unit, SourcePositions positions) {
            this.part = part;
            this.unit = unit;
            this.positions = positions;
            this.lines = unit.getLineMap();
            this.own = unit.getPackageName().toString();
            this.file = ROOT.relativize(Path.of(unit.getSourceFile().toUri())).toString();
            part.uses.computeIfAbsent(own, k -> new TreeSet<>());
        }

        private String at(Tree tree) {
            return file + ":" + line(positions.getStartPosition(unit, tree));
        }

        private long line(long position) {
            return position < 0 ? 0 : lines.getLineNumber(position);
        }

        @Override
        public Void visitImport(ImportTree tree, Void none) {
            String name = tree.getQualifiedIdentifier().toString();
            String target = name.replaceAll("\\.[A-Z].*", "");
            if (target.startsWith("app.knottag.") && !target.equals(own)) part.uses.get(own).add(target);
            return null;
        }

        @Override
        public Void visitClass(ClassTree tree, Void none) {
            boolean record = tree.getKind() == Tree.Kind.RECORD;
            if (within.isEmpty()) {
                part.types++;
                if (tree.getModifiers().getFlags().contains(Modifier.PUBLIC)) part.open++;
            }
            if (record) {
                var components = tree.getMembers().stream()
                        .filter(m -> m instanceof VariableTree v && !v.getModifiers().getFlags().contains(Modifier.STATIC))
                        .map(m -> (VariableTree) m)
                        .toList();
                part.records.add(components.size());
                if (components.size() > 12) part.big.add(new Place(tree.getSimpleName() + " " + components.size(), at(tree)));
                if (!tree.getSimpleName().toString().endsWith("Request") || !file.startsWith("server"))
                    components.forEach(this::text);
            }
            within.push(tree);
            super.visitClass(tree, none);
            within.pop();
            return null;
        }

        private void text(VariableTree v) {
            if (v.getType() != null && v.getType().toString().equals("String") && ENUMS.contains(v.getName().toString()))
                part.text.add(new Place("String " + v.getName(), at(v)));
        }

        @Override
        public Void visitMethod(MethodTree tree, Void none) {
            long start = positions.getStartPosition(unit, tree), end = positions.getEndPosition(unit, tree);
            boolean made = end < 0 || tree.getBody() == null;
            if (!made && !within.isEmpty()) part.methods.add((int) (line(end) - line(start) + 1));
            boolean constructor = tree.getName().contentEquals("<init>");
            if (tree.getParameters().size() > 7 && !constructor)
                part.wide.add(new Place(tree.getName() + " " + tree.getParameters().size(), at(tree)));
            if (!constructor) tree.getParameters().forEach(this::text);
            return super.visitMethod(tree, none);
        }

        @Override
        public Void visitLiteral(LiteralTree tree, Void none) {
            if (tree.getKind() == Tree.Kind.NULL_LITERAL) part.nulls.add(new Place("null", at(tree)));
            return null;
        }
    }

    // ------------------------------------------------------------ figures

    private void figures(Map<String, double[]> limits) throws IOException {
        for (var name : List.of("core", "server")) {
            var p = parts.get(name);
            put(limits, name + " lines a file, median", share(p.files, 50));
            put(limits, name + " lines a file, p90", share(p.files, 90));
            put(limits, name + " lines a file, most", share(p.files, 100));
            put(limits, name + " lines a method, p90", share(p.methods, 90));
            put(limits, name + " lines a method, most", share(p.methods, 100));
            var cycles = cycles(p.uses);
            put(limits, name + " packages in a cycle", cycles.size());
            lists.put(name + " packages in a cycle", cycles.stream().map(c -> new Place(c, "")).toList());
            put(limits, name + " public top-level types, %", Math.rint(100.0 * p.open / p.types));
            put(limits, name + " null literals", list(name + " null literals", p.nulls));
            put(limits, name + " records over 12 components", list(name + " records over 12 components", p.big));
            put(limits, name + " methods over 7 parameters", list(name + " methods over 7 parameters", p.wide));
            put(limits, name + " text where an enum belongs", list(name + " text where an enum belongs", p.text));
        }
        var components = files(ROOT.resolve("web/src"), ".svelte");
        var sizes = new ArrayList<Integer>();
        var large = new ArrayList<Place>();
        for (var c : components) {
            int size = Files.readAllLines(c).size();
            sizes.add(size);
            if (size > 200) large.add(new Place("" + size, ROOT.relativize(c).toString()));
        }
        put(limits, "web lines a component, median", share(sizes, 50));
        put(limits, "web lines a component, p90", share(sizes, 90));
        put(limits, "web components over 200 lines", list("web components over 200 lines", large));
        var unknown = new ArrayList<Place>();
        for (var end : List.of(".svelte", ".ts"))
            for (var f : files(ROOT.resolve("web/src"), end)) find(f, "as unknown as", unknown);
        put(limits, "web 'as unknown as'", list("web 'as unknown as'", unknown));
        put(limits, "lines over 140", list("lines over 140", longLines()));
        put(limits, "copies to the letter", list("copies to the letter", copies()));
    }

    private double list(String name, List<Place> places) {
        lists.put(name, places);
        return places.size();
    }

    private void put(Map<String, double[]> limits, String name, double value) {
        var limit = limits.getOrDefault(name, new double[] {0, 0});
        figures.add(new Figure(name, value, limit[0], limit[1]));
    }

    private static double share(List<Integer> sizes, int percent) {
        var sorted = new ArrayList<>(sizes);
        Collections.sort(sorted);
        return sorted.get(Math.min(sorted.size() - 1, sorted.size() * percent / 100));
    }

    /** The packages that can come back to themselves. */
    private static Set<String> cycles(Map<String, Set<String>> uses) {
        var cycles = new TreeSet<String>();
        for (var start : uses.keySet()) {
            var seen = new HashSet<String>();
            var next = new ArrayDeque<>(uses.get(start));
            while (!next.isEmpty()) {
                String p = next.pop();
                if (seen.add(p)) next.addAll(uses.getOrDefault(p, Set.of()));
            }
            if (seen.contains(start)) cycles.add(start);
        }
        return cycles;
    }

    private static void find(Path file, String what, List<Place> into) throws IOException {
        int n = 0;
        for (var line : Files.readAllLines(file)) {
            n++;
            if (line.contains(what)) into.add(new Place(line.strip(), ROOT.relativize(file) + ":" + n));
        }
    }

    private static List<Path> sources() throws IOException {
        var all = new ArrayList<Path>();
        for (var part : List.of("core", "server", "standins", "e2e"))
            all.addAll(files(ROOT.resolve(part + "/src"), ".java"));
        all.addAll(files(ROOT.resolve("bench"), ".java"));
        for (var end : List.of(".svelte", ".ts")) all.addAll(files(ROOT.resolve("web/src"), end));
        all.removeIf(p -> p.endsWith("schema.d.ts"));
        return all;
    }

    private static List<Place> longLines() throws IOException {
        var found = new ArrayList<Place>();
        for (var file : sources()) {
            int n = 0;
            for (var line : Files.readAllLines(file)) {
                n++;
                if (line.length() > LONG_LINE) found.add(new Place("" + line.length(), ROOT.relativize(file) + ":" + n));
            }
        }
        return found;
    }

    /** Runs of the same six lines or more in two places; imports, comments and lone brackets do not count. */
    private static List<Place> copies() throws IOException {
        var seen = new HashMap<String, String>();
        var found = new ArrayList<Place>();
        for (var file : sources()) {
            var lines = new ArrayList<String>();
            var numbers = new ArrayList<Integer>();
            int n = 0;
            for (var line : Files.readAllLines(file)) {
                n++;
                String text = line.strip();
                if (text.length() < 4 || text.matches("(import|package|//|\\*|/\\*|@Override|@Test).*")) continue;
                lines.add(text);
                numbers.add(n);
            }
            int free = 0;
            for (int i = 0; i + COPY <= lines.size(); i++) {
                String window = String.join("\n", lines.subList(i, i + COPY));
                String here = ROOT.relativize(file) + ":" + numbers.get(i);
                String there = seen.putIfAbsent(window, here);
                if (there == null || i < free) continue;
                found.add(new Place("as in " + there, here));
                free = i + COPY;
            }
        }
        return found;
    }
}
