package app.knottag.core.figure;

import com.fasterxml.jackson.annotation.JsonValue;
import java.math.BigDecimal;
import java.math.MathContext;
import java.math.RoundingMode;
import java.util.Arrays;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;

/** What a figure counts. Every figure is kept in the unit named here and read in any of its spellings. */
public enum Unit {
    AMPERE(
            "A",
            "a=1 amp=1 amps=1 ampere=1 amperes=1 ma=0.001",
            Map.of("w", "Watts are volts times amperes: divide by the volts.")),
    VOLT("V", "v=1 vdc=1 volt=1 volts=1 mv=0.001 kv=1000", Map.of()),
    WATT(
            "W",
            "w=1 watt=1 watts=1 mw=0.001 kw=1000",
            Map.of(
                    "va", "VA is more than W: look for W on it.",
                    "a", "Watts are volts times amperes: multiply by the volts.")),
    WATT_HOUR(
            "Wh",
            "wh=1 kwh=1000",
            Map.of(
                    "ah", "Wh are Ah times the volts of the battery.",
                    "mah", "Wh are Ah times the volts of the battery, and 1000 mAh are 1 Ah.")),
    METRE(
            "m",
            "m=1 metre=1 metres=1 meter=1 meters=1 cm=0.01 mm=0.001 km=1000 ft=0.3048 feet=0.3048 in=0.0254",
            Map.of()),
    MILLIMETRE("mm", "mm=1 millimetre=1 millimetres=1 cm=10 m=1000 in=25.4", Map.of()),
    SQUARE_MILLIMETRE("mm²", "mm²=1 mm2=1 mm^2=1 sqmm=1 qmm=1", Map.of("mm", "Square a diameter, times 0.785.")),
    SECOND(
            "s",
            "s=1 sec=1 secs=1 second=1 seconds=1 min=60 mins=60 minute=60 minutes=60 h=3600 hour=3600 hours=3600",
            Map.of()),
    MINUTE("min", "min=1 mins=1 minute=1 minutes=1 h=60 hour=60 hours=60", Map.of()),
    TERABYTE("TB", "tb=1 gb=0.001 mb=0.000001 tib=1.099511627776 gib=0.001073741824 t=1", Map.of()),
    MEGABYTE(
            "MB",
            "mb=1 kb=0.001 gb=1000 mib=1.048576 kib=0.001024 gib=1073.741824",
            Map.of("mbit", "Mbit are eighths of MB: divide by 8.")),
    MEGABYTE_PER_SECOND("MB/s", "mb/s=1 mbyte/s=1 gb/s=1000 mbit/s=0.125 mbps=0.125 gbit/s=125 gbps=125", Map.of()),
    MEGABIT_PER_SECOND(
            "Mbit/s", "mbit/s=1 mbps=1 mbit=1 mb/s=8 gbit/s=1000 gbps=1000 kbit/s=0.001 kbps=0.001", Map.of()),
    PERCENT("%", "%=1 percent=1", Map.of()),
    DECIBEL_MILLIWATT("dBm", "dbm=1 db=1", Map.of()),
    DOTS_PER_INCH("dpi", "dpi=1 ppi=1", Map.of()),
    PER_SECOND("a second", "fps=1 hz=1 /s=1", Map.of()),
    LINES("lines", "lines=1 p=1 px=1 pixels=1", Map.of()),
    PIECES("", "pcs=1 pieces=1", Map.of());

    private static final int PLACES = 3;

    private final String symbol;
    private final Map<String, Double> spellings;
    private final Map<String, String> confused;

    Unit(String symbol, String spellings, Map<String, String> confused) {
        this.symbol = symbol;
        this.spellings = Arrays.stream(spellings.split(" "))
                .map(s -> s.split("="))
                .collect(Collectors.toUnmodifiableMap(s -> s[0], s -> Double.valueOf(s[1])));
        this.confused = confused;
    }

    /** Returns what is written behind the figure, such as {@code mm²}; empty for pieces. */
    @JsonValue
    public String symbol() {
        return symbol;
    }

    /** Returns how many of this unit one of the spelled unit is, or empty when it counts something else. */
    Optional<Double> factor(String spelled) {
        return Optional.ofNullable(spellings.get(spelled));
    }

    /** Returns how to get here from a unit that is often written in its place, or empty when there is nothing to say. */
    Optional<String> confused(String spelled) {
        return Optional.ofNullable(confused.get(spelled));
    }

    /** Returns whether any unit is spelled so. */
    static boolean known(String spelled) {
        return Arrays.stream(values())
                .anyMatch(u -> u.spellings.containsKey(spelled) || u.confused.containsKey(spelled));
    }

    /** Writes seconds as people say them: 45 s, 4 min, 7 min 30 s, 1 h 05 min. */
    public static String duration(int seconds) {
        if (seconds < 120) return seconds + " s";
        if (seconds < 3600) return seconds / 60 + " min" + (seconds % 60 == 0 ? "" : " " + seconds % 60 + " s");
        return seconds / 3600 + " h"
                + (seconds % 3600 < 60 ? "" : String.format(Locale.ROOT, " %02d min", seconds % 3600 / 60));
    }

    /** Writes a figure with three places that count, and its unit. */
    public String write(double figure) {
        return symbol.isEmpty() ? plain(figure) : plain(figure) + " " + symbol;
    }

    /** Writes a figure with three places that count, and all places before the point: 0.0126, 1.28, 12, 4096. */
    public static String plain(double figure) {
        var exact = BigDecimal.valueOf(figure);
        int whole = exact.precision() - exact.scale();
        var rounded = whole >= PLACES ? exact.setScale(0, RoundingMode.HALF_UP) : exact.round(new MathContext(PLACES));
        return rounded.signum() == 0 ? "0" : rounded.stripTrailingZeros().toPlainString();
    }
}
