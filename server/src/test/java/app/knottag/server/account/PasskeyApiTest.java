package app.knottag.server.account;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.server.Api;
import app.knottag.server.Running;
import java.io.ByteArrayOutputStream;
import java.math.BigInteger;
import java.nio.ByteBuffer;
import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.KeyPair;
import java.security.KeyPairGenerator;
import java.security.MessageDigest;
import java.security.SecureRandom;
import java.security.Signature;
import java.security.interfaces.ECPublicKey;
import java.security.spec.ECGenParameterSpec;
import java.sql.SQLException;
import java.util.Base64;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.atomic.AtomicInteger;
import org.junit.jupiter.api.AfterAll;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Passkeys against a device that is written from the text of Web Authentication Level 3 (6.1, 6.5, 7) and RFC 9053. */
class PasskeyApiTest {

    private static final String PASSWORD = "heron under seven bridges";
    private static final String OTHER = "kettle of quiet thunder";
    private static final String PAGE = "https://knot.example.test", PARTY = "knot.example.test";
    private static final int PRESENT = 0x01, VERIFIED = 0x04, ATTESTED = 0x40;
    private static final AtomicInteger HOSTILE = new AtomicInteger();
    private final Api lead = Running.as(Role.LEAD);

    /** What the device says otherwise than it should. */
    private record Odd(String origin, String party, int flags, String challenge, String type) {
        static final Odd NOTHING = new Odd(PAGE, PARTY, PRESENT | VERIFIED, "", "");
    }

    /** Holds one key for one name. */
    private static final class Device {

        private final byte[] id = random(32);
        private final KeyPair keys = keys();
        private int counter;

        Map<String, Object> makes(JsonNode asked, Odd odd) {
            var point = ((ECPublicKey) keys.getPublic()).getW();
            byte[] cose = join(
                    bytes(0xa5, 0x01, 0x02, 0x03, 0x26, 0x20, 0x01, 0x21, 0x58, 0x20),
                    unsigned(point.getAffineX()),
                    bytes(0x22, 0x58, 0x20),
                    unsigned(point.getAffineY()));
            byte[] data = join(head(odd, odd.flags | ATTESTED), new byte[16], bytes(0, id.length), id, cose);
            byte[] object = join(
                    bytes(0xa3),
                    text("fmt"),
                    text("none"),
                    text("attStmt"),
                    bytes(0xa0),
                    text("authData"),
                    bytes(0x59, data.length >> 8, data.length),
                    data);
            return Map.of(
                    "label", "Blue phone",
                    "id", url(id),
                    "clientDataJSON", url(client("webauthn.create", asked, odd)),
                    "attestationObject", url(object),
                    "transports", List.of("internal"));
        }

        Map<String, Object> signs(JsonNode asked, Odd odd) {
            byte[] data = head(odd, odd.flags), client = client("webauthn.get", asked, odd);
            try {
                var signature = Signature.getInstance("SHA256withECDSA");
                signature.initSign(keys.getPrivate());
                signature.update(join(data, sha256(client)));
                return Map.of(
                        "id", url(id),
                        "clientDataJSON", url(client),
                        "authenticatorData", url(data),
                        "signature", url(signature.sign()));
            } catch (GeneralSecurityException e) {
                throw new AssertionError(e);
            }
        }

        private byte[] head(Odd odd, int flags) {
            return join(
                    sha256(odd.party.getBytes(StandardCharsets.UTF_8)),
                    bytes(flags),
                    ByteBuffer.allocate(4).putInt(++counter).array());
        }

        private static byte[] client(String type, JsonNode asked, Odd odd) {
            String challenge = odd.challenge.isEmpty() ? asked.get("challenge").asString() : odd.challenge;
            return ("{\"type\":\"" + (odd.type.isEmpty() ? type : odd.type) + "\",\"challenge\":\"" + challenge
                            + "\",\"origin\":\"" + odd.origin + "\",\"crossOrigin\":false}")
                    .getBytes(StandardCharsets.UTF_8);
        }

        private static KeyPair keys() {
            try {
                var generator = KeyPairGenerator.getInstance("EC");
                generator.initialize(new ECGenParameterSpec("secp256r1"));
                return generator.generateKeyPair();
            } catch (GeneralSecurityException e) {
                throw new AssertionError(e);
            }
        }

        private static byte[] unsigned(BigInteger n) {
            byte[] fixed = new byte[32], signed = n.toByteArray();
            int from = Math.max(0, signed.length - 32);
            System.arraycopy(signed, from, fixed, 32 - (signed.length - from), signed.length - from);
            return fixed;
        }

        private static byte[] text(String word) {
            return join(bytes(0x60 + word.length()), word.getBytes(StandardCharsets.UTF_8));
        }

        private static byte[] bytes(int... values) {
            byte[] all = new byte[values.length];
            for (int n = 0; n < values.length; n++) all[n] = (byte) values[n];
            return all;
        }

        private static byte[] join(byte[]... parts) {
            var all = new ByteArrayOutputStream();
            for (var part : parts) all.writeBytes(part);
            return all.toByteArray();
        }

        private static byte[] random(int length) {
            byte[] all = new byte[length];
            new SecureRandom().nextBytes(all);
            return all;
        }

        private static byte[] sha256(byte[] what) {
            try {
                return MessageDigest.getInstance("SHA-256").digest(what);
            } catch (GeneralSecurityException e) {
                throw new AssertionError(e);
            }
        }

        private static String url(byte[] what) {
            return Base64.getUrlEncoder().withoutPadding().encodeToString(what);
        }
    }

    /** All tests come from one address; what was refused here slows nobody after it. */
    @AfterAll
    static void forgotten() throws SQLException {
        Running.write("delete from sign_in_try");
    }

    private static String json(Map<String, Object> body) {
        return new JsonMapper().writeValueAsString(body);
    }

    /** Somebody new, signed in by password. */
    private Api join(String name) {
        Running.join(name, Role.TECHNICIAN, PASSWORD);
        var api = Running.stranger();
        api.post("/api/session", "{'name':'%s','password':'%s'}", name, PASSWORD)
                .expect(200);
        return api;
    }

    private static JsonNode toMake(Api api) {
        return api.post("/api/me/passkeys/challenge", "{'current':'%s'}", PASSWORD)
                .expect(200)
                .json();
    }

    private static JsonNode toSign(Api api) {
        return api.post("/api/session/challenge", "{}").expect(200).json();
    }

    private static Device added(Api api) {
        var device = new Device();
        api.send("POST", "/api/me/passkeys", json(device.makes(toMake(api), Odd.NOTHING)))
                .expect(201);
        return device;
    }

    private static Api.Answer enters(Api api, Device device, Odd odd) {
        return api.send("POST", "/api/session/passkey", json(device.signs(toSign(api), odd)));
    }

    @DisplayName(
            "A passkey is made with the password, good instead of it, listed, and good no longer once it is removed")
    @Test
    void insteadOfThePassword() {
        var api = join("Wren Passwell");
        api.post("/api/me/passkeys/challenge", "{'current':'not it'}").refused(422, "wrong-password");
        var device = added(api);
        var stranger = Running.stranger();
        var session = enters(stranger, device, Odd.NOTHING).expect(200).json();
        assertThat(session.get("name").asString()).isEqualTo("Wren Passwell");
        assertThat(session.get("role").asString()).isEqualTo("TECHNICIAN");
        stranger.get("/api/sites").expect(200);
        stranger.get("/api/people").refused(403, "not-allowed");
        var own = stranger.get("/api/me/passkeys").expect(200).json();
        assertThat(own.get(0).get("label").asString()).isEqualTo("Blue phone");
        assertThat(own).hasSize(1);
        // Nobody else removes it, and the same device is not asked to make two.
        lead.send("DELETE", "/api/me/passkeys/" + own.get(0).get("id").asString(), "")
                .refused(404, "not-found");
        assertThat(toMake(api).get("excludeCredentials").get(0).get("id"))
                .isEqualTo(own.get(0).get("id"));
        api.send("DELETE", "/api/me/passkeys/" + own.get(0).get("id").asString(), "")
                .expect(204);
        enters(Running.stranger(), device, Odd.NOTHING).refused(401, "passkey-unknown");
        var last = lead.get("/api/sign-ins").expect(200).json();
        assertThat(last.get(0).get("what").asString()).isEqualTo("REFUSED");
        assertThat(last.get(1).get("what").asString()).isEqualTo("ENTERED");
        assertThat(last.get(1).get("person").asString()).isEqualTo("Wren Passwell");
        assertThat(lead.get("/api/log.json").expect(200).body()).contains("added passkey", "removed passkey");
    }

    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            value = {
                "page that looks like ours | https://knot.example.test.evil.example | knot.example.test | 5 | |",
                "not enciphered            | http://knot.example.test               | knot.example.test | 5 | |",
                "key of another name       | https://knot.example.test              | evil.example      | 5 | |",
                "nobody was looked at      | https://knot.example.test              | knot.example.test | 1 | |",
                "nobody was there          | https://knot.example.test              | knot.example.test | 4 | |",
                "another question          | https://knot.example.test              | knot.example.test | 5 | AAAAAAAAAAAAAAAAAAAAAA |",
                "meant for something else  | https://knot.example.test              | knot.example.test | 5 | | webauthn.other",
            })
    void whatIsNotTaken(String why, String origin, String party, int flags, String challenge, String type) {
        var odd = new Odd(origin, party, flags, challenge == null ? "" : challenge, type == null ? "" : type);
        var api = join("Odd " + why.replaceAll("[^a-z ]", ""));
        api.send("POST", "/api/me/passkeys", json(new Device().makes(toMake(api), odd)))
                .refused(400, "passkey-refused");
        assertThat(api.get("/api/me/passkeys").expect(200).json()).isEmpty();
        var device = added(api);
        enters(Running.stranger(), device, odd).refused(401, "passkey-unknown");
        enters(Running.stranger(), device, Odd.NOTHING).expect(200);
    }

    @DisplayName("An answer counts once, for its own question, with its own key; a copied key is noticed")
    @Test
    void once() {
        var api = join("Teal Onceonly");
        var device = added(api);
        var stranger = Running.stranger();
        String answer = json(device.signs(toSign(stranger), Odd.NOTHING));
        Running.stranger().send("POST", "/api/session/passkey", answer).refused(409, "passkey-not-asked");
        stranger.send("POST", "/api/session/passkey", answer).expect(200);
        stranger.send("POST", "/api/session/passkey", answer).refused(409, "passkey-not-asked");
        // The key of one device under the name of another.
        var other = new Device();
        System.arraycopy(device.id, 0, other.id, 0, other.id.length);
        enters(Running.stranger(), other, Odd.NOTHING).refused(401, "passkey-unknown");
        // A copy of the key has not counted along.
        device.counter = 0;
        enters(Running.stranger(), device, Odd.NOTHING).refused(401, "passkey-unknown");
        for (var bad : List.of("{}", "{'id':'a b','clientDataJSON':'e30','authenticatorData':'AA','signature':'AA'}")) {
            var asks = Running.stranger();
            toSign(asks);
            assertThat(asks.post("/api/session/passkey", bad).status()).isEqualTo(422);
        }
    }

    @DisplayName("Whatever a device sends instead of what it should is refused, and nothing of it is kept")
    @ParameterizedTest(name = "{0} is {1}")
    @CsvSource({
        "clientDataJSON, bnVsbA, 400, 401",
        "clientDataJSON, e30, 400, 401",
        "clientDataJSON, W10, 400, 401",
        "clientDataJSON, eyJ0eXBlIjoxfQ, 400, 401",
        "clientDataJSON, _w, 400, 401",
        "clientDataJSON, A, 400, 400",
        "attestationObject, 9g, 400, 0",
        "attestationObject, oA, 400, 0",
        "attestationObject, gA, 400, 0",
        "attestationObject, o2NmbXRkbm9uZWdhdHRTdG10oGhhdXRoRGF0YUEB, 400, 0",
        "authenticatorData, AA, 0, 401",
        "signature, AA, 0, 401",
        "id, AA, 0, 401",
        "label, \u200b, 422, 0",
    })
    void hostile(String field, String value, int made, int signed) {
        var api = join("Hostile " + field + " " + HOSTILE.incrementAndGet());
        var device = added(api);
        if (made > 0) {
            var sent = new HashMap<>(new Device().makes(toMake(api), Odd.NOTHING));
            sent.put(field, value);
            assertThat(api.send("POST", "/api/me/passkeys", json(sent)).status())
                    .isEqualTo(made);
            assertThat(api.get("/api/me/passkeys").expect(200).json()).hasSize(1);
        }
        if (signed > 0) {
            var stranger = Running.stranger();
            var sent = new HashMap<>(device.signs(toSign(stranger), Odd.NOTHING));
            sent.put(field, value);
            assertThat(stranger.send("POST", "/api/session/passkey", json(sent)).status())
                    .isEqualTo(signed);
            stranger.get("/api/session").refused(401, "not-signed-in");
        }
        enters(Running.stranger(), device, Odd.NOTHING).expect(200);
    }

    @DisplayName("A closed account, ended sign-ins and a link from a lead count for passkeys too")
    @Test
    void ends() {
        var api = join("Sage Endwell");
        var device = added(api);
        var person = person("Sage Endwell");
        var entered = Running.stranger();
        enters(entered, device, Odd.NOTHING).expect(200);
        lead.send("DELETE", "/api/people/" + person.get("id").asLong() + "/sessions", "")
                .expect(204);
        entered.get("/api/sites").refused(401, "not-signed-in");
        change(person, true).expect(204);
        enters(Running.stranger(), device, Odd.NOTHING).refused(403, "account-closed");
        change(person("Sage Endwell"), false).expect(204);
        enters(Running.stranger(), device, Odd.NOTHING).expect(200);
        String token = lead.post("/api/people/" + person.get("id").asLong() + "/password-link", "{}")
                .expect(201)
                .json()
                .get("path")
                .asString()
                .replace("/password/", "");
        Running.stranger()
                .post("/api/password-links/acceptance", "{'token':'%s','password':'%s'}", token, OTHER)
                .expect(204);
        enters(Running.stranger(), device, Odd.NOTHING).refused(401, "passkey-unknown");
    }

    @DisplayName("Of two from before whose names look alike each enters with the own passkey as oneself")
    @Test
    void lookAlikes() throws Exception {
        join("Dew Twin");
        // As an upgrade left them: the first one kept the look of the name, the other one got a number behind it.
        Running.write("insert into person (name, name_key, role, password_hash) select 'Dew  Twin', name_key || ' 2',"
                + " 'OFFICE', '" + Passwords.encoder().encode(OTHER) + "' from person where name = 'Dew Twin'");
        var api = Running.stranger();
        api.post("/api/session", "{'name':'Dew Twin 2','password':'%s'}", OTHER).expect(200);
        api.post("/api/me/passkeys/challenge", "{'current':'%s'}", PASSWORD).refused(422, "wrong-password");
        var device = new Device();
        var asked = api.post("/api/me/passkeys/challenge", "{'current':'%s'}", OTHER)
                .expect(200)
                .json();
        api.send("POST", "/api/me/passkeys", json(device.makes(asked, Odd.NOTHING)))
                .expect(201);
        var entered =
                enters(Running.stranger(), device, Odd.NOTHING).expect(200).json();
        assertThat(entered.get("name").asString()).isEqualTo("Dew  Twin");
        assertThat(entered.get("role").asString()).isEqualTo("OFFICE");
    }

    @DisplayName("Whoever only asks is slowed down, and signs in by password all the same")
    @Test
    void asksAndAsks() throws SQLException {
        var asks = Running.stranger();
        int asked = 0;
        while (asks.post("/api/session/challenge", "{}").status() == 200)
            assertThat(++asked).isLessThan(60);
        asks.post("/api/session/challenge", "{}").refused(429, "too-many-tries");
        assertThat(join("Moss Passes")
                        .get("/api/session")
                        .expect(200)
                        .json()
                        .get("name")
                        .asString())
                .isEqualTo("Moss Passes");
        forgotten();
    }

    private JsonNode person(String name) {
        for (var p : lead.get("/api/people").expect(200).json())
            if (p.get("name").asString().equals(name)) return p;
        throw new AssertionError("nobody is called " + name);
    }

    private Api.Answer change(JsonNode person, boolean closed) {
        lead.ifMatch = "\"" + person.get("version").asInt() + "\"";
        return lead.send(
                "PUT",
                "/api/people/" + person.get("id").asLong(),
                "{\"role\":\"TECHNICIAN\",\"closed\":" + closed + ",\"everySite\":true,\"sites\":[]}");
    }
}
