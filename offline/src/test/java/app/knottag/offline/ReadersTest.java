package app.knottag.offline;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.address.AddressContext;
import app.knottag.core.address.AddressReader;
import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Pool;
import app.knottag.core.address.Purpose;
import app.knottag.core.address.Segment;
import app.knottag.core.hardware.Mac;
import app.knottag.core.hardware.MacReader;
import app.knottag.core.reading.Reading;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.Set;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** What the page reads by itself is held against what the server reads, word for word, in the engine that pages run in. */
class ReadersTest {

    private static final JsonMapper JSON = new JsonMapper();
    private static final String[] TYPED = {
        "10.44.16.54",
        "10.44.16.1",
        "255.255.255.0",
        "255.255.252.0",
        "0.0.0.255",
        "10.44.16.0/24",
        "10.44.16.0 255.255.255.0",
        "192.168.0.1",
        "127.0.0.1",
        "224.0.0.251",
        "169.254.7.7",
        "010.044.016.054",
        "104416054",
        "2001:db8::57",
        "fe80::1%eth0",
        "::",
        "/24",
        "",
        " ",
        "10.44.16.256",
        "10.44.16",
        "https://10.44.16.54/",
        "10.44.16.54:7454"
    };
    private static final String[] MACS = {
        "00:00:5E:00:53:2B",
        "00-00-5e-00-53-2b",
        "0000.5E00.532B",
        "00005E00532B",
        "02:00:00:00:00:01",
        "FF:FF:FF:FF:FF:FF",
        "0:0:5e:0:53:2b",
        "MAC: 00:00:5E:00:53:2B",
        "00:00:5E:00:53",
        "01:00:5E:00:00:FB",
        "ABCDEF"
    };
    private static final String SIGNS = "0123456789OoIlSBZ.,:;-/% ABCDEFabcdefgx\t\u00a0\uff11\u0661\u200b'\u00e9";

    private final Random random = new Random(5952);

    private static final List<Ipv4Address> TAKEN = List.of(Ipv4Address.parse("10.44.16.57"));
    private static final List<Mac> KNOWN = List.of(Mac.parse("00:00:5E:00:53:2A"), Mac.parse("00:00:5E:00:53:77"));
    private static final Segment SHOP = new Segment(
            Ipv4Prefix.parse("10.44.16.0/24"),
            Optional.of(Ipv4Address.parse("10.44.16.1")),
            List.of(new Pool(Ipv4Address.parse("10.44.16.100"), Ipv4Address.parse("10.44.16.199"))));

    private String typed(String[] from) {
        var text = new StringBuilder(from[random.nextInt(from.length)]);
        for (int n = random.nextInt(4); n > 0 && !text.isEmpty(); n--) {
            int at = random.nextInt(text.length());
            char sign = SIGNS.charAt(random.nextInt(SIGNS.length()));
            switch (random.nextInt(4)) {
                case 0 -> text.deleteCharAt(at);
                case 1 -> text.insert(at, sign);
                case 2 -> text.insert(at, text.charAt(at));
                default -> text.setCharAt(at, sign);
            }
        }
        return text.toString();
    }

    @DisplayName("Of ten thousand typed texts the page says what the server says")
    @Test
    void sameRules(@TempDir Path folder) throws IOException, InterruptedException {
        var asked = new ArrayList<Map<String, Object>>();
        var answers = new ArrayList<Reading>();
        for (int n = 0; n < 8_000; n++) {
            var purpose = Purpose.values()[n % Purpose.values().length];
            String text = typed(TYPED);
            var expected = random.nextBoolean() ? Optional.<String>empty() : Optional.of(TYPED[random.nextInt(4)]);
            boolean shop = random.nextBoolean();
            var context = new AddressContext(
                    shop ? Optional.of(SHOP) : Optional.empty(), shop ? Set.copyOf(TAKEN) : Set.of(), expected);
            answers.add(AddressReader.read(text, purpose, context));
            var ask = new HashMap<String, Object>(Map.of("what", "address", "text", text, "purpose", purpose));
            expected.ifPresent(e -> ask.put("expected", e));
            if (shop) {
                ask.put("segment", SHOP);
                ask.put("taken", TAKEN);
            }
            asked.add(ask);
        }
        for (int n = 0; n < 2_000; n++) {
            String text = typed(MACS);
            var expected = n % 2 == 0 ? Optional.<Mac>empty() : Optional.of(Mac.parse("00:00:5E:00:53:2B"));
            answers.add(MacReader.read(text, KNOWN, expected));
            var ask = new HashMap<String, Object>(Map.of("what", "mac", "text", text, "known", KNOWN));
            expected.ifPresent(e -> ask.put("expected", e));
            asked.add(ask);
        }
        var read = inTheEngine(folder, asked);
        assertThat(read).hasSameSizeAs(answers);
        for (int n = 0; n < read.size(); n++)
            assertThat(read.get(n))
                    .as(JSON.writeValueAsString(asked.get(n)))
                    .isEqualTo(JSON.valueToTree(answers.get(n)));
        assertThat(answers.stream().filter(a -> a.slip() != null)).hasSizeGreaterThan(500);
        assertThat(answers.stream().filter(Reading::usable)).hasSizeGreaterThan(500);
    }

    private static JsonNode inTheEngine(Path folder, List<Map<String, Object>> asked)
            throws IOException, InterruptedException {
        var page = Path.of("target", "page", "readers.js").toAbsolutePath();
        var module = Files.copy(page, folder.resolve("readers.mjs"));
        var in = Files.writeString(folder.resolve("asked.json"), JSON.writeValueAsString(asked));
        var out = folder.resolve("read.json");
        var script = Files.writeString(folder.resolve("ask.mjs"), """
                import { readFileSync, writeFileSync } from 'node:fs';
                import * as readers from '%s';
                const asked = JSON.parse(readFileSync('%s', 'utf8'));
                writeFileSync('%s', JSON.stringify(asked.map(a => readers[a.what](a))));
                """.formatted(module.toUri(), in, out));
        var node = new ProcessBuilder("node", script.toString())
                .redirectErrorStream(true)
                .start();
        String said = new String(node.getInputStream().readAllBytes(), StandardCharsets.UTF_8);
        assertThat(node.waitFor()).as(said).isZero();
        return JSON.readTree(out.toFile());
    }
}
