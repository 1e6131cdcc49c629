package app.knottag.core.runbook;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kinds;
import app.knottag.core.kind.StepOrder;
import app.knottag.core.plan.Method;
import app.knottag.core.runbook.Recipe.LeftOut;
import app.knottag.core.time.SiteClock;
import java.util.Arrays;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.Arguments;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

class RecipeTest {

    private static final Kinds KINDS = Kinds.shipped();

    static EndpointContext around(Method method, Map<String, String> answers, boolean partner, String... registries) {
        return new EndpointContext(
                method,
                "",
                "",
                "",
                Optional.empty(),
                Optional.empty(),
                partner ? Optional.of(Ipv4Address.parse("10.44.16.12")) : Optional.empty(),
                Optional.empty(),
                answers,
                List.of(registries),
                EndpointContext.Beside.NOTHING,
                List.of(),
                SiteClock.NONE);
    }

    private static Recipe recipe(String kind, Method method, String answers, boolean partner) {
        var map = new HashMap<String, String>();
        for (String a : answers.split(" ")) if (!a.isEmpty()) map.put(a.split("=")[0], a.split("=")[1]);
        return Recipe.of(KINDS.get(kind), around(method, map, partner));
    }

    @DisplayName("Only the steps that apply, by answers, method and partner; the others with the reason")
    @ParameterizedTest(name = "{0} {1} {2} partner {3}: without {4}")
    @CsvSource(
            delimiter = '|',
            value = {
                "time-clock  | FIXED    | ''                | true  | supply                   | It has a plug-in supply.",
                "time-clock  | FIXED    | supply=leads      | false | at-software software-read-back number punch | No attendance software "
                        + "is on record as its partner.",
                "time-clock  | RESERVED | supply=leads      | true  | address read-back        | Its address is kept by "
                        + "the DHCP server: nothing is typed on it.",
                "door-reader | FIXED    | lock=magnet opens-by=fingers | true | door        | It is set up on the bench first.",
                "door-reader | FIXED    | lock=magnet where=place | true | bench consent    | It is opened by cards.",
                "counter-payment-terminal | RESERVED | '' | true | address read-back    | Its address is kept by "
                        + "the DHCP server: nothing is typed on it.",
                "counter-payment-terminal | FIXED | '' | false | at-till till-read-back code | No till is on record as "
                        + "its partner.",
                "door-reader | FIXED    | exit-button=handle lock=strike | true | exit fire door consent | A strike opens "
                        + "mechanically from inside.",
                "storage-box | FIXED    | used=used drives=one internet=no | false | array      | There is one drive.",
                "copier      | FIXED    | sends=relay       | false | mailbox                  | It sends through a relay of the site.",
                "kiosk-set   | RESERVED | uplink=modem encoder=no | false | address read-back encoder | No cards are encoded here.",
            })
    void onlyWhatApplies(String kind, Method method, String answers, boolean partner, String out, String because) {
        var recipe = recipe(kind, method, answers, partner);
        var whole = KINDS.get(kind).steps().stream().map(Kind.Step::key).toList();
        var kept = recipe.kind().steps().stream().map(Kind.Step::key).toList();
        assertThat(whole.stream().filter(k -> !kept.contains(k)))
                .containsExactlyInAnyOrder(out.isEmpty() ? new String[0] : out.split(" "));
        if (!because.isEmpty())
            assertThat(recipe.leftOut()).extracting(LeftOut::because).contains(because);
    }

    static Stream<Arguments> everyRecipe() {
        return KINDS.all().stream()
                .flatMap(k -> Arrays.stream(Method.values())
                        .flatMap(m -> Stream.concat(
                                        Stream.of(Map.<String, String>of()),
                                        k.questions().stream()
                                                .flatMap(q ->
                                                        q.options().stream().map(o -> Map.of(q.key(), o.value()))))
                                .map(answers -> Arguments.of(k, m, answers))));
    }

    @DisplayName("Every recipe of every kind can be followed: its steps rest on steps that are there")
    @ParameterizedTest(name = "{0} {1} {2}")
    @MethodSource("everyRecipe")
    void everyRecipeHolds(Kind kind, Method method, Map<String, String> answers) {
        var steps = Recipe.of(kind, around(method, answers, false, "Front portal"))
                .kind()
                .steps();
        var before = new HashSet<String>();
        for (var step : steps) {
            assertThat(before).containsAll(step.after().keySet());
            before.add(step.key());
        }
        assertThat(StepOrder.of(steps)).isEqualTo(steps);
        assertThat(before).contains("label", "confirm");
        if (answers.getOrDefault("nets", "").equals("own")) {
            assertThat(before)
                    .as("what is not on the wire has no light, address or read-back there")
                    .contains("switch-on")
                    .doesNotContain("wire", "address", "read-back", "restart");
            return;
        }
        assertThat(steps.stream()
                        .filter(s -> s.key().equals("restart"))
                        .findFirst()
                        .orElseThrow()
                        .hint())
                .contains("It joins only with this restart: it is registered at Front portal.");
    }

    @DisplayName("A port that the plan gives stands on the sheet; the usual one need not be typed")
    @ParameterizedTest(name = "port {0}: on the sheet {1}")
    @CsvSource(
            nullValues = "-",
            value = {"-, false", "7400, false", "7452, true"})
    void portOfItsOwn(Integer port, boolean shown) {
        var around = new EndpointContext(
                Method.FIXED,
                "",
                "",
                "",
                Optional.empty(),
                Optional.ofNullable(port),
                Optional.empty(),
                Optional.empty(),
                Map.of(),
                List.of(),
                EndpointContext.Beside.NOTHING,
                List.of(),
                SiteClock.NONE);
        var menu =
                Recipe.of(KINDS.get("counter-payment-terminal"), around).kind().menu();
        assertThat(menu.stream().anyMatch(f -> f.label().equals("Listening port")))
                .isEqualTo(shown);
    }

    @Test
    void whatRestedOnAStepLeftOutRestsOnWhatThatOneRestedOn() {
        var steps = recipe("time-clock", Method.RESERVED, "", true).kind();
        assertThat(steps.step("restart").after()).containsOnlyKeys("wire");
    }

    @DisplayName("Learned first: read what it was given before automatic goes off, then change the address only")
    @Test
    void learned() {
        var kind = recipe("label-printer", Method.LEARNED, "", false).kind();
        var keys = kind.steps().stream().map(Kind.Step::key).toList();
        assertThat(keys)
                .containsExactly(
                        "kit", "label", "wire", "learn", "address", "read-back", "restart", "secure", "confirm");
        assertThat(kind.step("address").after()).containsKey("learn");
        assertThat(kind.step("address").caution()).startsWith("Switching automatic on again wipes what was typed.");
        assertThat(kind.menu())
                .filteredOn(Kind.MenuField::leaveAlone)
                .extracting(Kind.MenuField::label)
                .containsExactly("Subnet mask", "Router");
    }

    @DisplayName("A reset has done again what it undid, and the proof with it")
    @ParameterizedTest(name = "{0} {1}: {2}")
    @CsvSource({
        "storage-box, FIXED, address read-back restart clock secure confirm",
        "storage-box, LEARNED, learn address read-back restart clock secure confirm",
        "storage-box, RESERVED, restart clock secure confirm",
        "door-reader, FIXED, address read-back restart network secure wall wall-sync confirm",
    })
    void redo(String kind, Method method, String keys) {
        assertThat(Recipe.redo(KINDS.get(kind), recipe(kind, method, "", false).kind()))
                .containsExactly(keys.split(" "));
    }
}
