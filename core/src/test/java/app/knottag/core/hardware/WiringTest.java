package app.knottag.core.hardware;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.knottag.core.hardware.Gear.Port;
import app.knottag.core.hardware.Gear.Role;
import app.knottag.core.hardware.Gear.Type;
import app.knottag.core.hardware.Wiring.CableEnd;
import app.knottag.core.hardware.Wiring.State;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class WiringTest {

    /** Port 1 goes up, 2 to 7 are for the shop (segment 1), 8 for the office (segment 2), 9 is off. */
    private static Gear shopSwitch() {
        var ports = new ArrayList<Port>();
        for (int n = 1; n <= 9; n++)
            ports.add(new Port(
                    n, n, n == 1 ? Role.UPLINK : n == 9 ? Role.OFF : Role.LAN, Optional.of(n == 8 ? 2L : 1L), false));
        return new Gear(1, "Shop switch", Type.SWITCH, ports);
    }

    private static final Gear ROUTER = new Gear(
            2,
            "Router",
            Type.ROUTER,
            List.of(
                    new Port(20, 5, Role.WAN, Optional.empty(), false),
                    new Port(21, 1, Role.LAN, Optional.empty(), false),
                    new Port(22, 2, Role.LAN, Optional.empty(), false)));
    private static final List<Outlet> OUTLETS = List.of(
            new Outlet(1, "F-01", "Front", Outlet.State.PATCHED, Optional.of(3L)),
            new Outlet(2, "F-02", "Front", Outlet.State.DEAD, Optional.empty()),
            new Outlet(3, "F-03", "Front", Outlet.State.UNKNOWN, Optional.empty()));

    private static CableEnd lead(long id, String place, Long outlet, Long port) {
        return new CableEnd(
                id,
                "E" + id,
                place,
                place.equals("Yard") ? 5 : 10,
                1,
                Optional.ofNullable(outlet),
                Optional.ofNullable(port),
                false);
    }

    private static Wiring wiring(CableEnd... leads) {
        return new Wiring(
                List.of(shopSwitch(), ROUTER), OUTLETS, Map.of(1L, "Shop floor", 2L, "Office"), List.of(leads));
    }

    @DisplayName("A cable says where it ends, what is wrong, and which port to take instead")
    @ParameterizedTest(name = "outlet {0}, port {1}: {2} {3}")
    @CsvSource(
            delimiter = '|',
            nullValues = "-",
            value = {
                "1 | - | Shop switch 3 | PLANNED |",
                "1 | 3 | Shop switch 3 | PLANNED |",
                "3 | - |               | OPEN    |",
                "- | - |               | OPEN    |",
                "1 | 4 | Shop switch 4 | WRONG   | Outlet F-01 leads to Shop switch 3, not to the port planned. Plan it "
                        + "on that port, or have the outlet patched anew.",
                "2 | - |               | WRONG   | Outlet F-02 is dead. Have it patched to a LAN port, or run the lead "
                        + "straight to the switch.",
                "- | 1 | Shop switch 1 | WRONG   | Shop switch 1 is an uplink port, which only goes upwards. Move the "
                        + "lead to Shop switch 2.",
                "- | 20 | Router 5     | WRONG   | Router 5 is a WAN port, which only goes upwards. Move the lead to Router 2.",
                "- | 9 | Shop switch 9 | WRONG   | Shop switch 9 is switched off. Have it switched on, or move the lead to Shop switch 7.",
                "- | 8 | Shop switch 8 | WRONG   | Shop switch 8 belongs to Office, the address to Shop floor. Move the "
                        + "lead to Shop switch 7, which belongs to Shop floor.",
            })
    void cables(Long outlet, Long port, String end, State state, String said) {
        var cable = wiring(lead(1, "Front", outlet, port)).cables().get(0);
        assertThat(cable.port()).isEqualTo(end == null ? "" : end);
        assertThat(cable.state()).isEqualTo(state);
        assertThat((cable.problem() + " " + cable.mend()).strip()).isEqualTo(said == null ? "" : said);
    }

    @Test
    void twoOnOnePortAreBothNamedAlsoThroughAnOutlet() {
        assertThat(wiring(lead(1, "Front", 1L, null), lead(2, "Back", null, 3L)).cables())
                .extracting(c -> c.endpoint() + ": " + c.problem() + " " + c.mend())
                .containsExactly(
                        "E2: Shop switch 3 is planned for E1 as well. Move one of them to Shop switch 2.",
                        "E1: Shop switch 3 is planned for E2 as well. Move one of them to Shop switch 2.");
    }

    @Test
    void aCordIsTiedWhenItsLightWasSeenButNeverOnAWrongPort() {
        var seen = new CableEnd(1, "E1", "", 0, 1, Optional.empty(), Optional.of(3L), true);
        var wrong = new CableEnd(2, "E2", "", 0, 1, Optional.empty(), Optional.of(1L), true);
        assertThat(wiring(seen, wrong).cables())
                .extracting(Wiring.Cable::state)
                .containsExactly(State.PLUGGED_IN, State.WRONG);
    }

    @Test
    void theListIsInTheOrderOfWalking() {
        assertThat(wiring(
                                lead(1, "", null, 4L),
                                lead(2, "Yard", null, 5L),
                                lead(3, "Front", 3L, null),
                                lead(4, "front", 1L, null))
                        .cables())
                .extracting(Wiring.Cable::endpoint)
                .containsExactly("E2", "E4", "E3", "E1");
    }

    @DisplayName("Ports that are left, and when a bigger one is needed")
    @ParameterizedTest(name = "{0} leads, {1} to spare: {2} free")
    @CsvSource(
            delimiter = '|',
            value = {
                "3 | 2 | 4 |",
                "6 | 2 | 1 | Only 1 free; keep 2. Take one with 16 ports, or a second one, which takes a port itself.",
            })
    void room(int leads, int spare, int free, String advice) {
        var many = new CableEnd[leads];
        // Port 3 is in use by its outlet as well, which counts once.
        for (int i = 0; i < leads; i++) many[i] = lead(i + 1, "", null, i + 2L);
        var room = wiring(many).room(spare).get(0);
        assertThat(room.free()).isEqualTo(free);
        assertThat(room.upwards()).isEqualTo(1);
        assertThat(room.advice()).isEqualTo(advice == null ? "" : advice);
    }

    @Test
    void kiosksTakeLanPortsInOrderWhileThereAreSome() {
        assertThat(ROUTER.portOf(1).map(Port::number)).contains(1);
        assertThat(ROUTER.portOf(2).map(Port::number)).contains(2);
        assertThat(ROUTER.portOf(3)).isEmpty();
        assertThatThrownBy(() -> new Gear(
                        3,
                        "Hub",
                        Type.SWITCH,
                        List.of(
                                new Port(1, 4, Role.LAN, Optional.empty(), false),
                                new Port(2, 4, Role.LAN, Optional.empty(), false))))
                .hasMessage("two ports of Hub have the same number");
        assertThatThrownBy(() -> new Outlet(1, "F-9", "", Outlet.State.DEAD, Optional.of(4L)))
                .hasMessageStartingWith("an outlet is patched to a port");
    }
}
