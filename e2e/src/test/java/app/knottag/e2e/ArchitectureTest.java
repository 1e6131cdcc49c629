package app.knottag.e2e;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.methods;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;
import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.core.domain.JavaClass;
import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.domain.JavaMethod;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.lang.ArchCondition;
import com.tngtech.archunit.lang.ConditionEvents;
import com.tngtech.archunit.lang.SimpleConditionEvent;
import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.TreeSet;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Arrows point one way: server to core, stand-ins to core, and nobody to the server. */
class ArchitectureTest {

    private static final JavaClasses ALL = new ClassFileImporter()
            .importPaths(Stream.of("core", "offline", "standins", "server")
                    .map(m -> Path.of("..", m, "target", "classes"))
                    .toList());

    @DisplayName("Modules import only along the arrows")
    @ParameterizedTest(name = "{0} does not import {1}")
    @CsvSource({
        "app.knottag.core.., app.knottag.server..",
        "app.knottag.core.., app.knottag.standins..",
        "app.knottag.standins.., app.knottag.server..",
        "app.knottag.server.., app.knottag.standins..",
        "app.knottag.core.., app.knottag.offline..",
        "app.knottag.core.., org.teavm..",
        "app.knottag.offline.., app.knottag.server..",
        "app.knottag.core.., org.springframework..",
        "app.knottag.core.., java.sql..",
        "app.knottag.core.., java.net..",
        "app.knottag.core.., jakarta..",
        "app.knottag.core.., org.apache.ibatis..",
        "app.knottag.standins.., org.springframework..",
    })
    void arrows(String from, String to) {
        noClasses()
                .that()
                .resideInAPackage(from)
                .should()
                .dependOnClassesThat()
                .resideInAPackage(to)
                .check(ALL);
    }

    @DisplayName("Packages never come back to themselves")
    @ParameterizedTest
    @ValueSource(strings = {"app.knottag.core.(*)..", "app.knottag.server.(*).."})
    void noCycles(String packages) {
        slices().matching(packages).should().beFreeOfCycles().check(ALL);
    }

    private static Stream<Arguments> packages() throws IOException {
        var all = new ArrayList<Arguments>();
        for (String module : List.of("core", "server"))
            try (var files = Files.walk(Path.of("..", module, "src/main/java"))) {
                files.filter(f -> f.endsWith("package-info.java"))
                        .map(f -> f.getParent().getFileName().toString())
                        .sorted()
                        .forEach(name -> all.add(Arguments.of(module, name)));
            }
        return all.stream();
    }

    /** The packages beside a class's own in the same module that it needs. */
    private static Stream<String> needs(JavaClass c, String module) {
        String prefix = "app.knottag." + module + ".";
        return c.getDirectDependenciesFromSelf().stream()
                .map(d -> d.getTargetClass().getBaseComponentType().getPackageName())
                .filter(p -> p.startsWith(prefix))
                .map(p -> p.substring(prefix.length()).replaceAll("\\..*", ""));
    }

    @DisplayName("A package uses what its package-info says, and no other")
    @ParameterizedTest(name = "{0}: {1}")
    @MethodSource("packages")
    void packageInfoIsTrue(String module, String name) throws IOException {
        var info =
                Files.readString(Path.of("..", module, "src/main/java/app/knottag", module, name, "package-info.java"));
        var said = Pattern.compile("May use: ([a-z, ]+)\\.").matcher(info);
        assertThat(said.find()).as("it says what it may use").isTrue();
        var may = Stream.of(said.group(1).split(", "))
                .filter(w -> !w.equals("nothing"))
                .toList();
        var needs = ALL.stream()
                .filter(c -> c.getPackageName().equals("app.knottag." + module + "." + name))
                .flatMap(c -> needs(c, module))
                .filter(p -> !p.equals(name))
                .collect(Collectors.toCollection(TreeSet::new));
        assertThat(needs).containsExactlyElementsOf(may);
    }

    private static final String FEATURES =
            "plan|register|onboard|verify|handover|audit|watch|kind|visit|worksheet|today|account|machine|backup|live|practice";

    @DisplayName("A feature knows no other; the kernel knows no feature")
    @ParameterizedTest
    @CsvSource({FEATURES + ", " + FEATURES + "|demo", "record|change|web|db|log, " + FEATURES + "|demo|probe"})
    void features(String from, String to) {
        for (String one : from.split("\\|"))
            assertThat(ALL.stream()
                            .filter(c -> c.getPackageName().equals("app.knottag.server." + one))
                            .flatMap(c -> needs(c, "server"))
                            .filter(p -> !p.equals(one)))
                    .as(one)
                    .doesNotContainAnyElementsOf(List.of(to.split("\\|")));
    }

    @DisplayName("A controller asks a service, never a store")
    @Test
    void noStoreInAController() {
        noClasses()
                .that()
                .haveSimpleNameEndingWith("Controller")
                .should()
                .dependOnClassesThat()
                .areAnnotatedWith("org.apache.ibatis.annotations.Mapper")
                .check(ALL);
    }

    @DisplayName("Text that somebody typed ends at a form; what changes the record never sees it")
    @Test
    void textDiesAtTheEdge() {
        methods()
                .that()
                .areDeclaredInClassesThat()
                .resideInAPackage("app.knottag.server..")
                .and()
                .areDeclaredInClassesThat()
                .haveNameNotMatching(".*(Form|Controller)")
                .and()
                .areDeclaredInClassesThat()
                .haveNameNotMatching(".*Request(\\$.*)?")
                .should(new ArchCondition<>("take nothing as it was typed") {
                    @Override
                    public void check(JavaMethod method, ConditionEvents events) {
                        for (var type : method.getRawParameterTypes())
                            if (type.getPackageName().startsWith("app.knottag.")
                                    && type.getSimpleName().endsWith("Request"))
                                events.add(SimpleConditionEvent.violated(
                                        method, method.getFullName() + " takes " + type.getSimpleName()));
                    }
                })
                .check(ALL);
    }

    @DisplayName("Nothing of the network is asked inside a transaction")
    @Test
    void noNetworkInATransaction() {
        methods()
                .that()
                .areAnnotatedWith("org.springframework.transaction.annotation.Transactional")
                .should(new ArchCondition<>("not ask the network") {
                    @Override
                    public void check(JavaMethod method, ConditionEvents events) {
                        method.getCallsFromSelf().stream()
                                .filter(c -> c.getTargetOwner().isAssignableTo("app.knottag.core.reach.Probes"))
                                .forEach(c -> events.add(SimpleConditionEvent.violated(method, c.getDescription())));
                    }
                })
                .check(ALL);
    }

    @Test
    void sqlStaysInMappers() {
        classes()
                .that()
                .areAnnotatedWith("org.apache.ibatis.annotations.Mapper")
                .should()
                .beInterfaces()
                .check(ALL);
        noClasses()
                .that()
                .resideInAPackage("app.knottag.server..")
                .and()
                .resideOutsideOfPackage("app.knottag.server.db..")
                .should()
                .dependOnClassesThat()
                .resideInAPackage("java.sql..")
                .check(ALL);
    }

    @Test
    void allModulesWereLookedAt() {
        for (String module : List.of("core", "offline", "standins", "server"))
            assertThat(ALL.stream().filter(c -> c.getPackageName().startsWith("app.knottag." + module)))
                    .as(module)
                    .isNotEmpty();
    }
}
