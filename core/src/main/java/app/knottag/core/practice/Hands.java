package app.knottag.core.practice;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.core.practice.HandTask.FreePort;
import app.knottag.core.practice.HandTask.Label;
import app.knottag.core.practice.HandTask.LabelLine;
import app.knottag.core.practice.HandTask.Port;
import app.knottag.core.practice.HandTask.Seal;
import app.knottag.core.practice.HandTask.TakeDown;
import app.knottag.core.reading.ReadingException;
import app.knottag.core.runbook.Spoken;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Collections;
import java.util.List;
import java.util.Random;
import java.util.stream.Collectors;
import java.util.stream.IntStream;

/** Rounds of ten small tasks against the clock, the same for the same number. All of it is made up. */
public final class Hands {

    /** Figures that are taken for one another on a small print. */
    private static final String HARD = "0B8D56E3";

    private static final List<String> ALIKE = List.of("38", "17", "68", "08", "56");
    private static final int PORTS = 12;

    private Hands() {}

    /**
     * Returns the ten tasks of a round.
     *
     * @param number from 0
     */
    public static List<HandTask> round(int number) {
        if (number < 0) throw new ReadingException("Rounds are counted from 0, was " + number);
        var random = new Random(number * 6_271L + 5);
        var tasks = new ArrayList<HandTask>();
        for (int n = 0; n < 3; n++) tasks.add(takeDown(random));
        for (int n = 0; n < 3; n++) tasks.add(label(random));
        for (int n = 0; n < 2; n++) tasks.add(seal(random));
        for (int n = 0; n < 2; n++) tasks.add(freePort(random));
        Collections.shuffle(tasks, random);
        return List.copyOf(tasks);
    }

    private static TakeDown takeDown(Random random) {
        int[] groups = switch (random.nextInt(3)) {
            case 0 -> new int[] {10, random.nextInt(256), random.nextInt(256)};
            case 1 -> new int[] {172, 16 + random.nextInt(16), random.nextInt(256)};
            default -> new int[] {192, 168, random.nextInt(256)};
        };
        String text = Arrays.stream(groups).mapToObj(Integer::toString).collect(Collectors.joining("."));
        var is = Ipv4Address.parse(text + "." + (1 + random.nextInt(254)));
        boolean oh = random.nextBoolean(), doubles = random.nextBoolean();
        var said = new ArrayList<String>();
        for (String group : is.toString().split("\\.")) said.add(said(group, oh, doubles));
        // Whoever reads out slips now and then, and says so at once.
        if (random.nextInt(3) == 0) {
            int at = random.nextInt(said.size());
            said.set(at, corrected(said.get(at), random));
        }
        return new TakeDown(List.copyOf(said), is);
    }

    private static String corrected(String said, Random random) {
        int last = said.lastIndexOf(' ') + 1;
        String right = said.substring(last).replace("oh", Spoken.DIGITS.get(0));
        int by = 1 + random.nextInt(9);
        String slip = Spoken.DIGITS.get((Spoken.DIGITS.indexOf(right) + by) % 10);
        return said.substring(0, last) + slip + ", no, " + said.substring(last);
    }

    private static String said(String group, boolean oh, boolean doubles) {
        var words = new ArrayList<String>();
        for (int at = 0; at < group.length(); at++) {
            char c = group.charAt(at);
            boolean twice = doubles && at + 1 < group.length() && group.charAt(at + 1) == c;
            if (twice) at++;
            words.add((twice ? "double " : "") + (c == '0' && oh ? "oh" : Spoken.DIGITS.get(c - '0')));
        }
        return String.join(" ", words);
    }

    private static Label label(Random random) {
        // The bit for made-up ones is set, so that none is any maker's.
        long bits = 0x02L | random.nextInt(4) << 2;
        for (int n = 0; n < 10; n++) bits = bits << 4 | Character.digit(HARD.charAt(random.nextInt(HARD.length())), 16);
        var wired = new Mac(bits);
        var wireless = new Mac(bits ^ 1L << 4 * random.nextInt(3));
        int style = random.nextInt(4);
        var lines = new ArrayList<LabelLine>();
        lines.add(new LabelLine("S/N", serial(random)));
        lines.add(new LabelLine("LAN MAC", printed(wired, style)));
        lines.add(new LabelLine("WLAN MAC", printed(wireless, style)));
        Collections.shuffle(lines, random);
        boolean cable = random.nextInt(3) > 0;
        return new Label(List.copyOf(lines), cable, cable ? wired : wireless, cable ? wireless : wired);
    }

    private static String printed(Mac mac, int style) {
        String text = mac.toString();
        return switch (style) {
            case 0 -> text;
            case 1 -> text.replace(':', '-');
            case 2 -> text.replace(":", "");
            default -> text.replace(":", "").replaceAll("(.{4})(?!$)", "$1.");
        };
    }

    private static String serial(Random random) {
        return IntStream.range(0, 9)
                .mapToObj(n -> "" + HARD.charAt(random.nextInt(HARD.length())))
                .collect(Collectors.joining());
    }

    private static Seal seal(Random random) {
        var figures = new StringBuilder();
        for (int n = 0; n < 8; n++) figures.append(random.nextInt(10));
        String sheet = figures.toString();
        if (random.nextBoolean()) return new Seal(sheet, sheet);
        int at = random.nextInt(7);
        char here = sheet.charAt(at), next = sheet.charAt(at + 1);
        if (here != next && random.nextBoolean()) {
            figures.setCharAt(at, next);
            figures.setCharAt(at + 1, here);
        } else figures.setCharAt(at, alike(here));
        return new Seal(sheet, figures.toString());
    }

    /** A figure that is taken for this one at a glance, or else the next one. */
    private static char alike(char figure) {
        return ALIKE.stream()
                .filter(pair -> pair.indexOf(figure) >= 0)
                .map(pair -> pair.charAt(1 - pair.indexOf(figure)))
                .findFirst()
                .orElse((char) ('0' + (figure - '0' + 1) % 10));
    }

    private static FreePort freePort(Random random) {
        var ports = new ArrayList<Port>(List.of(Port.FREE, Port.DARK, Port.KEPT));
        while (ports.size() < PORTS) {
            int drawn = random.nextInt(8);
            ports.add(drawn == 0 ? Port.KEPT : drawn < 3 ? Port.DARK : Port.LIT);
        }
        Collections.shuffle(ports, random);
        return new FreePort(ports);
    }
}
