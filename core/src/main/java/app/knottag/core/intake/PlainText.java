package app.knottag.core.intake;

import java.nio.ByteBuffer;
import java.nio.charset.CharacterCodingException;
import java.nio.charset.Charset;
import java.nio.charset.CodingErrorAction;
import java.nio.charset.StandardCharsets;
import java.util.Optional;
import java.util.function.Function;

/** Makes text of bytes that came as a file, and refuses what is no text with a way out. */
public final class PlainText {

    /** Most bytes that are read at once. */
    public static final int MOST_BYTES = 4_000_000;

    private PlainText() {}

    /** What came of the bytes. */
    public sealed interface Decoded {
        <R> R match(Function<String, R> ifText, Function<String, R> ifRefused);
    }

    private record Text(String text) implements Decoded {
        @Override
        public <R> R match(Function<String, R> ifText, Function<String, R> ifRefused) {
            return ifText.apply(text);
        }
    }

    private record Refused(String why) implements Decoded {
        @Override
        public <R> R match(Function<String, R> ifText, Function<String, R> ifRefused) {
            return ifRefused.apply(why);
        }
    }

    /** Reads UTF-8, or UTF-16 when its mark says so; line ends become plain ones. */
    public static Decoded decode(byte[] bytes) {
        if (bytes.length > MOST_BYTES)
            return new Refused("The file has " + (bytes.length + 999_999) / 1_000_000 + " MB; at most "
                    + MOST_BYTES / 1_000_000 + " MB are read. Split it.");
        if (bytes.length > 1 && bytes[0] == 'P' && bytes[1] == 'K')
            return new Refused("This is a spreadsheet file, not text. Save the sheet as CSV (UTF-8) and choose that.");
        var text = utf16(bytes).or(() -> strict(bytes, StandardCharsets.UTF_8));
        if (text.isEmpty())
            return new Refused("Some letters are not UTF-8, from byte " + firstBad(bytes)
                    + " on. Save it as CSV (UTF-8) and choose it again.");
        String plain = text.get().startsWith("\uFEFF") ? text.get().substring(1) : text.get();
        int control = controlAt(plain);
        return control >= 0
                ? new Refused("This is not a text file: there is a control character at place " + control + ".")
                : new Text(plain.replace("\r\n", "\n").replace('\r', '\n'));
    }

    private static Optional<String> utf16(byte[] bytes) {
        boolean marked = bytes.length > 1
                && ((bytes[0] == (byte) 0xFF && bytes[1] == (byte) 0xFE)
                        || (bytes[0] == (byte) 0xFE && bytes[1] == (byte) 0xFF));
        return marked ? strict(bytes, StandardCharsets.UTF_16) : Optional.empty();
    }

    private static Optional<String> strict(byte[] bytes, Charset charset) {
        try {
            return Optional.of(charset.newDecoder()
                    .onMalformedInput(CodingErrorAction.REPORT)
                    .decode(ByteBuffer.wrap(bytes))
                    .toString());
        } catch (CharacterCodingException e) {
            return Optional.empty();
        }
    }

    private static int firstBad(byte[] bytes) {
        String read = new String(bytes, StandardCharsets.UTF_8);
        return read.substring(0, Math.max(0, read.indexOf('\uFFFD'))).getBytes(StandardCharsets.UTF_8).length;
    }

    private static int controlAt(String text) {
        for (int i = 0; i < text.length(); i++)
            if (Character.isISOControl(text.charAt(i)) && "\n\r\t".indexOf(text.charAt(i)) < 0) return i;
        return -1;
    }
}
