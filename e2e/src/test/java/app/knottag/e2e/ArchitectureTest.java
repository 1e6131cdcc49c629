package app.knottag.e2e;

import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.classes;
import static com.tngtech.archunit.lang.syntax.ArchRuleDefinition.noClasses;
import static com.tngtech.archunit.library.dependencies.SlicesRuleDefinition.slices;
import static org.assertj.core.api.Assertions.assertThat;

import com.tngtech.archunit.core.domain.JavaClasses;
import com.tngtech.archunit.core.importer.ClassFileImporter;
import java.nio.file.Path;
import java.util.List;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

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

    @Test
    void coreHasNoCycles() {
        slices().matching("app.knottag.core.(*)..").should().beFreeOfCycles().check(ALL);
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
