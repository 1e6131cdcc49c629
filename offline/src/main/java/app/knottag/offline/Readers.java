package app.knottag.offline;

import app.knottag.core.address.AddressContext;
import app.knottag.core.address.AddressReader;
import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Pool;
import app.knottag.core.address.Purpose;
import app.knottag.core.address.Segment;
import app.knottag.core.hardware.Mac;
import app.knottag.core.hardware.MacReader;
import app.knottag.core.reading.Finding;
import app.knottag.core.reading.Note;
import app.knottag.core.reading.Reading;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.function.Function;
import org.jspecify.annotations.Nullable;
import org.teavm.jso.JSBody;
import org.teavm.jso.JSExport;
import org.teavm.jso.JSObject;
import org.teavm.jso.core.JSArray;
import org.teavm.jso.core.JSString;

/** The readers as the page calls them: what is asked and answered has the form that the server's routes have. */
public final class Readers {

    private Readers() {}

    /**
     * Reads an address, mask, gateway, resolver or prefix.
     *
     * @param asked text, purpose and, where they are known, segment (prefix, gateway, pools), taken and expected
     */
    @JSExport
    public static JSObject address(JSObject asked) {
        var context = new AddressContext(
                Optional.ofNullable(part(asked, "segment")).map(Readers::segment),
                new HashSet<>(texts(part(asked, "taken"), Ipv4Address::parse)),
                Optional.ofNullable(text(asked, "expected")));
        return shown(AddressReader.read(text(asked, "text"), Purpose.valueOf(needed(asked, "purpose")), context));
    }

    /**
     * Reads a MAC.
     *
     * @param asked text and, where they are known, known and expected MACs
     */
    @JSExport
    public static JSObject mac(JSObject asked) {
        return shown(MacReader.read(
                text(asked, "text"),
                texts(part(asked, "known"), Mac::parse),
                Optional.ofNullable(text(asked, "expected")).map(Mac::parse)));
    }

    private static Segment segment(JSObject sketch) {
        return new Segment(
                Ipv4Prefix.parse(needed(sketch, "prefix")),
                Optional.ofNullable(text(sketch, "gateway")).map(Ipv4Address::parse),
                parts(part(sketch, "pools")).stream()
                        .map(p -> new Pool(Ipv4Address.parse(needed(p, "from")), Ipv4Address.parse(needed(p, "to"))))
                        .toList());
    }

    private static <V> List<V> texts(@Nullable JSObject all, Function<String, V> read) {
        var values = new ArrayList<V>();
        if (all != null) for (int n = 0; n < length(all); n++) values.add(read.apply(needed(all, "" + n)));
        return values;
    }

    private static List<JSObject> parts(@Nullable JSObject all) {
        var parts = new ArrayList<JSObject>();
        if (all != null) for (int n = 0; n < length(all); n++) parts.add(Objects.requireNonNull(part(all, "" + n)));
        return parts;
    }

    private static String needed(JSObject of, String name) {
        return Objects.requireNonNull(text(of, name));
    }

    @JSBody(params = "all", script = "return all.length;")
    private static native int length(JSObject all);

    /** What is not there is null to Java, and undefined to the page. */
    @JSBody(
            params = {"of", "name"},
            script = "var it = of[name]; return it == null ? null : it;")
    private static native @Nullable JSObject part(JSObject of, String name);

    @JSBody(
            params = {"of", "name"},
            script = "var it = of[name]; return it == null ? null : '' + it;")
    private static native @Nullable String text(JSObject of, String name);

    private static JSObject shown(Reading reading) {
        var notes = new JSArray<JSObject>();
        for (Note n : reading.notes()) notes.push(note(n.code().name(), n.message()));
        var findings = new JSArray<JSObject>();
        for (Finding f : reading.findings()) {
            var candidates = new JSArray<JSString>();
            for (String c : f.candidates()) candidates.push(JSString.valueOf(c));
            int position = f.position() == null ? -1 : f.position();
            findings.push(finding(f.code().name(), f.message(), position, candidates));
        }
        var slip = reading.slip();
        return reading(
                reading.value(),
                notes,
                findings,
                slip == null
                        ? null
                        : slip(
                                slip.kind().name(),
                                slip.message(),
                                slip.position() == null ? -1 : slip.position(),
                                slip.group() == null ? -1 : slip.group()),
                reading.usable());
    }

    @JSBody(
            params = {"code", "message"},
            script = "return {code: code, message: message};")
    private static native JSObject note(String code, String message);

    @JSBody(
            params = {"code", "message", "position", "candidates"},
            script =
                    "return {code: code, message: message, position: position < 0 ? null : position, candidates: candidates};")
    private static native JSObject finding(String code, String message, int position, JSArray<JSString> candidates);

    @JSBody(
            params = {"kind", "message", "position", "group"},
            script =
                    "return {kind: kind, message: message, position: position < 0 ? null : position, group: group < 0 ? null : group};")
    private static native JSObject slip(String kind, String message, int position, int group);

    @JSBody(
            params = {"value", "notes", "findings", "slip", "usable"},
            script = "return {value: value, notes: notes, findings: findings, slip: slip, usable: usable};")
    private static native JSObject reading(
            @Nullable String value,
            JSArray<JSObject> notes,
            JSArray<JSObject> findings,
            @Nullable JSObject slip,
            boolean usable);
}
