package app.knottag.e2e;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.methods;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;
import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.domain.JavaMethod;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import com.tngtech.archunit.lang.ArchCondition;
import com.tngtech.archunit.lang.ConditionEvents;
import com.tngtech.archunit.lang.SimpleConditionEvent;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.FieldSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Arrows point one way: server to core, stand-ins to core, and nobody to the server. */
class ArchitectureTest {

    private static final JavaClasses ALL = new ClassFileImporter()
            .importPaths(Stream.of("core", "standins", "server")
                    .map(m -> Path.of("..", m, "target", "classes"))
                    .toList());

    @DisplayName("Modules import only along the arrows")
    @ParameterizedTest(name = "{0} does not import {1}")
    @CsvSource({
        "app.knottag.core.., app.knottag.server..",
        "app.knottag.core.., app.knottag.standins..",
        "app.knottag.standins.., app.knottag.server..",
        "app.knottag.server.., app.knottag.standins..",
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

    private static final String SERVER = "app.knottag.server.";
    private static final List<String> FEATURES = List.of("plan", "register", "onboard", "verify", "kind", "account");

    private static String[] packages(Stream<String> names) {
        return names.map(n -> SERVER + n + "..").toArray(String[]::new);
    }

    @DisplayName("A feature imports the record, changes and core, never another feature")
    @ParameterizedTest
    @FieldSource("FEATURES")
    void features(String feature) {
        noClasses()
                .that()
                .resideInAPackage(SERVER + feature + "..")
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage(
                        packages(Stream.concat(FEATURES.stream().filter(f -> !f.equals(feature)), Stream.of("demo"))))
                .check(ALL);
    }

    @DisplayName("What is on record, and what changes it, knows no feature and no network")
    @ParameterizedTest
    @ValueSource(strings = {"record", "change", "web", "db", "log"})
    void kernel(String name) {
        noClasses()
                .that()
                .resideInAPackage(SERVER + name + "..")
                .should()
                .dependOnClassesThat()
                .resideInAnyPackage(packages(Stream.concat(FEATURES.stream(), Stream.of("probe", "demo"))))
                .check(ALL);
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
    void allThreeModulesWereLookedAt() {
        for (String module : List.of("core", "standins", "server"))
            assertThat(ALL.stream().filter(c -> c.getPackageName().startsWith("app.knottag." + module)))
                    .as(module)
                    .isNotEmpty();
    }
}
