package app.knottag.core.hardware;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.knottag.core.hardware.Interface.Medium;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class InterfaceTest {

    /** Written as "WIRED 10*, WIRELESS 11": medium, last pair of the MAC, a star on the one that counts. */
    static List<Interface> interfaces(String text) {
        return text == null
                ? List.of()
                : Arrays.stream(text.split(", "))
                        .map(t -> {
                            String[] parts = t.replace("*", "").split(" ");
                            return new Interface(
                                    Medium.valueOf(parts[0]), mac("00:00:5E:00:53:" + parts[1]), "", t.endsWith("*"));
                        })
                        .toList();
    }

    private static Mac mac(String text) {
        return Mac.parse(text);
    }

    @DisplayName("A registration holds the interface by which the device joins")
    @ParameterizedTest(name = "{0} for {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "WIRED 10*, WIRELESS 11            |          | 10 | Its wired interface is the one in use.",
                "WIRED 10, WIRELESS 11*            |          | 11 | Its wireless interface is the one in use.",
                "WIRED 10*, WIRELESS 11            | WIRELESS | 11 | It joins by its wireless interface.",
                "WIRED 10*                         | WIRELESS |    | It joins by its wireless interface, whose MAC is "
                        + "not on record. Read it, or take it from the network's table.",
                "WIRED 10*, ADAPTER 20             |          | 20 | The adapter carries the identity: the network sees "
                        + "its MAC, not that of the device.",
                "WIRED 10*, ADAPTER 20             | WIRED    | 20 | The adapter carries the identity: the network sees "
                        + "its MAC, not that of the device.",
                "WIRELESS 11, ADAPTER 20*          | WIRELESS | 11 | It joins by its wireless interface.",
                "LAN 30*, WAN 31                   |          | 31 | A small box shows the network its WAN side; the "
                        + "LAN side stays behind it.",
                "WIRELESS 11, WIRED 10             |          | 10 | None is marked as the one in use; wired comes before wireless.",
                "                                  |          |    | No MAC is on record. Read it from the label first.",
            })
    void choosesTheInterface(String interfaces, Medium joins, String pair, String because) {
        var choice = InterfaceChoice.of(interfaces(interfaces), Optional.ofNullable(joins));
        assertThat(choice.because()).isEqualTo(because);
        assertThat(choice.chosen().map(i -> i.mac().toString().substring(15))).isEqualTo(Optional.ofNullable(pair));
    }

    @DisplayName("A MAC seen on the network is explained by those on record")
    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            value = {
                "00:00:5E:00:53:10 | The very interface that is registered.",
                "00:00:5E:00:53:20 | Its wireless interface, which is not the one that counts.",
                "00:00:5E:00:53:18 | Next to its wired MAC 00:00:5E:00:53:10: the same box, another interface.",
                "00:00:5E:00:53:28 | Next to its wireless MAC 00:00:5E:00:53:20: the same box, another interface.",
                "00:00:5E:00:53:19 | Next to its wireless MAC 00:00:5E:00:53:20: the same box, another interface.",
                "00:00:5E:00:53:30 |",
                "00:00:5F:00:53:11 |",
            })
    void explains(String seen, String said) {
        assertThat(InterfaceChoice.explain(mac(seen), interfaces("WIRED 10*, WIRELESS 20")))
                .isEqualTo(Optional.ofNullable(said));
    }

    @ParameterizedTest
    @ValueSource(strings = {"01:00:5E:00:53:10", "00:00:00:00:00:00"})
    void noInterfaceHasTheMacOfAGroup(String mac) {
        assertThatThrownBy(() -> new Interface(Medium.WIRED, mac(mac), "", true))
                .hasMessage("an interface has a MAC of its own, was " + mac);
    }

    @DisplayName("What a wedge, a camera or a paste brings is sorted into MACs, serial and model")
    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            nullValues = "-",
            value = {
                "00005E00532B                              | 00005E00532B           | -             | -    | -",
                "00:00:SE:00:53:2B                         | 00:00:SE:00:53:2B      | -             | -    | -",
                "OC2-7H41-0093                             | -                      | OC2-7H41-0093 | -    | -",
                "oc2-7h41-0093                             | -                      | oc2-7h41-0093 | -    | -",
                "MAC: 00-00-5E-00-53-2B;S/N: OC2-7H41-0093 | 00-00-5E-00-53-2B      | OC2-7H41-0093 | -    | -",
                "Model: QX-2 N, MAC=00005E00532B           | 00005E00532B           | -             | QX-2 N | -",
                "LAN MAC 00005E00532B                      | -                      | -             | -    | LAN MAC 00005E00532B",
                "WLAN MAC: 00005E00532C;ETH: 00005E00532B  | 00005E00532C 00005E00532B | -          | -    | -",
                "OC2-7H41-O093                             | -                      | -             | -    | OC2-7H41-O093",
                "Serial No: OC2-7H41-O093                  | -                      | OC2-7H41-O093 | -    | -",
                "4006381333931                             | -                      | -             | -    | 4006381333931",
            })
    void sortsALabel(String text, String macs, String serial, String model, String rest) {
        var label = LabelText.of(text, "OC2-[0-9A-Z]{4}-[0-9]{4}");
        assertThat(label.macs()).isEqualTo(macs == null ? List.of() : List.of(macs.split(" ")));
        assertThat(label.serial()).isEqualTo(Optional.ofNullable(serial));
        assertThat(label.model()).isEqualTo(Optional.ofNullable(model));
        assertThat(label.rest()).isEqualTo(rest == null ? List.of() : List.of(rest));
    }

    @Test
    void severalLinesOfOneLabelAreSortedTogether() {
        var label = LabelText.of("QX-2\nMAC 00:00:5E:00:53:2B\n00:00:5E:00:53:2C\nSN: 77120", "");
        assertThat(label.macs()).containsExactly("00:00:5E:00:53:2C");
        assertThat(label.serial()).contains("77120");
        assertThat(label.rest()).containsExactly("MAC 00:00:5E:00:53:2B");
    }

    @DisplayName("A maker prefix is odd only when the register has taught it so")
    @ParameterizedTest(name = "{0} as {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "28:00:5E:00:53:01 | time-clock   | 28:00:5E stands on the label printers of this register, and on none "
                        + "of the 3 devices of this kind. Was the next line of the list copied, or is it an adapter?",
                "28:00:5E:00:53:01 | label-printer |",
                "00:00:5E:00:53:99 | time-clock    |",
                "40:00:5E:00:53:99 | time-clock    |",
                "28:00:5E:00:53:01 | copier        |",
            })
    void judgesTheMaker(String mac, String kind, String said) {
        var known = new MakerPrefixes(List.of(
                new MakerPrefixes.Known(mac("00:00:5E:00:53:01"), "time-clock", 1),
                new MakerPrefixes.Known(mac("00:00:5E:00:53:02"), "time-clock", 1),
                new MakerPrefixes.Known(mac("00:00:5E:00:53:03"), "time-clock", 1),
                new MakerPrefixes.Known(mac("28:00:5E:00:53:04"), "label-printer", 1),
                new MakerPrefixes.Known(mac("28:00:5E:00:53:05"), "label-printer", 1)));
        assertThat(known.oddFor(mac(mac), kind)).isEqualTo(Optional.ofNullable(said));
    }
}
